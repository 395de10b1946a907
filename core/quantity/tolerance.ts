/** How near is the same, and how little is nothing: every tolerance that more than one place judges by. */

/** A hair against the last bits of arithmetic, so that 200 W on a 250 W amplifier at four fifths is not refused by rounding. */
const HAIR = 1e-6

/** Loads within this share of each other are one load: a label is no finer. */
const SAME_LOAD = 0.005

/** Members of a line whose shares differ by less than this part of the largest share alike. */
const EQUAL_SHARES = 0.02

/** Copper end to end reads less than this, Ω, meter leads nulled. Common practice, no source. */
export const SHORT_OHM = 0.5

/** Printed and real line voltage may differ this much without a word: 70 and 70.71 are one. */
const SAME_VOLTAGE = 0.03

export function isSameVoltage(aV: number, bV: number): boolean {
  return Math.abs(aV / bV - 1) <= SAME_VOLTAGE
}

/** One load for all that a rating says. */
export function isSameLoad(aOhm: number, bOhm: number): boolean {
  return Math.abs(aOhm / bOhm - 1) <= SAME_LOAD
}

/** A nominal load under a floor: by more than a label can be off. */
export function isUnderFloor(loadOhm: number, floorOhm: number): boolean {
  return loadOhm < floorOhm * (1 - SAME_LOAD)
}

/** More, by more than rounding. */
export function exceeds(value: number, limit: number): boolean {
  return value > limit * (1 + HAIR)
}

/** Less, by more than rounding. */
export function fallsShort(value: number, limit: number): boolean {
  return value < limit * (1 - HAIR)
}

/** All shares alike. */
export function areEqualShares(shares: readonly number[]): boolean {
  const most = Math.max(...shares)
  return most - Math.min(...shares) <= EQUAL_SHARES * most
}
