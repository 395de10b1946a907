import fc from 'fast-check'

/**
 * How many random cases a test tries. The suite tries enough to catch a rule that is wrong, within its minutes; `npm run test:long` tries ten
 * times as many. Seeds are fixed: what fails once fails again.
 */
export const SEED = 20_261_128
const FACTOR = Number(process.env.PLAIN_MATCH_RUNS ?? 1)

export function runs(count: number): number {
  return Math.round(count * FACTOR)
}

/** A property that holds for every case tried; one that fails is told with its seed and made small. */
export function always<T>(property: fc.IProperty<T>, count = 100): void {
  fc.assert(property, { seed: SEED, numRuns: runs(count) })
}
