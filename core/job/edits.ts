import { z } from 'zod'
import {
  amplifierFields, amplifierSchema, branchSchema, idText, leadSchema, nameText, noteText, outputFields, outputSchema,
  practiceSchema, readingSchema, repairSchema, speakerFields,
} from './schema'

/**
 * Every change to a job is one of these. An edit that sets something carries what was there (`was`): that makes it
 * its own undo, and lets it be refused when another window has changed the same thing meanwhile.
 */
function setter<S extends z.ZodRawShape>(fields: S) {
  const some = z.strictObject(fields).partial()
  return { was: some, to: some }
}
const index = z.int().min(0).max(100_000)

const simpleEdits = [
  z.strictObject({ kind: z.literal('job.set'), ...setter({ name: nameText, note: noteText }) }),
  z.strictObject({ kind: z.literal('practice.set'), ...setter(practiceSchema.shape) }),
  z.strictObject({ kind: z.literal('amplifier.add'), index, amplifier: amplifierSchema }),
  z.strictObject({ kind: z.literal('amplifier.remove'), amplifierId: idText }),
  z.strictObject({ kind: z.literal('amplifier.set'), amplifierId: idText, ...setter(amplifierFields) }),
  z.strictObject({ kind: z.literal('output.add'), amplifierId: idText, index, output: outputSchema }),
  z.strictObject({ kind: z.literal('output.remove'), outputId: idText }),
  z.strictObject({ kind: z.literal('output.set'), outputId: idText, ...setter(outputFields) }),
  /** parentId is a group or the root chain of an output. */
  z.strictObject({ kind: z.literal('node.add'), parentId: idText, index, branch: branchSchema }),
  z.strictObject({ kind: z.literal('node.remove'), nodeId: idText }),
  /** index counts among the children that are there once the node is taken out. The lead goes with the node. */
  z.strictObject({ kind: z.literal('node.move'), nodeId: idText, parentId: idText, index }),
  z.strictObject({ kind: z.literal('speaker.set'), nodeId: idText, ...setter(speakerFields) }),
  z.strictObject({ kind: z.literal('lead.set'), nodeId: idText, was: leadSchema.nullable(), to: leadSchema.nullable() }),
  z.strictObject({ kind: z.literal('reading.add'), reading: readingSchema }),
  z.strictObject({ kind: z.literal('reading.withdraw'), readingId: idText, withdrawn: z.boolean() }),
  z.strictObject({ kind: z.literal('repair.add'), repair: repairSchema }),
  z.strictObject({ kind: z.literal('repair.withdraw'), repairId: idText, withdrawn: z.boolean() }),
] as const

const simpleEditSchema = z.discriminatedUnion('kind', simpleEdits)
/** Several edits that belong together: applied all or none, undone as one. */
const batchSchema = z.strictObject({ kind: z.literal('batch'), edits: z.array(simpleEditSchema).max(10_000) })

export const editSchema = z.discriminatedUnion('kind', [...simpleEdits, batchSchema])
export type SimpleEdit = z.infer<typeof simpleEditSchema>
export type Edit = z.infer<typeof editSchema>
export type EditOf<K extends Edit['kind']> = Extract<Edit, { kind: K }>

/** An edit as it travels: its id makes it count once, `by` is the window that made it. */
export const stampedEditSchema = z.strictObject({
  id: idText,
  by: idText,
  /** The edit that this one takes back; null for an edit of its own. */
  undoes: idText.nullable(),
  edit: editSchema,
})
export type StampedEdit = z.infer<typeof stampedEditSchema>

/** One edit of several; one alone stays itself, none is null. */
export function together(edits: SimpleEdit[]): Edit | null {
  if (edits.length === 0) return null
  return edits.length === 1 ? edits[0]! : { kind: 'batch', edits }
}

/** The two halves of a setting edit: `to`, and what stands in the same fields now. */
export function setting<T extends object, P extends Partial<T>>(now: T, to: P): { was: Partial<T>, to: P } {
  const was: Partial<T> = {}
  for (const field of Object.keys(to) as (keyof T)[]) was[field] = now[field]
  return { was, to }
}
