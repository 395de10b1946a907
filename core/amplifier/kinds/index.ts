import type { RatingKind } from '../kind'
import type { OutputRating } from '../rating'
import { constantVoltage } from './constantVoltage'
import { notKnown } from './notKnown'
import { solidState } from './solidState'
import { valve } from './valve'

/** Every kind of output rating. */
const KINDS: { [K in OutputRating['kind']]: RatingKind<Extract<OutputRating, { kind: K }>> } = {
  'solid-state': solidState, 'constant-voltage': constantVoltage, 'valve': valve, 'not-known': notKnown,
}

export function kindOf(rating: OutputRating): RatingKind<OutputRating> {
  return KINDS[rating.kind] as unknown as RatingKind<OutputRating>
}
