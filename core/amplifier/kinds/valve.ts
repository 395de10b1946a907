import { writeExact } from '#core/quantity/write'
import { notStated, type RatingKind } from '../kind'
import type { Drive, ValveRating } from '../rating'

/** A load within this share of its tap is matched: labels are no finer. Common practice, no source. */
export const MATCHED = 0.1
/** Down to this part of its tap a load may be driven quietly, and watched; half of it not at all. Common practice, no source. */
export const QUIETLY = 0.75
/** From this multiple of its tap on the voltage flies back where the amplifier is driven hard. Common practice, no source. */
export const FLIES_BACK = 2

/** How a load stands to a tap. */
export type TapFit = 'matched' | 'a-little-low' | 'too-low' | 'a-little-high' | 'far-too-high'

export function tapFit(loadOhm: number, tapOhm: number): TapFit {
  const part = loadOhm / tapOhm
  if (part < QUIETLY * (1 - 1e-6)) return 'too-low'
  if (part < 1 - MATCHED - 1e-6) return 'a-little-low'
  if (part <= 1 + MATCHED + 1e-6) return 'matched'
  return part < FLIES_BACK * (1 - 1e-6) ? 'a-little-high' : 'far-too-high'
}

/** The tap for a load: the highest that the load is not below; null where it is below all of them. Source: both schools, common practice. */
export function bestTap(tapsOhm: readonly number[], loadOhm: number): number | null {
  const from = (tapOhm: number) => loadOhm / tapOhm >= 1 - MATCHED - 1e-6
  return tapsOhm.filter(from).reduce<number | null>((best, tap) => best === null || tap > best ? tap : best, null)
}

/**
 * What a valve output gives into a load on one of its taps: its power where they match; above the tap its volts stay, below it its amps.
 * Null where its power or the tap is not known. Both ends of the mismatch are a model, not a rating: real outputs give less.
 * Source: the ideal transformer; that volts and amps stay is common practice, no source.
 */
function driveValve({ powerW, tapOhm }: ValveRating, loadOhm: number): Drive | null {
  if (powerW === null || tapOhm === null) return null
  const fit = tapFit(loadOhm, tapOhm)
  const power = powerW * Math.min(tapOhm / loadOhm, loadOhm / tapOhm)
  const volts = Math.sqrt(power * loadOhm)
  const basis = fit === 'too-low' ? 'under-floor' : fit === 'matched' ? 'matched' : fit === 'a-little-low' ? 'below-tap' : 'above-tap'
  return { volts, powerW: power, mostVolts: volts, mostW: power, basis }
}

/** What a mismatch costs, dB (negative is a loss). */
export function mismatchDb(loadOhm: number, tapOhm: number): number {
  return 10 * Math.log10(Math.min(tapOhm / loadOhm, loadOhm / tapOhm))
}

export const valve: RatingKind<ValveRating> = {
  lineKind: 'low-impedance',
  ratedW: rating => rating.powerW,
  ratedV: ({ powerW, tapOhm }) => powerW === null || tapOhm === null ? null : Math.sqrt(powerW * tapOhm),
  lineV: notStated,
  floorOhm: ({ tapOhm }) => tapOhm === null ? null : QUIETLY * tapOhm,
  isFloorStated: () => false,
  lowestRatedOhm: notStated,
  mode: () => 'single',
  drive: driveValve,
  contradictions: () => [],
  times: (rating, factor) => rating.powerW === null ? rating : { ...rating, powerW: rating.powerW * factor },
  write: ({ powerW, tapsOhm, tapOhm }) => `valve${powerW === null ? '' : ` ${writeExact(powerW)} W`} at ${tapsOhm.join('/')}${tapOhm === null ? '' : `, tap ${tapOhm}`}`,
  next: ({ tapOhm, tapsOhm }) => tapOhm === null ? [`, tap ${tapsOhm.includes(8) ? 8 : tapsOhm[0]}`] : [],
}
