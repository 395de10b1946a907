import type { Thing } from './sections/shapes'

/** Why an edit no longer applies. Data; the sentence is made in words.ts. */
export type Refusal
  = | { code: 'not-there', what: Thing, id: string }
    | { code: 'already-there', id: string }
    | { code: 'changed-meanwhile', what: string, field: string, was: unknown, now: unknown }
    | { code: 'inside-itself', id: string }
    | { code: 'corrected-already', id: string }
    | { code: 'too-many', what: string, most: number }
    /** Of what a job may weigh, in bytes. */
    | { code: 'too-large', most: number }
    | { code: 'not-valid', message: string }
    /** Another edit of other content bears the same id: one of the two would be lost. */
    | { code: 'id-taken', id: string }
    | { code: 'archived' }

/** The field of a thing that is taken away as a whole. */
export const WHOLE = 'all of it'

/** Thrown by applying an edit that no longer fits the job. The job is untouched. */
export class EditRefused extends Error {
  override name = 'EditRefused'
  constructor(readonly refusal: Refusal) {
    super(refusal.code)
  }
}

export function refuse(refusal: Refusal): never {
  throw new EditRefused(refusal)
}
