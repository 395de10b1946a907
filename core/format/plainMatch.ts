import { InputError } from '#core/quantity/inputError'
import { NO_ROWS, toDocument } from '#core/job/document'
import { readAndMend } from '#core/job/readJob'
import { jobSchema, type Job, type JobDocument } from '#core/job/schema'
import { GROWING } from '#core/job/sections/shapes'
import { upgradedDocument } from '#core/job/upgrade'
import { bytesOfText } from '#core/job/weight'

export const FILE_ENDING = '.plainmatch.json'
/** Bytes; more than any job can be (core/job/weight.ts): a longer file is another thing. */
export const LONGEST_FILE = 20_000_000

/** A job as text, keys in schema order, two spaces: it can be read and compared. */
export function writeJobFile(job: Job): string {
  return writeDocument(toDocument(job))
}

/** Longer than this, nobody reads a file, and what sets its lines in would be most of it. */
const MOST_SET_IN = 4_000_000

/** The same of a document; the order of its keys is the order of the text. */
export function writeDocument(document: JobDocument): string {
  const text = JSON.stringify(document)
  return (text.length > MOST_SET_IN ? text : JSON.stringify(document, null, 2)) + '\n'
}

/** A job from a file, and in sentences what of it counts for nothing or was changed to fit. */
export interface ReadFile { job: Job, remarks: string[] }

/**
 * Reads a job file of this version or an older one.
 * @throws InputError for text that is no JSON (with the character), JobError for a document that is no job (with its path)
 */
export function readJobFile(text: string): ReadFile {
  if (bytesOfText(text) > LONGEST_FILE) throw new InputError('The file is too large for a job.', LONGEST_FILE, [])
  let data: unknown
  try {
    data = JSON.parse(text)
  }
  catch (error) {
    const message = error instanceof Error ? error.message : ''
    const at = /position (\d+)/.exec(message)
    throw new InputError('The file is not JSON: it was cut short or is another kind of file.', at ? Number(at[1]) : text.trimEnd().length, ['a file saved as *' + FILE_ENDING])
  }
  const upgraded = upgradedDocument(data)
  const { job, remarks } = readAndMend(upgraded.data)
  return { job, remarks: [...upgraded.remarks, ...remarks] }
}

/** A stored document with its keys in the order of the schema again; a database keeps another. Rows have theirs already. */
export function inSchemaOrder(document: JobDocument): JobDocument {
  const rows = Object.fromEntries(GROWING.map(({ list }) => [list, document[list]]))
  return { ...jobSchema.parse({ ...document, ...NO_ROWS }), ...rows }
}

/** A file name that every system takes: letters, digits, dashes. */
export function fileNameOf(name: string): string {
  const plain = name.normalize('NFKD').replace(/\p{M}/gu, '').replace(/[^A-Za-z0-9]+/g, '-').replace(/^-+|-+$/g, '').slice(0, 60)
  return (plain || 'job') + FILE_ENDING
}
