import { readQueue, writeQueue } from '#core/window/queueFile'
import { photoKey, readWaiting } from '~/photos/waitingPhoto'
import { photoShelf } from './device'
import { allKept, keep } from './waiting'

/** What waits on this device, out as a file, and in on another one. */

export async function queueText(): Promise<string> {
  const [found, photos] = await Promise.all([allKept(), photoShelf.all()])
  return writeQueue(found.flatMap(f => f.kept ?? []), photos.map(([, text]) => text))
}

/**
 * Takes such a file in: what is in it waits here now, beside what waits here already.
 * @returns how many edits and photos
 * @throws InputError
 */
export async function takeQueue(text: string): Promise<{ edits: number, photos: number }> {
  const { kept, photos } = readQueue(text)
  const readable = photos.flatMap((one) => {
    const waiting = readWaiting(one)
    return waiting ? [[photoKey(waiting), one] as const] : []
  })
  if (kept.length > 0) await keep(kept)
  if (readable.length > 0) await photoShelf.put(readable)
  return { edits: kept.length, photos: readable.length }
}
