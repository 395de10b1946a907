import { floorOhm, isConstantVoltage, valveOf } from '#core/amplifier/index'
import type { Output } from '#core/job/schema'
import { ORDINARY_DIP } from '#core/network/label'
import type { Seen } from '#core/network/solver'

/** What an output does not stand, by what a meter reads at its line. */

/**
 * The least that may be read at a line before its output is overloaded, Ω at 1 kHz: of a line of so many volts what draws its rated watts; else its floor,
 * as far down as ordinary speakers of such a label read. null while its rating is not known. Source: P = V²/Z; 0.7 is common practice, no source.
 */
export function leastToRead({ rating }: Pick<Output, 'rating'>): number | null {
  if (isConstantVoltage(rating)) return rating.powerW === null ? null : rating.lineV ** 2 / rating.powerW
  const floor = floorOhm(rating)
  return floor === null ? null : ORDINARY_DIP * floor
}

/** Under this part of what is right nobody switches an output on of which nobody knows what it stands. Common practice, no source. */
export const LEAST_UNRATED = 0.5

/**
 * Whether an output would be overloaded by such a head; with a valve output no load is as bad. `rightOhm`: what its line should read, against which a head
 * is held where its rating does not tell; without it nothing is said then.
 */
export function isOverloadedBy(output: Pick<Output, 'rating'>, head: Pick<Seen, 'state'> & { ohm?: number }, rightOhm: number | null = null): boolean {
  if (head.state === 'short') return true
  if (head.state === 'open') return valveOf(output.rating) !== null
  const least = leastToRead(output) ?? (rightOhm === null ? null : LEAST_UNRATED * rightOhm)
  return least !== null && head.ohm! < least * (1 - 1e-9)
}
