import { notStated, type RatingKind } from '../kind'
import type { UnknownRating } from '../rating'

/** An output of which nothing is known: loads can be planned, nothing can be judged. */
export const notKnown: RatingKind<UnknownRating> = {
  lineKind: null, ratedW: notStated, ratedV: notStated, lineV: notStated, floorOhm: notStated, isFloorStated: () => false, lowestRatedOhm: notStated, mode: () => 'single',
  drive: notStated, contradictions: () => [], times: rating => rating, write: () => '', next: () => [],
}
