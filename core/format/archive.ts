import { MOST_PHOTO_BYTES, MOST_PHOTOS } from '#core/job/sections/photos/schema'
import { MOST_SPACES } from '#core/job/sections/spaces/schema'
import { InputError } from '#core/quantity/inputError'
import { LONGEST_FILE } from './plainMatch'

/** A job with its photos as one file: a zip with the document and each picture under its hash, and nothing else. It is checked before it is unpacked. */

export const JOB_ENTRY = 'job.plainmatch.json'
export const photoEntry = (hash: string): string => `photos/${hash}.jpg`
export const archiveNameOf = (fileName: string): string => fileName.replace(/\.json$/, '.zip')
const PHOTO = /^photos\/([0-9a-f]{64})\.jpg$/

/** An entry as the directory of the archive names it. */
export interface Entry { name: string, sizeBytes: number }

/**
 * Whether an archive is one of a job, by its directory alone. Nothing is unpacked that is not asked for here.
 * @throws InputError where it has no document, something else in it, or more than a job can hold
 */
export function checkEntries(entries: readonly Entry[]): void {
  const refuse = (says: string): never => { throw new InputError(says, 0, ['an archive that “with photos” gave']) }
  const names = entries.filter(e => !e.name.endsWith('/'))
  if (!names.some(e => e.name === JOB_ENTRY)) refuse('There is no job in this archive: it has no file job.plainmatch.json.')
  const odd = names.find(e => e.name !== JOB_ENTRY && !PHOTO.test(e.name))
  if (odd) refuse(`“${odd.name.slice(0, 60)}” does not belong in the archive of a job.`)
  if (new Set(names.map(e => e.name)).size < names.length) refuse('A file is in this archive twice.')
  if (names.length > MOST_PHOTOS + MOST_SPACES + 1) refuse(`More than ${MOST_PHOTOS + MOST_SPACES} pictures: a job holds no more.`)
  const large = names.find(e => e.sizeBytes > (e.name === JOB_ENTRY ? LONGEST_FILE : MOST_PHOTO_BYTES))
  if (large) refuse(large.name === JOB_ENTRY ? `The job in it is larger than ${LONGEST_FILE / 1e6} MB.` : `“${large.name.slice(0, 20)}…” is larger than a photo of a job.`)
}

/** The hash that a picture stands under; null for what is no picture. */
export const hashOfEntry = (name: string): string | null => PHOTO.exec(name)?.[1] ?? null
