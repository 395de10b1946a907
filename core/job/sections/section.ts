import type { z } from 'zod'
import type { Job } from '../schema'

/**
 * A section of the job document: a folder with its schema, its edits, and this: how each edit is applied and what it is
 * called. A new section is a folder of its own and its line in index.ts.
 */
type EditsOf<Schemas extends readonly z.ZodType[]> = z.infer<Schemas[number]> & { kind: string }

export interface Section<Schemas extends readonly z.ZodType[], E extends { kind: string } = EditsOf<Schemas>> {
  name: string
  /** In the document that is written as one, or in rows of their own: what only grows is rows. */
  keeps: 'document' | 'rows'
  /**
   * Applies an edit to the job and gives the edit that takes it back. Pure.
   * Throws EditRefused when it does not fit the job as it now is.
   */
  apply: { [K in E['kind']]: (job: Job, edit: Extract<E, { kind: K }>) => { job: Job, inverse: E } }
  /** A short name for what each edit did: "speaker moved". */
  words: Record<E['kind'], string>
  /** What the fields of its setting edits are called in a refusal. */
  fields: Record<string, string>
}
