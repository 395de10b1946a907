import { driveConstantVoltage } from './kinds/constantVoltage'
import { driveSolidState } from './kinds/solidState'
import { driveValve } from './kinds/valve'
import { heldAt } from './limiter'
import type { Drive, OutputRating } from './rating'

export * from './kinds/valve'
export * from './limiter'
export * from './contradictions'
export * from './input'
export * from './lineVoltages'
export * from './questions'
export type * from './rating'

/** What an output gives at full swing into a load of `loadOhm`; null when its rating is not known. */
export function driveInto(rating: OutputRating, loadOhm: number): Drive | null {
  switch (rating.kind) {
    case 'solid-state': return driveSolidState(rating, loadOhm)
    case 'constant-voltage': return driveConstantVoltage(rating, loadOhm)
    case 'valve': return driveValve(rating, loadOhm)
    case 'not-known': return null
  }
}

/** What an output gives into a load with its limiter as it is set; null when its rating is not known. */
export function drivenInto({ rating, limiterV }: { rating: OutputRating, limiterV: number | null }, loadOhm: number): Drive | null {
  const free = driveInto(rating, loadOhm)
  return free && heldAt(free, limiterV, loadOhm)
}
