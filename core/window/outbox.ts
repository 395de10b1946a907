import type { StampedEdit } from '#core/job/edits'
import type { SyncAnswer, SyncRequest } from '#core/job/protocol'
import { FORMAT_VERSION } from '#core/job/schema'
import { inOrder, type Kept } from './keptEdit'
import { nextRequest } from './request'

/**
 * Sends what waits on a device without its job being opened: a tab that was closed while the server was away leaves its
 * edits to whichever page comes next.
 */

/** Revision of a window that asks for nothing back: no job gets there. */
const NO_NEWS = 2 ** 31 - 1

/** The next request for one job; null when nothing waits that could be sent. */
export function outboxRequest(kept: readonly Kept[], isSingle = false): SyncRequest | null {
  const edits = nextRequest(inOrder(kept.filter(k => k.refused === null)).map(k => k.stamped), isSingle)
  return edits.length === 0 ? null : { since: NO_NEWS, by: edits[0]!.by, version: FORMAT_VERSION, edits }
}

/** What an answer means for storage: what to let go, and what to keep with the reason why it was not taken. */
export function outboxAnswered(kept: readonly Kept[], { results }: Pick<SyncAnswer, 'results'>): { letGo: string[], keep: Kept[] } {
  const byId = new Map(kept.map(k => [k.stamped.id, k]))
  return {
    letGo: results.filter(r => r.status !== 'refused').map(r => r.id),
    keep: results.flatMap((r) => {
      const waiting = byId.get(r.id)
      return r.status === 'refused' && waiting ? [{ ...waiting, refused: { message: r.message, code: r.refusal.code } }] : []
    }),
  }
}

/** The same for an edit that the server could not even read. */
export function outboxUnreadable(kept: readonly Kept[], sent: readonly StampedEdit[], message: string): Kept[] {
  const ids = new Set(sent.map(e => e.id))
  return kept.filter(k => ids.has(k.stamped.id)).map(k => ({ ...k, refused: { message, code: null } }))
}
