import { entropy } from '../chances'

/**
 * What to do next, as arithmetic: what may be there, each with its chance; mends, each with its minutes and what it would put right; tests, each with
 * its minutes and
 * the chance of every answer. Known of nothing but numbers, so that it can be held against all that could be done.
 */

/** What may be put right at one go. `of`: whether it puts right each of what may be there. */
export interface Mend { minutes: number, of: readonly boolean[] }
/** `chances`: of each of what may be there, the chance of each answer. */
export interface Test { minutes: number, chances: readonly Float64Array[] }
export interface Judged { bits: number, /** Minutes until it is right, with this test first. */ minutesInAll: number, saves: number }

/** Which mend puts each right, where no two put the same right; null where some do. Found once for a list. */
const apart = new WeakMap<readonly Mend[], Int32Array | null>()
function apartOf(mends: readonly Mend[], count: number): Int32Array | null {
  const known = apart.get(mends)
  if (known !== undefined) return known
  const by = new Int32Array(count).fill(-1)
  let isApart = true
  mends.forEach(({ of }, k) => of.forEach((is, h) => {
    if (!is) return
    if (by[h]! >= 0) isApart = false
    by[h] = k
  }))
  apart.set(mends, isApart ? by : null)
  return isApart ? by : null
}

/**
 * Minutes until it is right with mends alone, likeliest for its minutes first: each is tried until one was it. Source: the search for one thing in
 * several boxes is
 * shortest in the order of chance over cost (Blackwell).
 */
export function minutesOfMends(weights: ArrayLike<number>, mends: readonly Mend[]): number {
  const total = sumOf(weights)
  if (total <= 0) return 0
  const by = apartOf(mends, weights.length)
  return by ? minutesInOrder(weights, mends, by, total) : minutesOneByOne(weights, mends, total)
}

/** Where no two put the same right the order is that of chance over minutes, once and for all. */
function minutesInOrder(weights: ArrayLike<number>, mends: readonly Mend[], by: Int32Array, total: number): number {
  const shares = new Float64Array(mends.length)
  let rest = 0
  for (let h = 0; h < weights.length; h++) if (by[h]! >= 0) {
    shares[by[h]!]! += weights[h]!
    rest += weights[h]!
  }
  // Sorted by worth as numbers are, least first, each with its mend in its last bits: a sort that asks back for every two took three times as long.
  const keys = new Float64Array(mends.length)
  const bits = new Uint32Array(keys.buffer)
  let count = 0
  for (let k = 0; k < shares.length; k++) {
    if (shares[k]! <= 1e-9 * total) continue
    keys[count] = shares[k]! / mends[k]!.minutes
    bits[2 * count] = (bits[2 * count]! & ~LAST_BITS) | k
    count++
  }
  keys.subarray(0, count).sort()
  // What no mend puts right costs as long as all of them are tried.
  const never = total - rest
  let minutes = 0
  for (let n = count - 1; n >= 0; n--) {
    const k = bits[2 * n]! & LAST_BITS
    minutes += mends[k]!.minutes * (rest + never) / total
    rest -= shares[k]!
  }
  return minutes
}
/** Room for as many mends as are ever weighed; what is lost of a worth by it is under a millionth of a millionth. */
const LAST_BITS = 0xFFF

function minutesOneByOne(weights: ArrayLike<number>, mends: readonly Mend[], total: number): number {
  const left = Float64Array.from(weights)
  const open = [...mends]
  let minutes = 0
  let rest = total
  while (open.length > 0 && rest > 1e-9 * total) {
    let best = -1
    let most = 0
    let mended = 0
    open.forEach(({ minutes: each, of }, k) => {
      let share = 0
      for (let h = 0; h < left.length; h++) if (of[h]) share += left[h]!
      if (share / each > most) [best, most, mended] = [k, share / each, share]
    })
    if (best < 0) break
    const [mend] = open.splice(best, 1) as [Mend]
    minutes += mend.minutes * rest / total
    rest -= mended
    for (let h = 0; h < left.length; h++) if (mend.of[h]) left[h] = 0
  }
  return minutes
}

/** The mend that comes first. -1: none of them would put anything right. */
export function firstMend(weights: ArrayLike<number>, mends: readonly Mend[]): number {
  let [best, most] = [-1, 0]
  mends.forEach(({ minutes, of }, k) => {
    let share = 0
    for (let h = 0; h < weights.length; h++) if (of[h]) share += weights[h]!
    if (share / minutes > most) [best, most] = [k, share / minutes]
  })
  return best
}

/** What is left after each answer: the chance of the answer, and the weights, which sum to it. */
export function afterEach(weights: ArrayLike<number>, { chances }: Pick<Test, 'chances'>): { chance: number, weights: Float64Array }[] {
  const answers = chances[0]?.length ?? 0
  return Array.from({ length: answers }, (_, a) => {
    const after = new Float64Array(weights.length)
    let chance = 0
    for (let h = 0; h < after.length; h++) chance += after[h] = weights[h]! * chances[h]![a]!
    return { chance, weights: after }
  })
}

/** What a test tells, bits: the entropy of its answers, less what stays open with the truth known. Source: Shannon, mutual information. */
export function bitsOf(weights: ArrayLike<number>, { chances }: Pick<Test, 'chances'>): number {
  const total = sumOf(weights)
  if (total <= 0) return 0
  const answers = new Float64Array(chances[0]?.length ?? 0)
  let known = 0
  for (let h = 0; h < weights.length; h++) {
    const share = weights[h]! / total
    const of = chances[h]!
    known += share * entropy(of)
    for (let a = 0; a < answers.length; a++) answers[a]! += share * of[a]!
  }
  return Math.max(0, entropy(answers) - known)
}

const sumOf = (weights: ArrayLike<number>): number => {
  let total = 0
  for (let h = 0; h < weights.length; h++) total += weights[h]!
  return total
}

/** A test with mends alone after it. */
export function judgeTest(weights: ArrayLike<number>, mends: readonly Mend[], test: Test, without = minutesOfMends(weights, mends)): Judged {
  const total = sumOf(weights)
  const left = new Float64Array(weights.length)
  let after = 0
  for (let a = 0; a < (test.chances[0]?.length ?? 0); a++) {
    let chance = 0
    for (let h = 0; h < left.length; h++) chance += left[h] = weights[h]! * test.chances[h]![a]!
    if (chance > 0) after += chance / total * minutesOfMends(left, mends)
  }
  return { bits: bitsOf(weights, test), minutesInAll: test.minutes + after, saves: without - test.minutes - after }
}

/**
 * What to do first: a test by its number, or null for the likeliest mend. One test is looked at, with mends after it. To look at two, one after the other,
 * was tried: it saved three of a thousand minutes in the mean over problems of nine to sixteen things (a test holds that under one of a hundred), and on 84
 * exercises of practice, each with hundreds of what may be there, took 1,861 minutes in all where one takes 1,851.
 */
export function chooseTest(weights: ArrayLike<number>, mends: readonly Mend[], tests: readonly Test[]): number | null {
  const without = minutesOfMends(weights, mends)
  let [best, least] = [null as number | null, without - 1e-9]
  tests.forEach((test, t) => {
    const { minutesInAll } = judgeTest(weights, mends, test, without)
    if (minutesInAll < least) [best, least] = [t, minutesInAll]
  })
  return best
}
