import { z } from 'zod'

/** What edits of every section are made of. */

/** A place in a list; beyond its end is at its end. */
export const index = z.int().min(0).max(100_000)

/**
 * The two halves of an edit that sets something. It carries what was there (`was`): that makes it its own undo, and lets
 * it be refused when another window has changed the same thing meanwhile.
 */
export function setter<S extends z.ZodRawShape>(fields: S) {
  const some = z.strictObject(fields).partial()
  return { was: some, to: some }
}
