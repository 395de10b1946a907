import { expect, test } from '@jest/globals'
import { unstatedModel, type GearKind } from '#core/gear/models'
import { LIST_KEYS, type GearRow } from '#core/gear/protocol'
import { fitHere, fittingFirst, type Here } from './fits'

const rowOf = (kind: GearKind, stated: object): GearRow => {
  const body = { ...unstatedModel(kind, 'x'), ...stated } as unknown as Record<string, unknown>
  return { id: JSON.stringify(stated), version: 1, isRetired: false, usedIn: 0, values: LIST_KEYS[kind].map(key => body[key]) }
}
const taps = (...linesV: number[]) => ({ scales: linesV.map(lineV => ({ lineV, tapsW: [5, 10] })) })
test.each<[string, GearKind, object, Here, string, string]>([
  ['a control that carries it', 'control', { ratingW: 50, linesV: [70, 100] }, { lineV: 70.71, behindW: 37.5 }, 'yes', ''],
  ['just', 'control', { ratingW: 37.5, linesV: [70] }, { lineV: 70.71, behindW: 37.5 }, 'yes', ''],
  ['too small', 'control', { ratingW: 10, linesV: [70] }, { lineV: 70.71, behindW: 37.5 }, 'no', '10 W, and 37.5 W hang behind it'],
  ['for another line', 'control', { ratingW: 50, linesV: [100] }, { lineV: 70.71, behindW: 37.5 }, 'no', 'for lines of 100 V'],
  ['its rating not stated', 'control', { linesV: [70] }, { lineV: 70.71, behindW: 37.5 }, 'not-known', 'its rating is not stated'],
  ['its lines not stated', 'control', { ratingW: 50 }, { lineV: 70.71, behindW: 37.5 }, 'not-known', 'for which lines is not stated'],
  ['what hangs behind it not known', 'control', { ratingW: 10, linesV: [70] }, { lineV: 70.71, behindW: null }, 'not-known', ''],
  ['a transformer by its scales', 'transformer', { ratingW: 60, ...taps(100) }, { lineV: 70.71, behindW: 20 }, 'no', 'for lines of 100 V'],
  ['a transformer', 'transformer', { ratingW: 60, ...taps(70, 100) }, { lineV: 70.71, behindW: 20 }, 'yes', ''],
  ['a speaker with taps of the line', 'speaker', taps(70, 100), { lineV: 100 }, 'yes', ''],
  ['of another', 'speaker', taps(100), { lineV: 70.71 }, 'no', 'its taps are for 100 V'],
  ['without any', 'speaker', { nominalOhm: 8 }, { lineV: 70.71 }, 'no', 'no line transformer stated'],
  ['taps alone, straight on an amplifier', 'speaker', taps(70), { lineV: null }, 'no', 'only taps of a line are stated'],
  ['nothing stated', 'speaker', {}, { lineV: null }, 'not-known', 'its ohms are not stated'],
  ['the ohms that hang there', 'speaker', { nominalOhm: 8, ...taps(70) }, { lineV: null, nominalOhm: 8 }, 'yes', ''],
  ['other ohms', 'speaker', { nominalOhm: 4 }, { lineV: null, nominalOhm: 8 }, 'not-known', '4 Ω; 8 Ω hang here'],
  ['ohms not known', 'speaker', { nominalOhm: 4 }, { lineV: null }, 'yes', ''],
  ['a place of which nothing is known', 'speaker', { nominalOhm: 4 }, {}, 'not-known', ''],
  ['cable is chosen by its size', 'cable', {}, { lineV: 70.71 }, 'not-known', ''],
])('%s', (_, kind, stated, here, fits, why) => expect(fitHere(kind, rowOf(kind, stated), here)).toEqual({ fits, why }))

test('what fits comes first, the smallest that carries it before larger ones; what does not comes last, in its order', () => {
  const rows = [10, 100, 35, null, 50, 20].map(ratingW => rowOf('control', { ratingW, linesV: [70] }))
  expect(fittingFirst('control', rows, { lineV: 70.71, behindW: 37.5 }).map(({ row }) => row.values[1])).toEqual([50, 100, null, 10, 35, 20])
})
