import { partsOf, type StampedEdit } from '#core/job/edits'
import { EDITS_A_REQUEST, PARTS_A_REQUEST } from '#core/job/protocol'

/** The first edits of those waiting, as many as one request takes: at least one, however many parts it has. */
export function nextRequest(waiting: readonly StampedEdit[], isSingle = false): StampedEdit[] {
  let parts = 0
  let count = 0
  for (const { edit } of waiting.slice(0, isSingle ? 1 : EDITS_A_REQUEST)) {
    parts += partsOf(edit).length
    if (count > 0 && parts > PARTS_A_REQUEST) break
    count++
  }
  return waiting.slice(0, count)
}

/** Waits between tries while the server is away, ms; the last goes on. */
const RETRY_MS = [1000, 2000, 5000, 10_000]
export const retryMs = (failures: number): number => RETRY_MS[Math.min(failures, RETRY_MS.length - 1)]!
