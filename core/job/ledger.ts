import { applyEdit } from './apply'
import type { Edit, StampedEdit } from './edits'
import type { Job } from './schema'

/** A job with the ids of the edits that made it what it is. */
export interface Ledger { job: Job, appliedIds: ReadonlySet<string> }

/**
 * Applies a stamped edit once: an id seen before changes nothing and gives no inverse.
 * @throws EditRefused as applyEdit does
 */
export function applyOnce(ledger: Ledger, stamped: StampedEdit): { ledger: Ledger, inverse: Edit | null } {
  if (ledger.appliedIds.has(stamped.id)) return { ledger, inverse: null }
  const { job, inverse } = applyEdit(ledger.job, stamped.edit)
  return { ledger: { job, appliedIds: new Set(ledger.appliedIds).add(stamped.id) }, inverse }
}
