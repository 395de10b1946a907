import { describe, expect, test } from '@jest/globals'
import { runs, SEED } from '#core/testing/runs'
import { seeded, type Chance } from '#core/testing/trees'
import { studentAt } from './student'
import { against, fitThermal, reachesAt, temperatureAt, thermalReport, warnsOf, type Warm } from './thermal'

interface Truth { ambientC: number, riseC: number, tauMin: number }
const at = ({ ambientC, riseC, tauMin }: Truth, minute: number) => ambientC + riseC * (1 - Math.exp(-minute / tauMin))
const bell = (chance: Chance) => Array.from({ length: 12 }, chance).reduce((a, b) => a + b) - 6
const runOf = (truth: Truth, minutes: readonly number[], noise: () => number = () => 0): Warm[] =>
  minutes.map(minute => ({ minute, celsius: at(truth, minute) + noise() }))
const every = (step: number, upTo: number) => Array.from({ length: Math.floor(upTo / step) + 1 }, (_, k) => k * step)

test.each([
  // Tables of Student's t, 97.5 % and 95 % (NIST/SEMATECH e-Handbook 1.3.6.7.2; from memory).
  [0.975, 1, 12.706], [0.975, 2, 4.303], [0.975, 3, 3.182], [0.975, 5, 2.571], [0.975, 10, 2.228], [0.975, 30, 2.042], [0.975, 1e6, 1.96], [0.95, 4, 2.132],
])('Student’s t: %f below, %i degrees: %f', (share, degrees, wanted) => expect(Math.abs(studentAt(share, degrees) / wanted - 1)).toBeLessThan(0.004))

describe('without noise the curve is found as it was made', () => {
  test.each<[string, Truth, number]>([
    ['an hour of a time constant of half an hour', { ambientC: 21, riseC: 34, tauMin: 30 }, 60], ['a quarter of its time constant', { ambientC: 18, riseC: 50, tauMin: 80 }, 20],
    ['a small one, soon done', { ambientC: 24, riseC: 8, tauMin: 6 }, 40], ['one that cools down', { ambientC: 55, riseC: -30, tauMin: 25 }, 60],
  ])('%s', (_, truth, upTo) => {
    const fit = fitThermal(runOf(truth, every(2, upTo)))
    const [found, made] = [[fit.ambientC, fit.riseC, fit.tauMin, fit.endC], [truth.ambientC, truth.riseC, truth.tauMin, truth.ambientC + truth.riseC]]
    expect(found.map((v, k) => v / made[k]!)).toEqual(Array(4).fill(expect.closeTo(1, 4)))
    expect(temperatureAt(fit, 7)).toBeCloseTo(at(truth, 7), 4)
  })
})

test('with noise its variance is that of the bound of Cramér and Rao, within a sixth: 600 runs of two time constants', () => {
  const truth = { ambientC: 20, riseC: 40, tauMin: 25 }
  const minutes = every(2, 50)
  const sigma = 0.3
  // Fisher's information of end, rise and τ, written out: T = end − rise·e^(−t/τ).
  const info = [0, 1, 2].map(() => [0, 0, 0])
  for (const t of minutes) {
    const e = Math.exp(-t / truth.tauMin)
    const d = [1, -e, -truth.riseC * e * t / truth.tauMin ** 2]
    d.forEach((a, i) => d.forEach((b, j) => { info[i]![j]! += a * b / sigma ** 2 }))
  }
  const [[a, b, c], [, e, f], [, , g]] = info as [[number, number, number], [number, number, number], [number, number, number]]
  const det = a * (e * g - f * f) - b * (b * g - f * c) + c * (b * f - e * c)
  const bound = (e * g - f * f) / det
  const chance = seeded(SEED)
  const ends = Array.from({ length: runs(600) }, () => fitThermal(runOf(truth, minutes, () => sigma * bell(chance))).endC)
  const mean = ends.reduce((x, y) => x + y) / ends.length
  const variance = ends.reduce((x, y) => x + (y - mean) ** 2, 0) / (ends.length - 1)
  expect([`seed ${SEED}`, Math.abs(variance / bound - 1) < 1 / 6, Math.abs(mean - 60) < 0.1]).toEqual([`seed ${SEED}`, true, true])
})

