import { InputError } from '#core/quantity/inputError'
import { keptKey, readKept, writeKept, type Kept } from './keptEdit'

/** What waits on a device, as a file: carried to another one where this has no way to the server. What is sent from both counts once. */

const FORMAT = 'plain-match queue'

/** @param photos what waits of photos, each as its device keeps it */
export function writeQueue(kept: readonly Kept[], photos: readonly string[]): string {
  return JSON.stringify({ format: FORMAT, edits: kept.map(k => [keptKey(k.jobId, k.stamped.id), writeKept(k)]), photos })
}

export const isQueue = (text: string): boolean => text.slice(0, 200).includes(`"format":"${FORMAT}"`)

/**
 * @returns the edits that can be read, and the photos as they were kept
 * @throws InputError where it is no such file, or holds something that this program cannot read: then nothing of it is taken
 */
export function readQueue(text: string): { kept: Kept[], photos: string[] } {
  let data: { format?: unknown, edits?: unknown, photos?: unknown }
  try {
    data = JSON.parse(text) as typeof data
  }
  catch {
    throw new InputError('The file is cut off, or is another kind of file.', 0, [])
  }
  const pairs = Array.isArray(data.edits) ? data.edits as unknown[] : []
  if (data.format !== FORMAT || !pairs.every((p): p is [string, string] => Array.isArray(p) && p.length === 2 && p.every(part => typeof part === 'string'))) {
    throw new InputError('This is no file of what waited on a device.', 0, [])
  }
  const kept = pairs.map(([key, text], k) => {
    const [found] = readKept(key, text) ?? []
    if (!found?.kept) throw new InputError(`Edit no. ${k + 1} in it cannot be read: it was kept by a newer program, or the file is damaged. Nothing was taken in.`, 0, [])
    return found.kept
  })
  const photos = Array.isArray(data.photos) ? data.photos.filter((p): p is string => typeof p === 'string') : []
  return { kept, photos }
}
