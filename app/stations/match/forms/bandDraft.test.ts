import { expect, test } from '@jest/globals'
import type { Band } from '#core/job/schema'
import { bandOf, type Ends } from './bandDraft'

const band: Band = { system: 'Stage', fromHz: 100, toHz: null, slopeDb: 24, setDb: null }

test.each<[string, (Ends | null)[], (string | null)[]]>([
  ['upper end below the lower one, then the lower one emptied', [{ fromHz: 100, toHz: 80 }, { fromHz: null, toHz: 80 }], [null, '–80']],
  ['the lower one emptied, then the upper one typed', [{ fromHz: null, toHz: null }, { fromHz: null, toHz: 80 }], [null, '–80']],
  ['a higher upper end at once', [{ fromHz: 100, toHz: 2000 }], ['100–2000']],
  ['no width is none', [{ fromHz: 100, toHz: 100 }], [null]],
])('%s', (_, typed, wanted) => {
  const answers = typed.map(ends => bandOf(band, ends!))
  expect(answers.map(a => a.band && `${a.band.fromHz ?? ''}–${a.band.toHz ?? ''}`)).toEqual(wanted)
  answers.forEach(a => expect(a.says === '').toBe(a.band !== null))
  expect(answers.at(-1)!.band === null || answers.at(-1)!.band!.slopeDb === 24).toBe(true)
})

test('why it is none yet is said by what is missing', () => {
  expect([bandOf(band, { fromHz: null, toHz: null }).says, bandOf(band, { fromHz: 100, toHz: 80 }).says]).toEqual([expect.stringMatching(/begins and ends nowhere/), expect.stringMatching(/end below where it begins/)])
})
