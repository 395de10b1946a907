import type { ReadingKind, ReadingValue, Sound } from '#core/job/schema'
import { SLIP } from '../ohms'
import type { Outcome } from '../outcome'

/** A test that may be taken, and what it may find. */

/** A kind of reading; or a walk along the line that notes of every speaker how it sounds, which is a reading of each. */
export type TestKind = ReadingKind | 'walk'
/** At the head, or at a speaker or a control; beside another, or in exchange with it. */
export interface TestAt { kind: TestKind, nodeId: string | null, besideId: string | null }

/** What was heard on a walk: those that do not play as they should; all others do. null: anything else. */
export type WalkHeard = { nodeId: string, is: Sound }[] | null
/** One that is pressed, a range in ohms, or what a walk found. */
export type AnswerOf = { value: ReadingValue } | { lowOhm: number | null, highOhm: number | null } | { isOpen: true } | { heard: WalkHeard }
export interface Predictive { answers: AnswerOf[], /** By what may be there. */ chances: Float64Array[] }

/** What may be there, with what the samples of the units come to under it; outcome null: something that is not in the list. */
export interface Hypothesis { outcome: Outcome | null, sampleWeight: Float64Array }

/** Brought to one, with a slip to any; in place. */
export function slipped(chances: Float64Array): Float64Array {
  const count = chances.length
  let total = 0
  for (let a = 0; a < count; a++) total += chances[a]!
  for (let a = 0; a < count; a++) chances[a] = (1 - SLIP) * (total > 0 ? chances[a]! / total : 1 / count) + SLIP / count
  return chances
}
