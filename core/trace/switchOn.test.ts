import { describe, expect, test } from '@jest/globals'
import { isOverloadedBy, leastToRead } from '#core/check/overload'
import { firstWrong, proveLine } from '#core/check/proof'
import { isWrong, judge } from '#core/check/verdict'
import { predictLine } from '#core/check/predict'
import { Records } from '#core/job/records'
import type { Job, Output, Reading, ReadingKind, ReadingValue, Repair, Speaker } from '#core/job/schema'
import { cabled, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { givenBy } from './given'
import { amplifierOf, AT_THE_RACK } from './next/minutes'
import { drained } from '#core/quantity/steps'
import { rankOfSingles, trySingles } from './rank'
import { traceInSteps } from './trace'
import { RISK, riskByReading, riskOf } from './switchOn'

/** Nothing with the amplifier on while a short is likely. Limits by P = V²/Z; 0.7 of a floor and one in twenty: common practice, no source. */

let count = 0
const read = (kind: ReadingKind, value: ReadingValue, nodeId: string | null = null): Reading =>
  ({ id: `r${++count}`, at: `2026-01-01T10:${String(count).padStart(2, '0')}:00Z`, outputId: 'out1', nodeId, kind, value, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false })
const ohm = (value: number): ReadingValue => ({ is: 'ohm', ohm: value })
const withReadings = (job: Job, ...readings: Reading[]): Job => ({ ...job, readings: Records.of(readings) })
const riskIn = (job: Job) => {
  const proof = proveLine(job, outputOf(job))
  return riskOf(outputOf(job), proof, rankOfSingles(drained(trySingles(givenBy(outputOf(job), proof)))).suspects)
}

test.each<[string, string, number | null]>([
  ['60 W at 70.71 V', '5 W on 70.71 V 60 W', 70.71 ** 2 / 60], ['a floor of 4 Ω, as low as ordinary speakers read', '8 on 100 W at 4', 2.8], ['a stated floor', '8 on 100 W at 8, from 2', 1.4],
  ['a valve output on its 8 Ω tap', '8 on valve 50 W at 4/8, tap 8', 0.7 * 0.75 * 8], ['its power not known', '5 W on 70 V', null], ['nothing known', '8', null],
])('what an output stands, read at its line: %s', (_, line, least) => expect(leastToRead(outputOf(jobOf(line)))).toEqual(least === null ? null : expect.closeTo(least, 9)))

test.each<[string, string, Parameters<typeof isOverloadedBy>[1], boolean]>([
  ['a short, whatever it is', '8', { state: 'short' }, true], ['an open line of a plain output', '8 on 100 W at 8', { state: 'open' }, false], ['an open line of a valve output', '8 on valve 50 W at 8', { state: 'open' }, true],
  ['just what it stands', '5 W on 100 V 100 W', { state: 'finite', ohm: 100 }, false], ['less', '5 W on 100 V 100 W', { state: 'finite', ohm: 99.9 }, true], ['of what is not known nothing is said', '8', { state: 'finite', ohm: 0.9 }, false],
])('%s', (_, line, head, is) => expect(isOverloadedBy(outputOf(jobOf(line)), head)).toBe(is))

describe('a low line is a near short only where its output does not stand it', () => {
  const line = predictLine(outputOf(jobOf('7 x 5 W on 70.71 V 60 W')))[0]!
  test.each<[string, number, string]>([['84 Ω of 141, 60 W stand 83.3: one tap too high', 84, 'low'], ['83 Ω', 83, 'far-low'], ['0.3 Ω', 0.3, 'short']])('%s', (_, value, code) => expect(judge(ohm(value), line).code).toBe(code))
  test('of an output of no known power, half of what is right', () => {
    const unrated = predictLine(outputOf(jobOf('7 x 5 W on 70.71 V')))[0]!
    expect([0.51, 0.49].map(part => judge(ohm(unrated.low! * part), unrated).code)).toEqual(['low', 'far-low'])
  })
})

const LINE = '10 x 5 W on 70.71 V 100 W'
const ids = nodeIds(outputOf(jobOf(LINE)))
test.each<[string, Reading[], 'reading' | 'suspects' | null]>([
  ['nothing read', [], null],
  ['as it should be', [read('line-impedance', ohm(100))], null],
  ['a speaker missing: no overload in it', [read('line-impedance', ohm(111)), read('sound', { is: 'silent' }, ids[3])], null],
  ['a short at the head', [read('line-impedance', ohm(0.2))], 'reading'],
  ['under what 100 W stand', [read('line-impedance', ohm(40))], 'reading'],
  ['next to nothing by an ohmmeter through windings: a short, or sound', [read('line-dcr', ohm(0.3))], 'reading'],
  ['its impedance as it should be beside it: sound', [read('line-dcr', ohm(0.3)), read('line-impedance', ohm(100))], null],
  ['a short coil at one place', [read('coil-dcr', ohm(0.1), ids[3])], 'reading'],
  ['all silent, nothing measured: a short is one of the likely ones', ids.map(id => read('sound', { is: 'silent' }, id)), 'suspects'],
])('%s', (_, readings, why) => {
  const risk = riskIn(withReadings(jobOf(LINE), ...readings))
  expect(risk?.why ?? null).toBe(why)
  if (risk?.why === 'suspects') expect(risk.share).toBeGreaterThanOrEqual(RISK)
})

describe('an output of which nobody knows what it stands', () => {
  const UNRATED = '10 x 5 W on 70.71 V'
  test.each<[string, Reading[], 'reading' | 'suspects' | null]>([
    ['a dial or two too high', [read('line-impedance', ohm(60))], null],
    ['under half of what is right', [read('line-impedance', ohm(30))], 'reading'],
    ['the same by volts and amps', [read('head-volts-amps', { is: 'volts-amps', volts: 7, amps: 0.25 })], 'reading'],
    // Along cable no short is nothing.
    ['all silent: a short at any of them makes less than half', ids.map(id => read('sound', { is: 'silent' }, id)), 'suspects'],
  ])('%s', (_, readings, why) => expect(riskIn(withReadings(cabled(jobOf(UNRATED), { cable: { awg: 16 }, lengthM: 9 }), ...readings))?.why ?? null).toBe(why))
  test.each([['half of what is right', 50.01, false], ['less', 49.99, true]])('%s', (_, headOhm, is) =>
    expect(isOverloadedBy(outputOf(jobOf(UNRATED)), { state: 'finite', ohm: headOhm }, 100)).toBe(is))
})

test.each([[0.049, false], [0.05, true]])('suspects that would overload it count from one in twenty on: %d', (probability, is) => {
  const job = withReadings(jobOf(LINE), read('outward-impedance', ohm(300), ids[5]))
  const of = (isOverload: boolean, p: number) => ({ faults: [], probability: p, fit: 0, lineOhm: null, isOverload })
  expect(riskOf(outputOf(job), proveLine(job, outputOf(job)), [of(false, 1 - probability), of(true, probability)]) !== null).toBe(is)
  // What its head reads since is what it is.
  const headRead = (value: number) => ({ ...job, readings: Records.of([read('outward-impedance', ohm(300), ids[5]), read('line-impedance', ohm(value))]) })
  const certain = [of(true, 1)]
  expect([52, 48].map(value => riskOf(outputOf(job), proveLine(headRead(value), outputOf(job)), certain)?.why ?? null)).toEqual([null, 'reading'])
  // Read before a repair it is not what it is now; and what overloads it as drawn does so though it reads as drawn.
  const mended = { ...headRead(52), repairs: Records.of([{ id: 'fix', at: '2026-01-02T00:00:00Z', outputId: 'out1', nodeId: ids[3]!, fault: 'short-at-drop', note: '', who: null, withdrawn: false } satisfies Repair]) }
  const wrongSince = { ...mended, readings: Records.of([...mended.readings, { ...read('sound', { is: 'silent' }, ids[7]), at: '2026-01-03T00:00:00Z' }]) }
  expect(riskOf(outputOf(job), proveLine(wrongSince, outputOf(job)), certain)?.why).toBe('suspects')
  const over = withReadings(jobOf('30 x 5 W on 70.71 V 100 W'), read('line-impedance', ohm(33)), read('sound', { is: 'silent' }, ids[7]))
  expect(riskOf(outputOf(over), proveLine(over, outputOf(over)), certain)?.why).toBe('suspects')
  // Drawn off there is nothing to hold its ohms against, and of an output of no known power they clear nothing.
  const line = outputOf(jobOf('5 W on 70.71 V'))
  const children = line.wiring.children.map(c => ({ ...c, node: { ...c.node, load: { ...(c.node as Speaker).load, tapW: 0 } } }))
  const off = { ...line, wiring: { ...line.wiring, children } } as Output
  const [offId] = nodeIds(off)
  const readOff = { readings: Records.of([read('line-impedance', ohm(5)), read('sound', { is: 'plays' }, offId)]), repairs: Records.of<Repair>() }
  expect(riskOf(off, proveLine(readOff, off), certain)?.why).toBe('suspects')
})

test('while it is so no test asks for the amplifier on; without it one may', () => {
  const testsOf = (job: Job) => {
    const proof = proveLine(job, outputOf(job))
    const view = drained(traceInSteps(givenBy(outputOf(job), proof), {
      standing: AT_THE_RACK, cannot: [], isBarred: riskByReading(outputOf(job), proof) !== null, isAnswered: false,
      isWrong: [...proof.standing.values()].some(j => isWrong(j.verdict)),
    }))
    return view.next!.tests.map(t => t.kind)
  }
  const [few] = ['4 x 5 W on 70.71 V 100 W']
  const silent = withReadings(jobOf(few!), ...ids.slice(0, 4).map(id => read('sound', { is: 'silent' }, id)))
  const short = withReadings(jobOf(few!), read('line-impedance', ohm(0.2)))
  expect(testsOf(short).length).toBeGreaterThan(0)
  for (const job of [silent, short]) if (riskIn(job)) for (const kind of testsOf(job)) expect(amplifierOf(kind)).toBe('off')
  expect(testsOf(withReadings(jobOf(few!), read('line-impedance', ohm(310))))).toContain('walk')
})

test('a repair does not clear what read so: read again, and first what is read with the amplifier off', () => {
  const repair: Repair = { id: 'fix', at: '2026-01-02T00:00:00Z', outputId: 'out1', nodeId: ids[3]!, fault: 'short-at-drop', note: '', who: null, withdrawn: false }
  const before = [read('sound', { is: 'silent' }, ids[3]), read('coil-dcr', ohm(0.1), ids[3]), read('line-impedance', ohm(0.2))]
  const job = { ...withReadings(jobOf(LINE), ...before), repairs: Records.of([repair]) }
  const proof = proveLine(job, outputOf(job))
  expect(riskByReading(outputOf(job), proof)?.why).toBe('reading')
  expect(firstWrong(proof)!.reading.kind).toBe('coil-dcr')
  const after = (...more: Reading[]) => ({ ...job, readings: Records.of([...before, ...more.map(r => ({ ...r, at: '2026-01-03T00:00:00Z' }))]) })
  const cleared = after(read('line-impedance', ohm(100)), read('coil-dcr', ohm(6), ids[3]))
  expect(riskByReading(outputOf(cleared), proveLine(cleared, outputOf(cleared)))).toBeNull()
  const half = after(read('line-impedance', ohm(100)))
  expect(riskByReading(outputOf(half), proveLine(half, outputOf(half)))).not.toBeNull()
})
