import type { ReadingKind, ReadingValue, Sound } from '#core/job/schema'
import type { Loudness } from '#core/job/sections/readings/schema'
import { SLIP } from '../ohms'
import type { Outcome } from '../outcome'

/** A test that may be taken, and what it may find. */

/** A walk along the line that notes of every speaker how it sounds, how loud it is by the meter, or which way round by a pulse. */
export const WALK_KINDS = ['walk', 'level-walk', 'pulse-walk'] as const
export type WalkKind = typeof WALK_KINDS[number]
/** A kind of reading; or a walk, which is a reading of every speaker. */
export type TestKind = ReadingKind | WalkKind
export const isWalk = (kind: TestKind): kind is WalkKind => (WALK_KINDS as readonly TestKind[]).includes(kind)
/** At the head, or at a speaker or a control; beside another, or in exchange with it. */
export interface TestAt { kind: TestKind, nodeId: string | null, besideId: string | null }

/** How a speaker may be found on a walk. */
export type WalkFound = Sound | Loudness | 'right-way' | 'reversed' | 'cannot-tell'
/** What was found on a walk: those that are not as they should be; all others are. null: anything else. */
export type WalkHeard = { nodeId: string, is: WalkFound }[] | null
/** One that is pressed, a range in ohms, or what a walk found. */
export type AnswerOf = { value: ReadingValue } | { lowOhm: number | null, highOhm: number | null } | { isOpen: true } | { heard: WalkHeard }
export interface Predictive {
  answers: AnswerOf[]
  /** By what may be there. */
  chances: Float64Array[]
  /** The same of all that it finds, where that is more than a person tells apart: it is judged by this. */
  finer?: Float64Array[]
}

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
