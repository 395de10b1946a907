import { expect, test } from '@jest/globals'
import { SEED } from '#core/testing/runs'
import { seeded, type Chance } from '#core/testing/trees'
import { bitsOf, chooseTest, firstMend, afterEach, judgeTest, minutesOfMends, type Mend, type Test } from './policy'

interface Problem { weights: number[], mends: Mend[], tests: Test[] }

/** Some things that may be there, a mend each (now and then one for two), tests of two or three answers, as sure as a meter or as loose as an ear. */
function problem(chance: Chance, from = 3, to = 5): Problem {
  const count = from + Math.floor(chance() * (to - from + 1))
  const raw = Array.from({ length: count }, () => chance() ** 2 + 0.02)
  const total = raw.reduce((a, b) => a + b)
  const mends: Mend[] = Array.from({ length: count }, (_, k) => ({ minutes: 3 + Math.floor(chance() * 15), of: raw.map((__, h) => h === k || (h === k
    + 1 && chance() < 0.2)) }))
  const tests = Array.from({ length: 2 + Math.floor(chance() * 3) }, (): Test => {
    const answers = 2 + Math.floor(chance() * 2)
    const slip = chance() < 0.6 ? 0.02 : 0.2
    return { minutes: 1 + Math.floor(chance() * 5), chances: raw.map(() => {
      const is = Math.floor(chance() * answers)
      return Float64Array.from({ length: answers }, (__, a) => a === is ? 1 - slip : slip / (answers - 1))
    }) }
  })
  return { weights: raw.map(w => w / total), mends, tests }
}

/** The least expected minutes by dynamic programming over all that can be done: each test and each mend once. Written anew; weights are not brought to one. */
function leastOf({ mends, tests, weights: all }: Problem): number {
  const known = new Map<string, number>()
  // What is left hangs on which answers came and which mends were made, whatever the order.
  const least = (answers: readonly number[], made: number): number => {
    const key = `${answers.join()} ${made}`
    const before = known.get(key)
    if (before !== undefined) return before
    const weights = all.map((w, h) => mends.some((m, k) => made & (1 << k) && m.of[h])
      ? 0
      : tests.reduce((left, t, k) => answers[k]! < 0
          ? left
          : left * t.chances[h]![answers[k]!]!, w))
    const total = weights.reduce((a, b) => a + b, 0)
    let minutes = total < 1e-9 ? 0 : Infinity
    if (total >= 1e-9) {
      mends.forEach((m, k) => {
        if (!(made & (1 << k))) minutes = Math.min(minutes, m.minutes * total + least(answers, made | (1 << k)))
      })
      tests.forEach((t, k) => {
        if (answers[k]! < 0) minutes = Math.min(minutes, t.minutes * total + [...t.chances[0]!.keys()].reduce((sum, a) => sum + least(answers.with(k, a),
          made), 0))
      })
    }
    known.set(key, minutes)
    return minutes
  }
  return least(tests.map(() => -1), 0)
}

/** Expected minutes of the policy, played out over every answer. */
function playedOut(weights: number[], tests: Test[], mends: Mend[], choose: typeof chooseTest = chooseTest): number {
  const total = weights.reduce((a, b) => a + b, 0)
  if (total < 1e-9 || mends.length === 0) return 0
  const next = choose(weights, mends, tests)
  if (next !== null) {
    const test = tests[next]!
    return test.minutes * total + afterEach(weights, test).reduce((sum, a) => sum + playedOut([...a.weights], tests.filter(t => t !== test), mends, choose), 0)
  }
  const mend = mends[firstMend(weights, mends)]
  if (!mend) return 0
  return mend.minutes * total + playedOut(weights.map((w, h) => mend.of[h] ? 0 : w), tests, mends.filter(m => m !== mend), choose)
}

