import { toDocument } from '#core/job/document'
import type { OpenedJob } from '#core/job/protocol'
import { FORMAT_VERSION, jobSchema } from '#core/job/schema'
import { upgradedDocument } from '#core/job/upgrade'
import type { WindowState } from './state'

/** A job as a device keeps it, so that it opens while the server is away: what the server had when it was last heard. */

/** What stands of it in a list that cannot ask the server. `isPinned`: a person wants it here; others make room for newer ones. */
export interface KeptJob { jobId: string, name: string, keptAt: number, isPinned: boolean }

/** So many are kept beside those that are pinned. */
export const MOST_KEPT = 12

export function writeKeptJob({ jobId, revision, confirmed, log }: Pick<WindowState, 'jobId' | 'revision' | 'confirmed' | 'log'>): string {
  return JSON.stringify({ id: jobId, revision, archivedAt: null, job: toDocument(confirmed!), log })
}

/**
 * What was kept, brought up where an older program kept it: then what could be undone is not offered, for its edits are of that version.
 * @returns null for what cannot be read: the server has it all the same
 */
export function readKeptJob(text: string): OpenedJob | null {
  try {
    const kept = JSON.parse(text) as OpenedJob
    if (kept.job.version === FORMAT_VERSION) return kept
    const parsed = jobSchema.safeParse(upgradedDocument(kept.job).data)
    return parsed.success ? { ...kept, job: parsed.data, log: [] } : null
  }
  catch {
    return null
  }
}

/** The list with one that is kept now, and which of it make room: the oldest that are neither pinned nor have anything to send. */
export function withKept(list: readonly KeptJob[], now: Omit<KeptJob, 'isPinned'>, hasWaiting: ReadonlySet<string>): { list: KeptJob[], gone: string[] } {
  const isPinned = list.find(k => k.jobId === now.jobId)?.isPinned ?? false
  const all = [{ ...now, isPinned }, ...list.filter(k => k.jobId !== now.jobId)].sort((a, b) => b.keptAt - a.keptAt)
  const loose = all.filter(k => !k.isPinned && !hasWaiting.has(k.jobId) && k.jobId !== now.jobId)
  const gone = new Set(loose.slice(Math.max(0, MOST_KEPT - 1)).map(k => k.jobId))
  return { list: all.filter(k => !gone.has(k.jobId)), gone: [...gone] }
}
