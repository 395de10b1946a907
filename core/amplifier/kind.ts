import type { Contradiction } from './contradictions'
import type { ChannelMode, Drive, LineKind, OutputRating } from './rating'

/**
 * All that may be asked of an output, answered by its kind. A kind is one file in kinds/ with one such answer to everything, and its line in
 * kinds/index.ts: what a kind has not is said, too, so that nothing is forgotten in silence.
 */
export interface RatingKind<R extends OutputRating> {
  /** The kind of line that it is made for; null while nothing is known of it. */
  lineKind: LineKind | null
  /** The most that is stated of it, W: at its line voltage, or at the rated load where it gives most; null where nothing is. */
  ratedW: (rating: R) => number | null
  /** Volts (rms) that it reaches at most by its ratings; null where no power is stated. Source: P = V²/Z. */
  ratedV: (rating: R) => number | null
  /** Volts of the line that it drives; null for an output without a line voltage. */
  lineV: (rating: R) => number | null
  /** The lowest load that it may be given, Ω; null where it is judged by watts, or nothing is known. Not stated: the lowest rated load. */
  floorOhm: (rating: R) => number | null
  /** Whether its floor is its maker's word; otherwise it is taken from the lowest rated load. */
  isFloorStated: (rating: R) => boolean
  /** The lowest load for which a power is stated, Ω; null where power is not stated by load. */
  lowestRatedOhm: (rating: R) => number | null
  /** How many channels it is, and how they are joined. */
  mode: (rating: R) => ChannelMode
  /** What it gives at full swing into a load; null when that is not known. */
  drive: (rating: R, loadOhm: number) => Drive | null
  /** What it says against itself. */
  contradictions: (rating: R) => Contradiction[]
  /** The same, as if it gave so many times its power. */
  times: (rating: R, factor: number) => R
  /** As it is typed and read again: "300 W at 4, 180 W at 8, from 2", "70 V 240 W"; empty where nothing is known. */
  write: (rating: R) => string
  /** What could be typed on behind it. */
  next: (rating: R) => string[]
}

/** For questions that a kind has no answer to. */
export const notStated = () => null