test('minutes to the right mend: at most a quarter over the least that dynamic programming finds, in the mean over sixty cases; never under it', () => {
  let [policy, least, worst] = [0, 0, 0]
  for (let k = 0; k < 60; k++) {
    const p = problem(seeded(SEED + k))
    const [mine, best] = [playedOut(p.weights, p.tests, p.mends), leastOf(p)]
    expect([SEED + k, mine > best - 1e-6]).toEqual([SEED + k, true])
    policy += mine
    least += best
    worst = Math.max(worst, mine / best)
  }
  expect(policy / least).toBeLessThan(1.25)
  expect([policy / least < 1.05, worst < 1.6]).toEqual([true, true])
})

/** With every test more after each answer, where that saves: two, one after the other. */
const twoAhead: typeof chooseTest = (weights, mends, tests) => {
  const total = Array.from(weights).reduce((a, b) => a + b, 0)
  const minutes = tests.map(test => test.minutes + afterEach(weights, test).reduce((sum, { chance, weights: left }) => chance <= 1e-12
    ? sum
    : sum + chance / total
    * Math.min(minutesOfMends(left, mends), ...tests.filter(t => t !== test).map(second => judgeTest(left, mends, second).minutesInAll)), 0))
  const least = Math.min(...minutes)
  return least < minutesOfMends(weights, mends) - 1e-9 ? minutes.indexOf(least) : null
}

test.each([[3, 8], [9, 16]])('one test is looked at, and two would save next to nothing: of %d to %d things, in the mean over twenty cases and in each', (from, to) => {
  let [one, two] = [0, 0]
  for (let k = 0; k < 20; k++) {
    const p = problem(seeded(SEED + k), from, to)
    const [mine, ahead] = [playedOut(p.weights, p.tests, p.mends), playedOut(p.weights, p.tests, p.mends, twoAhead)]
    expect([SEED + k, mine < 1.15 * ahead]).toEqual([SEED + k, true])
    one += mine
    two += ahead
  }
  expect(one / two).toBeLessThan(1.015)
})

test.each<[string, number[], Mend[], number]>([
  // By hand: 0.5 for 5, then 0.3 for 10, then 0.2 for 4 … in the order of chance over minutes: 0.1, 0.05, 0.03.
  ['likeliest for its minutes first', [0.5, 0.2, 0.3], [{ minutes: 5, of: [true, false, false] }, { minutes: 4, of: [false, true, false] }, { minutes: 10, of: [false, false, true] }], 5 + 0.5 * 4 + 0.3 * 10],
  ['one mend for two of them', [0.5, 0.5], [{ minutes: 6, of: [true, true] }, { minutes: 4, of: [true, false] }], 6],
  ['what no mend puts right costs no more', [0.5, 0.5], [{ minutes: 6, of: [true, false] }], 6],
  ['nothing there', [0, 0], [{ minutes: 6, of: [true, true] }], 0],
])('minutes of mends alone: %s', (_, weights, mends, wanted) => expect(minutesOfMends(weights, mends)).toBeCloseTo(wanted, 12))

test('what a test tells: all of a bit, nothing, and a loose ear (Shannon)', () => {
  const of = (...chances: number[][]): Pick<Test, 'chances'> => ({ chances: chances.map(c => Float64Array.from(c)) })
  expect(bitsOf([0.5, 0.5], of([1, 0], [0, 1]))).toBeCloseTo(1, 12)
  expect(bitsOf([0.5, 0.5], of([0.7, 0.3], [0.7, 0.3]))).toBeCloseTo(0, 12)
  // A channel that errs once in ten: 1 − H(0.1).
  expect(bitsOf([5, 5], of([0.9, 0.1], [0.1, 0.9]))).toBeCloseTo(1 + 0.1 * Math.log2(0.1) + 0.9 * Math.log2(0.9), 12)
  const judged = judgeTest([0.5, 0.5], [{ minutes: 10, of: [true, false] }, { minutes: 10, of: [false, true] }], { minutes: 2, ...of([1, 0], [0, 1]) })
  // Without it 10 and half the time 10 more; with it 2 and then the right one.
  expect([judged.minutesInAll, judged.saves]).toEqual([12, 3])
})
