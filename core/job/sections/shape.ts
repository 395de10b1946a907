import type { z } from 'zod'

/**
 * The data half of a section of the job document: what it adds to the document, what that is in an empty job, and its edits. Document, edits and
 * types follow from the list of shapes (shapes.ts); what the edits do stands in section.ts of the same folder.
 */
export interface Shape {
  name: string
  /** Its fields of the document, in the order of the file. */
  fields: z.ZodRawShape
  /** What stands in them in a job of which nothing is known. */
  empty: Readonly<Record<string, unknown>>
  edits: readonly z.ZodObject<{ kind: z.ZodLiteral<string> }>[]
  /** What a refusal calls the things that its edits name. */
  things: readonly string[]
  /** Null: kept whole, as a part of the document. Else it only grows, and each entry is a row of its own. */
  grows: Growing | null
}

/** A section whose entries are never changed: each is added once, and withdrawn or brought back. They stand in the one field of the section. */
export interface Growing {
  /** The field, which is the name of the table, too. */
  list: string
  /** One entry as it is written. Its keys are the columns. */
  entry: z.ZodObject<{ id: z.ZodString, withdrawn: z.ZodBoolean }>
  most: number
  /** Name the key of an edit that adds, that withdraws. */
  add: string
  withdraw: string
  /** The key that names an earlier entry which this one says was wrong; each is corrected once. Null where none is ever corrected. */
  corrects: string | null
  /** What must be true of each entry together or not at all, unless a third is; the database holds it, too. */
  together: readonly (readonly [Condition, Condition, unless?: Condition])[]
}

/** `key` may lead into an object by a dot. */
export type Condition = { key: string, oneOf: readonly string[] } | { key: string, isNull: true }

/** A shape with its types kept as they are. */
export const defineShape = <const S extends Shape>(shape: S): S => shape
