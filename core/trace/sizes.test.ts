import { expect, test } from '@jest/globals'
import { proveLine } from '#core/check/proof'
import { faultAt } from '#core/faults/fault'
import { Records } from '#core/job/records'
import type { Reading, ReadingValue } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { drained } from '#core/quantity/steps'
import { cabled, jobOf, outputOf } from '#core/testing/jobs'
import { givenBy } from './given'
import { rankPairs } from './pairs'
import { isBeside, trySingles } from './rank'
import { reasonsOf } from './reasons'
import { addsUp, betweenOf, lnOf, nextSizes } from './sizes'

test('next to a size are the ones before and after it of the same fault at the same place, in whatever order they come', () => {
  const joint = (nodeId: string, amount: number) => faultAt('joint-in-run', nodeId, { amount })
  const faults = [joint('s0', 6), joint('s0', 0.15), faultAt('open-at-drop', 's0'), joint('s1', 0.5), joint('s0', 1.5), joint('s1', 0.15)]
  expect(nextSizes(faults)).toEqual([[4], [4], [], [5], [1, 0], [3]])
})

test.each<[string, number, number[], number]>([
  ['half of the distance on each side, in the mean', Math.log(8), [Math.log(2), Math.log(16)], ((2 + 1) / 2 * Math.LN2 / 2) ** 2],
  ['of one side alone', Math.log(8), [Math.log(2)], Math.LN2 ** 2],
  ['open is no size between', Math.log(8), [Math.log(16), Infinity], (Math.LN2 / 2) ** 2], ['nor is a short', -Infinity, [Math.log(2)], 0], ['none', 2, [], 0],
])('what lies between sizes: %s', (_, ln, next, variance) => expect(betweenOf(ln, next)).toBeCloseTo(variance, 12))

test('two that each take a half leave a quarter, and add up; before a short a joint does not; open is open', () => {
  const adds = (...ohms: [number, number, number, number]) => addsUp(...ohms.map(Math.log) as typeof ohms)
  expect([adds(2, 4, 4, 8), adds(3, 9, 0.1, 8), adds(0, 4, 0, 8), adds(Infinity, 4, Infinity, 8)]).toEqual([true, false, false, false])
  expect([lnOf(undefined), lnOf({ state: 'open' }), lnOf({ state: 'short' }), lnOf({ state: 'finite', re: 3, im: 4, ohm: 5 })]).toEqual([NaN, Infinity, -Infinity, Math.log(5)])
})

test('of thirteen speakers, shorted at the fifth, with a joint before it of a size between those tried: both are named, of all pairs', () => {
  const output = outputOf(cabled(jobOf('8 x 10 W + 5 x 5 W on 70 V'), { cable: { awg: 16 }, lengthM: 9 }))
  const ids = speakersOf(output.wiring).map(s => s.id)
  const reading = (kind: Reading['kind'], value: ReadingValue, nodeId: string | null): Reading =>
    ({ id: `r${kind}`, at: '2026-05-04T09:00:00Z', kind, outputId: 'out1', nodeId, value, note: '', frequencyHz: null, supersedes: null, taken: null, who: null,
      withdrawn: false })
  // The line is planned at 48 Ω: joints of 0.15 and of 0.5 of it are 7 and 24.
  const readings = [reading('line-impedance', { is: 'ohm', ohm: 15 }, null), reading('outward-impedance', { is: 'ohm', ohm: 0.1 }, ids[4]!)]
  const tried = drained(trySingles(givenBy(output, proveLine({ readings: Records.of(readings), repairs: Records.of() }, output))))
  const { suspects } = drained(rankPairs(tried))
  const kinds = suspects.map(s => s.faults.map(f => f.kind).sort().join())
  const both = suspects.filter((_, k) => ['joint-in-run,short-at-drop', 'joint-in-run,short-in-run'].includes(kinds[k]!))
  const first = suspects.findIndex(s => !isBeside(s))
  expect([kinds[first], both.reduce((sum, s) => sum + s.probability, 0) > 0.1]).toEqual(['joint-in-run,short-at-drop', true])
  // Both readings speak for it, the head by what lies between.
  expect(reasonsOf(tried, suspects)[first]!.map(r => r.times > 1)).toEqual([true, true])
})
