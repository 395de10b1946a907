import { Records } from './records'
import { FORMAT_NAME, FORMAT_VERSION, type Job, type JobDocument } from './schema'
import { DEFAULT_PRACTICE } from './sections/practice/schema'

/** Between the job in memory and the document that is written. */

export function fromDocument({ format: _, version: __, readings, repairs, ...rest }: JobDocument): Job {
  return { ...rest, readings: Records.of(readings), repairs: Records.of(repairs) }
}

/** Keys in the order of the schema: a file can be read and compared. */
export function toDocument({ name, note, practice, kinds, zones, spaces, amplifiers, variants, readings, repairs }: Job): JobDocument {
  return {
    format: FORMAT_NAME, version: FORMAT_VERSION, name, note, practice, kinds, zones, spaces, amplifiers, variants, readings: [...readings],
    repairs: [...repairs],
  }
}

export function emptyJob(name: string): Job {
  return { name, note: '', practice: DEFAULT_PRACTICE, kinds: [], zones: [], spaces: [], amplifiers: [], variants: [], readings: Records.of(), repairs: Records.of() }
}
