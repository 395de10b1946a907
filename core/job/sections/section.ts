import type { z } from 'zod'
import type { Job, JobDocument } from '../schema'
import type { GrowingList, SectionName, ShapeOf, Thing } from './shapes'

/** The edits of a section. */
type EditsOf<N extends SectionName> = z.infer<ShapeOf<N>['edits'][number]>

/** The document without what only grows: a job and a file have it alike. */
export type Drawing = Omit<JobDocument, 'format' | 'version' | GrowingList>

/** Something that an edit names and that has to be there. `isLoose`: one that is gone counts as none, so that taking back may name it again. */
export interface Reference { what: Thing, id: string, isLoose?: true }

/** The same where a document has it: `by` is what names it, at `path`, where null stands for none. */
export interface Naming extends Reference { by: Thing, path: readonly (string | number)[] }

export interface EditRule<E, All> {
  /**
   * Applies an edit to the job and gives the edit that takes it back. Pure. Throws EditRefused when it does not fit the job as it
   * now is. That its new ids are free, and what it refers to is there, has been seen to before (job/apply.ts).
   */
  apply: (job: Job, edit: E) => { job: Job, inverse: All }
  /** Ids that it brings into the job. */
  makes: (edit: E) => readonly string[]
  /** Things that something of the job names once it is applied. */
  refersTo: (edit: E) => readonly Reference[]
  /** What it takes away that nothing may name then, and the reason for a refusal from how much still does: "3 speakers". Only where others name it. */
  frees?: (job: Job, edit: E) => { id: string, what: Thing, stillNamed: (by: string, isOne: boolean) => string } | null
  /** What it did, in short: "speaker moved". */
  words: string
  /** Its place in what is said of several edits done as one: the least leads. Without one it never leads others. */
  leads?: number
}

/**
 * What a section does: how each edit is applied and called, which ids stand in it, what of it names things. Its data half is
 * its shape (shapes.ts); a new section is a folder with both, and a line in each of the two lists.
 */
export interface Section<N extends SectionName> {
  shape: ShapeOf<N>
  edits: { [K in EditsOf<N>['kind']]: EditRule<Extract<EditsOf<N>, { kind: K }>, EditsOf<N>> }
  /** What the fields of its setting edits are called in a refusal. */
  fields: Record<string, string>
  /** What an entry of its lists is called where it has a name of its own, else by its number. */
  lists: Record<string, (entry: Record<PropertyKey, unknown>, number: number) => string>
  /** Whether anything in the section bears this id. Asked for every new id: quick. */
  has: (job: Job, id: string) => boolean
  /** Every id of the section with the place where it stands in the document. */
  ids: (document: JobDocument) => Iterable<readonly [id: string, path: string]>
  /** All that its part of a document names. */
  names: (drawing: Drawing) => Iterable<Naming>
  /** What neither the schema nor ids and names say of its part of a document. Throws JobError. */
  check?: (document: JobDocument) => void
  /** Of a section that only grows: whether the place of an entry is drawn. */
  isPlaced?: (job: Job, place: { outputId: string, nodeId: string | null, kind?: string }) => boolean
  /** Of several edits done as one, a sentence that says more than that of the leading one; null where none does. */
  ofBatch?: (kinds: readonly string[]) => string | null
}

/** For edits that refer to nothing or make nothing, and sections that name nothing. */
export const none = (): readonly never[] => []

/** A reference for every name that is set. */
export function named(what: Thing, ...ids: (string | null | undefined)[]): Reference[] {
  return ids.flatMap(id => id == null ? [] : [{ what, id }])
}

/** Calls an entry of a list by its name, else by its number. */
export const byName = (one: string, key = 'name') => (entry: Record<PropertyKey, unknown>, number: number): string => {
  const name = entry[key]
  return typeof name === 'string' && name.trim() !== '' ? name.trim().slice(0, 60) : `${one} ${number}`
}
