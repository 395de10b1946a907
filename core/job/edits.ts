import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { SHAPES, type AnyShape } from './sections/shapes'

/** Every change to a job is one of these: the edits of all sections, and several of them as one. */
type EditSchema = AnyShape['edits'][number]
const simpleEdits = SHAPES.flatMap(shape => shape.edits as readonly EditSchema[]) as [EditSchema, ...EditSchema[]]

/** Parts of one edit. A whole line of the largest job is one. */
export const MOST_PARTS = 10_000

const simpleEditSchema = z.discriminatedUnion('kind', simpleEdits)
/** Several edits that belong together: applied all or none, undone as one. */
const batchSchema = z.strictObject({ kind: z.literal('batch'), edits: z.array(simpleEditSchema).max(MOST_PARTS) })

export const editSchema = z.discriminatedUnion('kind', [...simpleEdits, batchSchema])
export type SimpleEdit = z.infer<typeof simpleEditSchema>
export type Edit = z.infer<typeof editSchema>

/** An edit as it travels: its id makes it count once, `by` is the window that made it, `who` the person at it (null while nobody has signed in). */
export const stampedEditSchema = z.strictObject({
  id: idText,
  by: idText,
  who: idText.nullable(),
  /** The edit that this one takes back; null for an edit of its own. */
  undoes: idText.nullable(),
  edit: editSchema,
})
export type StampedEdit = z.infer<typeof stampedEditSchema>

/** An edit that a schema refused: what is wrong and where in it. */
export type Complaint = { issues: z.ZodError, at: string }

/**
 * Reads a stamped edit, a part a step: thousands of parts take their time, and a server has others to answer.
 * @returns the edit, or the first complaint
 */
export function* readStampedInSteps(data: unknown): Generator<void, StampedEdit | Complaint> {
  const parts = batchParts(data)
  const shell = stampedEditSchema.safeParse(parts ? { ...data as object, edit: { kind: 'batch', edits: [] } } : data)
  if (!shell.success) return { issues: shell.error, at: '' }
  if (!parts) return shell.data
  const edits: SimpleEdit[] = []
  for (const [k, part] of parts.entries()) {
    const parsed = simpleEditSchema.safeParse(part)
    if (!parsed.success) return { issues: parsed.error, at: `edit.edits[${k}]` }
    edits.push(parsed.data)
    yield
  }
  return { ...shell.data, edit: { kind: 'batch', edits } }
}

/** The parts of what looks like a batch of a size that is taken; null for anything else, which goes through the schema as it is. */
function batchParts(data: unknown): unknown[] | null {
  const edit = (data as { edit?: { kind?: unknown, edits?: unknown } } | null)?.edit
  const isPlain = typeof edit === 'object' && edit !== null && edit.kind === 'batch' && Array.isArray(edit.edits) && Object.keys(edit).length === 2
  return isPlain && (edit.edits as unknown[]).length <= MOST_PARTS ? edit.edits as unknown[] : null
}

/** The edits that an edit is made of, in order. */
export function partsOf(edit: Edit): readonly SimpleEdit[] {
  return edit.kind === 'batch' ? edit.edits : [edit]
}

type Removal = SimpleEdit & { kind: `${string}.remove` }
/** An edit that takes a thing away: it says in `was` what the thing was. */
export const isRemoval = (edit: Edit): edit is Removal => edit.kind.endsWith('.remove')

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
