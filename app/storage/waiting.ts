import { keptKey, readKept, writeKept, type Found, type Kept } from '#core/window/keptEdit'

/** The browser's storage, as far as edits wait in it. What an entry is, is core/window/kept.ts. */

/** Puts edits in; false when the storage is full or closed: they are then kept by this page alone. */
export function keep(edits: readonly Kept[]): boolean {
  try {
    for (const kept of edits) localStorage.setItem(keptKey(kept.jobId, kept.stamped.id), writeKept(kept))
    return true
  }
  catch {
    return false
  }
}

export function letGo(jobId: string, editIds: readonly string[]): void {
  for (const id of editIds) localStorage.removeItem(keptKey(jobId, id))
}

export function letGoOf(key: string): void {
  localStorage.removeItem(key)
}

/** All that waits here, and what cannot be read. */
export function allKept(): Found[] {
  return Object.keys(localStorage).flatMap(key => readKept(key, localStorage.getItem(key) ?? '') ?? [])
}

/** Lists that an older version kept, put in anew one by one. A list of which anything cannot be read stays as it is, and is shown. */
export function bringUp(): void {
  const old = allKept().filter(found => found.kept && found.key !== keptKey(found.jobId, found.kept.stamped.id))
  for (const key of new Set(old.map(found => found.key))) {
    const list = old.flatMap(found => found.key === key && found.kept ? [found.kept] : [])
    if (keep(list)) letGoOf(key)
  }
}
