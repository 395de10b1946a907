import { expect, test } from '@jest/globals'
import type { SpeakerModel } from '#core/gear/speaker'
import { speakerModelSchema } from '#core/gear/speaker'
import { SEED } from '#core/testing/runs'
import { seeded } from '#core/testing/trees'
import { unstatedOf } from '#core/quantity/unstated'
import { neededOhm, replaceReport, type Need } from './replace'

const model = (name: string, more: Partial<SpeakerModel> = {}): SpeakerModel => ({ ...unstatedOf(speakerModelSchema) as SpeakerModel, name, ...more })
const BODY: Need['body'] = { build: null, frameMm: null, cutOutMm: null, depthMm: null, magnetMm: null, holes: '', plusMark: '', sensitivityDb: null, sensitivityAt: null, continuousW: null }
const need = (more: Partial<Omit<Need, 'body'>> & { body?: Partial<Need['body']> }): Need => ({ nominalOhm: null, dcrOhm: null, ...more, body: { ...BODY, ...more.body } })

test.each<[string, number | null, number | null, number | null, 'label' | 'coil' | null]>([
  ['by its label', 4, null, 4, 'label'], ['by its label, though its coil has failed', 4, 36, 4, 'label'], ['by a coil that only one label has', null, 3.4, 4, 'coil'],
  ['a coil of 36 Ω is in the band of 32', null, 36, 32, 'coil'], ['of 12 Ω only 16 reads so', null, 12, 16, 'coil'], ['between the bands it has failed', null, 9.5, null, null], ['of two labels it may be either', null, 56, null, null],
  ['nothing is known', null, null, null, null],
])('what ohms are needed: %s', (_, nominalOhm, dcrOhm, ohm, by) => expect(neededOhm({ nominalOhm, dcrOhm })).toMatchObject({ ohm, by, says: expect.stringMatching(/.{10}/) }))

test('ranked and refused, against a direct look at every one: 300 random drawers', () => {
  const chance = seeded(SEED)
  const pick = <T>(list: readonly T[]) => list[Math.floor(chance() * list.length)]!
  for (let n = 0; n < 300; n++) {
    const library = Array.from({ length: 8 }, (_, k) => model(`m${k}`, { nominalOhm: pick([null, 4, 4.5, 6, 8]), frameMm: pick([null, 128, 130, 134]), sensitivityDb: pick([null, 85, 88, 91]), sensitivityAt: '1 W', continuousW: pick([null, 10, 30]) }))
    const asked = need({ nominalOhm: 4, body: { frameMm: 130, sensitivityDb: 88, sensitivityAt: '1 W', continuousW: 30 } })
    const { fit, refused } = replaceReport(asked, library)
    // Within 15 % of the ohms, and 3 mm of the frame where both are stated.
    const fits = library.filter(m => m.nominalOhm !== null && Math.abs(m.nominalOhm / 4 - 1) <= 0.15 && (m.frameMm === null || Math.abs(m.frameMm - 130) <= 3))
    expect([n, [...fit.map(f => f.name)].sort()]).toEqual([n, fits.map(m => m.name).sort()])
    expect(refused.length).toBe(library.length - fits.length)
    for (const { why } of refused) expect(why).toMatch(/not stated|more than 15 % off|frame is 134 mm/)
    fit.slice(1).forEach((row, k) => expect(row.minds.length).toBeGreaterThanOrEqual(fit[k]!.minds.length))
  }
})

test('level at the same volts, by hand: 91 dB and 8 Ω in place of 88 dB and 8 Ω is 3 dB louder; 88 dB and 4.4 Ω of 4 is 10·log10(4/4.4)', () => {
  const { fit: [one] } = replaceReport(need({ nominalOhm: 8, body: { sensitivityDb: 88, sensitivityAt: '1 W' } }), [model('a', { nominalOhm: 8, sensitivityDb: 91, sensitivityAt: '1 W' })])
  const { fit: [other] } = replaceReport(need({ nominalOhm: 4, body: { sensitivityDb: 88, sensitivityAt: '1 W' } }), [model('b', { nominalOhm: 4.4, sensitivityDb: 88, sensitivityAt: '1 W' })])
  expect([one!.levelDb, other!.levelDb, other!.ohmTimes]).toEqual([expect.closeTo(3, 9), expect.closeTo(10 * Math.log10(4 / 4.4), 9), expect.closeTo(1.1, 9)])
  expect(one!.minds.join()).toMatch(/3 dB louder/)
})

test('where the ohms of the old one are not known nothing is compared, and that is said; where nothing is known nothing is found', () => {
  const { fit, needs } = replaceReport(need({ dcrOhm: 9.5, body: { frameMm: 130 } }), [model('a', { nominalOhm: 8, frameMm: 130 })])
  expect([fit[0]!.ohmTimes, fit[0]!.minds.some(m => m.includes('not compared')), needs.ohm]).toEqual([null, true, null])
  expect(() => replaceReport(need({}), [])).toThrow(/Nothing is known/)
})