test('95 % of the forecasts’ intervals hold the end, within 1.5 in a hundred: 2,000 runs, half to three time constants, a reading every one to five minutes', () => {
  const chance = seeded(SEED)
  let inside = 0
  const count = runs(2000)
  for (let n = 0; n < count; n++) {
    const truth = { ambientC: 15 + 10 * chance(), riseC: 10 + 50 * chance(), tauMin: 8 + 40 * chance() }
    const upTo = truth.tauMin * (0.5 + 2.5 * chance())
    const step = Math.min(1 + 4 * chance(), upTo / 5)
    const sigma = 0.1 + 0.4 * chance()
    const { endLowC, endHighC } = fitThermal(runOf(truth, every(step, upTo), () => sigma * bell(chance)))
    const end = truth.ambientC + truth.riseC
    inside += Number((endLowC === null || end >= endLowC) && (endHighC === null || end <= endHighC))
  }
  expect([`seed ${SEED}`, Math.abs(inside / count - 0.95) < 0.015, inside / count]).toEqual([`seed ${SEED}`, true, inside / count])
}, 120_000)

test('when a limit is reached, by hand: T_a 20, ΔT 40, τ 30 to 51 °C is −30·ln(1 − 31/40); never where the end lies under it', () => {
  const fit = { ambientC: 20, riseC: 40, tauMin: 30, endC: 60, endLowC: 59, endHighC: 61 }
  expect([reachesAt(fit, 51), reachesAt(fit, 60), reachesAt(fit, 20), reachesAt({ ...fit, riseC: -5, endC: 15 }, 51)])
    .toEqual([expect.closeTo(-30 * Math.log(1 - 31 / 40), 9), null, 0, null])
})

test.each<[string, number | null, number, number[], ReturnType<typeof warnsOf>]>([
  ['all of the interval under it', 45, 44, [20, 30], null], ['some of it over', 53, 48, [20, 30], 'may'], ['the forecast over', 60, 55, [20, 30], 'will'],
  ['reached', 60, 55, [20, 51], 'reached'], ['no bound yet', null, 40, [20, 30], 'not-known'], ['no bound, and the forecast over', null, 70, [20, 30], 'may'],
])('warned before 51 °C: %s', (_, endHighC, endC, celsius, wanted) => {
  const run = celsius.map((c, minute) => ({ minute, celsius: c }))
  expect(warnsOf(run, { ambientC: 20, riseC: endC - 20, tauMin: 20, endC, endLowC: endC - 2, endHighC }, 51)).toBe(wanted)
})

test('rises are compared, not ends: a warmer room is no heavier load; and early nobody knows', () => {
  const right = { ambientC: 18, riseC: 30, tauMin: 25 }
  const [base, same, heavier] = [right, { ...right, ambientC: 26 }, { ...right, riseC: 42 }].map(t => fitThermal(runOf(t, every(2, 90), seededNoise(0.1))))
  expect([against(same!, base!)!.riseRatio, against(heavier!, base!)!.riseRatio]).toEqual([expect.closeTo(1, 1), expect.closeTo(1.4, 1)])
  expect([against(heavier!, base!)!.sure > 0.99, against(same!, base!)!.sure < 0.99]).toEqual([true, true])
  const early = thermalReport(runOf({ ...right, riseC: 42 }, [0, 1, 2, 3], seededNoise(0.2)), runOf(right, every(2, 90), seededNoise(0.1)), 51)
  expect([early.isEnough, early.says.some(s => s.includes('cannot be told yet'))]).toEqual([false, true])
  const told = thermalReport(runOf({ ...right, riseC: 42 }, every(2, 90), seededNoise(0.1)), runOf(right, every(2, 90), seededNoise(0.1)), 51)
  expect([told.warns, told.isEnough, told.says[0], told.says.some(s => s.includes('rises more'))]).toEqual(['reached', true, 'It has reached 51 °C, which skin stands for a minute on bare metal (ISO 13732-1). Off, and let it cool.', true])
  expect(thermalReport(runOf(right, every(2, 90), seededNoise(0.1)), null, 80).says.join(' ')).toMatch(/your own limit|first a run with a right load/)
})
function seededNoise(sigma: number): () => number {
  const chance = seeded(SEED)
  return () => sigma * bell(chance)
}

test.each<[string, Warm[], RegExp]>([
  ['too few', runOf({ ambientC: 20, riseC: 10, tauMin: 10 }, [0, 1, 2]), /3 readings/], ['a time that goes back', [0, 5, 4, 9].map(minute => ({ minute, celsius: 20 })), /Reading 3.*does not come after/],
  ['a temperature that is none', [0, 5, 6, 9].map(minute => ({ minute, celsius: minute === 6 ? 900 : 20 })), /Reading 3: its temperature/], ['before it began', [-1, 5, 6, 9].map(minute => ({ minute, celsius: 20 })), /Reading 1: its minute/],
])('a run that says nothing is told: %s', (_, run, says) => expect(() => fitThermal(run)).toThrow(says))
