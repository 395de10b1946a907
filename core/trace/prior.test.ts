import { expect, test } from '@jest/globals'
import { proveLine } from '#core/check/proof'
import { Records } from '#core/job/records'
import type { FaultKind, Reading, Repair } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { drained } from '#core/quantity/steps'
import { cabled, jobOf, outputOf } from '#core/testing/jobs'
import { givenBy } from './given'
import { AFTER_REPAIR, justMended, PRIOR, STILL_THERE } from './prior'
import { rankOfSingles, trySingles } from './rank'

const output = outputOf(cabled(jobOf('4 x 20 W on 70 V 150 W'), { cable: { awg: 16 }, lengthM: 9 }))
const ids = speakersOf(output.wiring).map(s => s.id)
const read = (at: string, ohm = 62): Reading =>
  ({ id: `r${at}`, at, kind: 'line-impedance', outputId: 'out1', nodeId: null, value: { is: 'ohm', ohm }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false })
const mend = (at: string, fault: FaultKind, nodeId: string | null): Repair => ({ id: `p${at}`, at, outputId: 'out1', nodeId, fault, note: '', who: null, withdrawn: false })
const DAY = '2026-05-04'

test('shares of what may be there come to one, before a repair and after it', () => {
  for (const prior of [PRIOR, AFTER_REPAIR]) expect(Object.values(prior).reduce((a: number, b: number) => a + b)).toBeCloseTo(1, 9)
})

test.each<[string, Reading[], Repair[], number]>([
  ['nothing', [read(`${DAY}T09:00:00Z`)], [], 0], ['an hour before the last reading', [read(`${DAY}T10:00:00Z`)], [mend(`${DAY}T09:00:00Z`, 'coil-open', ids[1]!)], 1],
  ['late in the evening, read in the morning', [read('2026-05-05T07:00:00Z')], [mend(`${DAY}T22:00:00Z`, 'coil-open', ids[1]!)], 1],
  ['last year', [read('2027-05-05T07:00:00Z')], [mend(`${DAY}T22:00:00Z`, 'coil-open', ids[1]!)], 0],
  ['last year, and now', [read('2027-05-05T07:00:00Z')], [mend(`${DAY}T22:00:00Z`, 'coil-open', ids[1]!), mend('2027-05-05T06:00:00Z', 'coil-open', ids[2]!)], 1],
  ['after the last reading', [read(`${DAY}T09:00:00Z`)], [mend(`${DAY}T10:00:00Z`, 'coil-open', ids[1]!)], 1],
])('put right just before what is read: %s', (_, history, repairs, wanted) => expect(justMended({ history, repairs })).toHaveLength(wanted))

test('after a repair a line is mostly right; what was put right at one go is hardly there still, another at its place is as likely as elsewhere', () => {
  const ranked = (repairs: Repair[]) => {
    const given = givenBy(output, proveLine({ readings: Records.of([]), repairs: Records.of(repairs) }, output))
    const { suspects } = rankOfSingles(drained(trySingles(given)))
    return {
      of: (kind: FaultKind, k: number) => suspects.find(s => s.faults[0]?.kind === kind && s.faults[0].nodeId === ids[k])!.probability,
      drawn: suspects.find(s => s.faults.length === 0)!.probability,
    }
  }
  const [before, after] = [ranked([]), ranked([mend(`${DAY}T09:00:00Z`, 'coil-open', ids[1]!)])]
  expect([before.drawn, after.drawn].map(p => p.toFixed(2))).toEqual([PRIOR, AFTER_REPAIR].map(({ asDrawn, two }) => (asDrawn / (1 - two)).toFixed(2)))
  // The unit was changed: nothing of a unit is there, be it by another name; its joint is as any other.
  for (const kind of ['coil-open', 'rubbing'] as const) expect([kind, after.of(kind, 1) / after.of(kind, 2)]).toEqual([kind, expect.closeTo(STILL_THERE, 6)])
  expect(after.of('open-at-drop', 1) / after.of('open-at-drop', 2)).toBeCloseTo(1, 6)
  expect(before.of('coil-open', 1) / before.of('coil-open', 2)).toBeCloseTo(1, 6)
})
