import type { Contradiction } from './contradictions'
import { kindOf } from './kinds'
import { heldAt } from './limiter'
import type { ChannelMode, ConstantVoltageRating, Drive, LineKind, OutputRating, SolidStateRating, ValveRating } from './rating'

/** What may be asked of an output, whatever its kind: each kind answers for itself (kind.ts), and nowhere else is a rating's kind looked at. */

export const lineKindOf = (rating: OutputRating): LineKind | null => kindOf(rating).lineKind
/** Whether anything is known of it, so that a line can be planned on it. */
export const isKnown = (rating: OutputRating): boolean => lineKindOf(rating) !== null
/** Whether its power is stated, so that a load can be judged at all. */
export const isRated = (rating: OutputRating): boolean => ratedW(rating) !== null
export const ratedW = (rating: OutputRating): number | null => kindOf(rating).ratedW(rating)
export const ratedV = (rating: OutputRating): number | null => kindOf(rating).ratedV(rating)
export const lineVoltsOf = (rating: OutputRating): number | null => kindOf(rating).lineV(rating)
export const floorOhm = (rating: OutputRating): number | null => kindOf(rating).floorOhm(rating)
export const isFloorStated = (rating: OutputRating): boolean => kindOf(rating).isFloorStated(rating)
export const lowestRatedOhm = (rating: OutputRating): number | null => kindOf(rating).lowestRatedOhm(rating)
export const modeOf = (rating: OutputRating): ChannelMode => kindOf(rating).mode(rating)
export const writeRating = (rating: OutputRating): string => kindOf(rating).write(rating)
export const typedNext = (rating: OutputRating): string[] => kindOf(rating).next(rating)
/** The same output as if it gave so many times its power, where its power is its own. */
export const timesPower = (rating: OutputRating, factor: number): OutputRating => kindOf(rating).times(rating, factor)
export const contradictionsOf = (rating: OutputRating): Contradiction[] => kindOf(rating).contradictions(rating)
/** What an output gives at full swing into a load of `loadOhm`; null when its rating is not known. */
export const driveInto = (rating: OutputRating, loadOhm: number): Drive | null => kindOf(rating).drive(rating, loadOhm)

/** What an output gives into a load with its limiter as it is set; null when its rating is not known. */
export function drivenInto({ rating, limiterV }: { rating: OutputRating, limiterV: number | null }, loadOhm: number): Drive | null {
  const free = driveInto(rating, loadOhm)
  return free && heldAt(free, limiterV, loadOhm)
}

/** For what only one kind has: channels that can be joined, taps of an output transformer, a line voltage of its own. */
export const isSolidState = (rating: OutputRating): rating is SolidStateRating => rating.kind === 'solid-state'
export const isConstantVoltage = (rating: OutputRating): rating is ConstantVoltageRating => rating.kind === 'constant-voltage'
/** Its taps, where it is a valve output: judged by the tap, not by a floor. */
export const valveOf = (rating: OutputRating): ValveRating | null => rating.kind === 'valve' ? rating : null
/** Whether two bridged channels have a floor of their own, by their maker's word. */
export const isBridgedFloorStated = (rating: OutputRating): boolean => isSolidState(rating) && rating.mode === 'bridged' && rating.bridgedFloorOhm !== null
