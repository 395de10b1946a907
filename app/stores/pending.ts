import type { StampedEdit } from '#core/job/edits'

/**
 * Edits that the server has not confirmed, kept in the browser's storage: a closed tab or an empty battery loses none.
 * A window keeps its own under its own name; the next one that opens the job takes over what others left (an edit
 * counts once, so a window that still lives does no harm).
 */
const prefix = (jobId: string) => `plain-match.pending.${jobId}.`

export function keepPending(jobId: string, window: string, edits: readonly StampedEdit[]): void {
  const key = prefix(jobId) + window
  if (edits.length === 0) localStorage.removeItem(key)
  else localStorage.setItem(key, JSON.stringify(edits))
}

export function takePending(jobId: string): StampedEdit[] {
  const keys = Object.keys(localStorage).filter(key => key.startsWith(prefix(jobId)))
  const edits = keys.flatMap((key) => {
    try {
      return JSON.parse(localStorage.getItem(key) ?? '[]') as StampedEdit[]
    }
    catch {
      return []
    }
  })
  return [...new Map(edits.map(e => [e.id, e])).values()]
}

export function forgetOthers(jobId: string, window: string): void {
  for (const key of Object.keys(localStorage)) {
    if (key.startsWith(prefix(jobId)) && key !== prefix(jobId) + window) localStorage.removeItem(key)
  }
}
