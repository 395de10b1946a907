import { modeOf, ratedV } from './questions'
import type { OutputRating } from './rating'

/** What goes into an amplifier. */

/** An input this many times the source's own impedance takes next to nothing from it: low into high. Common practice, no source. */
export const LOW_INTO_HIGH = 10

/**
 * Gain of an output, dB: as stated of a channel (two bridged have twice the volts), or from the input that gives full power; null where neither is
 * known. Source: definition of the decibel.
 */
export function gainOf(rating: OutputRating, { gainDb, inputV }: { gainDb: number | null, inputV: number | null }): number | null {
  if (gainDb !== null) return gainDb + (modeOf(rating) === 'bridged' ? 20 * Math.log10(2) : 0)
  const fullV = ratedV(rating)
  return inputV === null || fullV === null ? null : 20 * Math.log10(fullV / inputV)
}

/** What is left of a source's volts across what hangs on it, dB (zero or less). Source: the voltage divider. */
export function dividedDb(sourceOhm: number, inputOhm: number): number {
  return 20 * Math.log10(inputOhm / (inputOhm + sourceOhm))
}
