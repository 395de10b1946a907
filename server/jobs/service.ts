import type { Knex } from 'knex'
import { applyEdit } from '#core/job/apply'
import type { StampedEdit } from '#core/job/edits'
import { EditRefused } from '#core/job/refusal'
import { refusalWords } from '#core/job/words'
import type { Job } from '#core/job/schema'
import type { EditResult, OpenedJob, SyncAnswer } from '#core/job/wire'
import type { JobSummary } from '#core/match/jobState'
import * as rows from './repository'
import { summaryOf } from './summary'

/** A window that is further behind than this reads the job anew instead of its edits. */
const MOST_ENTRIES = 1000
/** As many edits as undo reaches back after a reload. */
const UNDO_TAIL = 300

export async function listJobs(db: Knex): Promise<JobSummary[]> {
  const all = await rows.listRevisions(db)
  return summaryOf(all, ids => rows.findJobs(db, ids))
}

export async function openJob(db: Knex, id: string): Promise<OpenedJob | null> {
  const row = await rows.findJob(db, id)
  if (!row) return null
  // An edit may land between the two reads; what is newer than the document is left for the next sync.
  const log = (await rows.lastEdits(db, id, UNDO_TAIL)).filter(entry => entry.seq <= row.revision)
  return { id, revision: row.revision, archivedAt: row.archivedAt, job: row.document, log }
}

/** Puts a job in under an id of the caller's; an id that is there already changes nothing. */
export async function createJob(db: Knex, id: string, job: Job): Promise<void> {
  if (await rows.insertJob(db, id, job)) await rows.notifyChanged(db, id, 0)
}

export async function archiveJob(db: Knex, id: string, archived: boolean): Promise<boolean> {
  const found = await rows.setArchived(db, id, archived)
  if (found) await rows.notifyChanged(db, id, -1)
  return found
}

/**
 * Applies edits in order, each once, numbered in one transaction; an edit that does not fit comes back with its reason
 * and the rest go on. Answers with all that the window has not seen.
 */
export async function syncJob(db: Knex, id: string, since: number, edits: StampedEdit[]): Promise<SyncAnswer | null> {
  return db.transaction(async (trx) => {
    const row = edits.length > 0 ? await rows.lockJob(trx, id) : await rows.findJob(trx, id)
    if (!row) return null
    const known = await rows.knownEdits(trx, id, edits.map(e => e.id))
    let { revision, document } = row
    const results: EditResult[] = []
    for (const stamped of edits) {
      const seq = known.get(stamped.id)
      if (seq !== undefined) {
        results.push({ id: stamped.id, status: 'known', seq })
        continue
      }
      try {
        const { job, inverse } = applyEdit(document, stamped.edit)
        document = job
        revision++
        await rows.insertEdit(trx, id, { ...stamped, seq: revision, inverse })
        known.set(stamped.id, revision)
        results.push({ id: stamped.id, status: 'applied', seq: revision })
      }
      catch (error) {
        if (!(error instanceof EditRefused)) throw error
        results.push({ id: stamped.id, status: 'refused', refusal: error.refusal, message: refusalWords(error.refusal) })
      }
    }
    if (revision !== row.revision) {
      await rows.updateJob(trx, id, revision, document)
      await rows.notifyChanged(trx, id, revision)
    }
    const behind = revision - since
    const entries = behind < 0 || behind > MOST_ENTRIES ? null : await rows.editsSince(trx, id, since, MOST_ENTRIES)
    return { revision, results, entries }
  })
}
