import { keptKey, readKept, writeKept, type Found, type Kept } from '#core/window/keptEdit'
import { inSlices } from '~/composables/inSlices'
import { editShelf } from './device'

/** Edits that wait on this device. What an entry is, is core/window/keptEdit.ts. */

/** Puts edits in; false when the device cannot keep them: they are then kept by this page alone. */
export function keep(edits: readonly Kept[]): Promise<boolean> {
  return editShelf.put(edits.map(kept => [keptKey(kept.jobId, kept.stamped.id), writeKept(kept)]))
}

export function letGo(jobId: string, editIds: readonly string[]): Promise<void> {
  return editShelf.remove(editIds.map(id => keptKey(jobId, id)))
}

export function letGoOf(key: string): Promise<void> {
  return editShelf.remove([key])
}

/** All that waits here, and what cannot be read. */
export async function allKept(): Promise<Found[]> {
  await bringOver()
  const found = await inSlices(readEach(await editShelf.all())) ?? []
  const lists = found.filter(f => f.kept && f.key !== keptKey(f.jobId, f.kept.stamped.id))
  if (lists.length === 0) return found
  await bringUp(found, new Set(lists.map(f => f.key)))
  return found.map(f => f.kept ? { ...f, key: keptKey(f.jobId, f.kept.stamped.id) } : f)
}

/** What was read before is not read again: a queue of a week takes half a second to be judged. */
let known = new Map<string, { text: string, found: Found[] }>()
function* readEach(entries: readonly [string, string][]): Generator<void, Found[]> {
  const now: typeof known = new Map()
  for (const [key, text] of entries) {
    const before = known.get(key)
    if (before?.text === text) now.set(key, before)
    else {
      now.set(key, { text, found: readKept(key, text) ?? [] })
      yield
    }
  }
  known = now
  return [...now.values()].flatMap(({ found }) => found)
}

/** Lists that version 1 kept, put in anew one by one. A list of which anything cannot be read stays as it is, and is shown. */
async function bringUp(found: readonly Found[], keys: ReadonlySet<string>): Promise<void> {
  for (const key of keys) {
    if (await keep(found.flatMap(f => f.key === key && f.kept ? [f.kept] : []))) await letGoOf(key)
  }
}

/**
 * What older versions of this program kept in localStorage (or keep, in a window that was not read anew). Two windows that do this at once put
 * the same in; what one of them sends meanwhile counts once.
 */
async function bringOver(): Promise<void> {
  try {
    const old = Object.keys(localStorage).flatMap((key) => {
      const text = localStorage.getItem(key)
      return text !== null && readKept(key, text) !== null ? [[key, text] as const] : []
    })
    if (old.length > 0 && await editShelf.put(old)) for (const [key] of old) localStorage.removeItem(key)
  }
  catch { /* There is none: nothing of older versions either. */ }
}
