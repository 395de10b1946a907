import { applyInSteps } from './apply'
import { bytesAddedBy, MOST_BYTES } from './weight'
import type { StampedEdit } from './edits'
import { EditRefused, type Refusal } from './refusal'
import type { Job } from './schema'
import { same } from '#core/quantity/same'
import type { LogEntry } from './undo'

/**
 * How stamped edits become part of a job: the one place for the server and for what stands in for it in tests.
 * Each counts once, in the order sent; one that does not fit is refused with its reason and the rest go on.
 */
export type Outcome
  = | { id: string, status: 'applied', entry: LogEntry }
    | { id: string, status: 'known' }
    | { id: string, status: 'refused', refusal: Refusal }

/**
 * Takes edits in, a part a step. `known` are the edits of these ids that the job already has; `roomBytes`: so much may they add to it. Taking back is
 * never refused for want of room.
 */
export function* takeInSteps(
  job: Job, edits: readonly StampedEdit[], known: ReadonlyMap<string, StampedEdit['edit']>, isArchived: boolean, roomBytes = Infinity,
): Generator<void, { job: Job, outcomes: Outcome[] }> {
  const taken = new Map(known)
  const outcomes: Outcome[] = []
  let current = job
  let room = roomBytes
  for (const stamped of edits) {
    const { id } = stamped
    const before = taken.get(id)
    if (before) {
      // A lost answer makes a window send again what is there; other content under the same id would be lost if it were called known.
      outcomes.push(same(before, stamped.edit) ? { id, status: 'known' } : { id, status: 'refused', refusal: { code: 'id-taken', id } })
      continue
    }
    if (isArchived) {
      outcomes.push({ id, status: 'refused', refusal: { code: 'archived' } })
      continue
    }
    const added = roomBytes === Infinity ? 0 : bytesAddedBy(stamped.edit)
    if (stamped.undoes === null && added > room) {
      outcomes.push({ id, status: 'refused', refusal: { code: 'too-large', most: MOST_BYTES } })
      continue
    }
    try {
      const applied = yield* applyInSteps(current, stamped.edit, stamped.undoes === null ? 'new' : 'undo')
      current = applied.job
      room -= added
      taken.set(id, stamped.edit)
      outcomes.push({ id, status: 'applied', entry: { ...stamped, inverse: applied.inverse } })
    }
    catch (error) {
      if (!(error instanceof EditRefused)) throw error
      outcomes.push({ id, status: 'refused', refusal: error.refusal })
    }
  }
  return { job: current, outcomes }
}
