import { Records, type Placed } from './records'
import { FORMAT_NAME, FORMAT_VERSION, type Job, type JobDocument, type Rows } from './schema'
import { byList, GROWING, SHAPES } from './sections/shapes'

/** Between the job in memory and the document that is written. What only grows is told apart by the list of sections. */

/** Keys in the order of the file. */
const KEYS = SHAPES.flatMap(shape => Object.keys(shape.fields))
const LISTS: ReadonlySet<string> = new Set(GROWING.map(growing => growing.list))

/** The lists of what only grows, empty: for a document whose rows are kept elsewhere. */
export const NO_ROWS = byList((): readonly never[] => [])

export function fromDocument(document: JobDocument): Job {
  const { format: _, version: __, ...rest } = document
  return { ...rest, ...byList(list => Records.of<Placed>(document[list])) } as unknown as Job
}

/** Keys in the order of the schema: a file can be read and compared. */
export function toDocument(job: Job): JobDocument {
  const of = job as unknown as Record<string, unknown>
  const parts = KEYS.map(key => [key, LISTS.has(key) ? [...of[key] as Iterable<unknown>] : of[key]])
  return { format: FORMAT_NAME, version: FORMAT_VERSION, ...Object.fromEntries(parts) } as JobDocument
}

/** A job without anything that only grows: for whoever keeps that elsewhere. */
export function noRows(): Rows {
  return byList(() => Records.of()) as unknown as Rows
}

export function emptyJob(name: string): Job {
  return { ...Object.assign({}, ...SHAPES.map(shape => shape.empty)) as Job, ...noRows(), name }
}

/** The document as it stands without its rows. */
export function drawingOf(document: JobDocument): Omit<JobDocument, keyof Rows> {
  return Object.fromEntries(Object.entries(document).filter(([key]) => !LISTS.has(key))) as Omit<JobDocument, keyof Rows>
}
