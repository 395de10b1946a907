import { InputError } from '#core/quantity/inputError'
import { FORMAT_NAME, FORMAT_VERSION, type Job } from '#core/job/schema'
import { JobError, readJob } from '#core/job/readJob'

export const FILE_ENDING = '.plainmatch.json'
/** More than any job can be; a longer file is another thing. */
export const LONGEST_FILE = 20_000_000

/** How a document of each older version is brought up to the next. None yet: version 1 is the first. */
const UPGRADES: Record<number, (document: Record<string, unknown>) => Record<string, unknown>> = {}

/** A job as text, keys in schema order, two spaces: it can be read and compared. */
export function writeJobFile(job: Job): string {
  return JSON.stringify(job, null, 2) + '\n'
}

/**
 * Reads a job file.
 * @throws InputError for text that is no JSON (with the character), JobError for a document that is no job (with its path)
 */
export function readJobFile(text: string): Job {
  if (text.length > LONGEST_FILE) throw new InputError('The file is too large for a job.', LONGEST_FILE, [])
  let data: unknown
  try {
    data = JSON.parse(text)
  }
  catch (error) {
    const message = error instanceof Error ? error.message : ''
    const at = /position (\d+)/.exec(message)
    throw new InputError('The file is not JSON: it was cut short or is another kind of file.', at ? Number(at[1]) : text.trimEnd().length, ['a file saved as *' + FILE_ENDING])
  }
  return readJob(upgraded(data))
}

function upgraded(data: unknown): unknown {
  if (data === null || typeof data !== 'object' || (data as { format?: unknown }).format !== FORMAT_NAME) return data
  let document = data as Record<string, unknown>
  const { version } = document
  if (typeof version === 'number' && version > FORMAT_VERSION) {
    throw new JobError(`The file is of version ${version}; this program knows versions up to ${FORMAT_VERSION}. Use a newer program.`, 'version', [`${FORMAT_VERSION}`])
  }
  while (typeof document.version === 'number' && UPGRADES[document.version]) document = UPGRADES[document.version]!(document)
  return document
}

/** A file name that every system takes: letters, digits, dashes. */
export function fileNameOf(job: Job): string {
  const plain = job.name.normalize('NFKD').replace(/\p{M}/gu, '').replace(/[^A-Za-z0-9]+/g, '-').replace(/^-+|-+$/g, '').slice(0, 60)
  return (plain || 'job') + FILE_ENDING
}
