import type { Knex } from 'knex'
import { BENCH_ID } from '#core/job/bench'
import { drawingOf, noRows, toDocument } from '#core/job/document'
import { partsOf, type Edit, type StampedEdit } from '#core/job/edits'
import { takeInSteps, type Outcome } from '#core/job/ledger'
import { correctedIds, documentParts, mentionedIds, touchedRows } from '#core/job/parts'
import type { Job, JobDocument, Rows } from '#core/job/schema'
import { UNDO_REACH } from '#core/job/undo'
import { upgradedEdit } from '#core/job/upgrade'
import { bytesAddedBy, MOST_BYTES } from '#core/job/weight'
import { refusalWords } from '#core/job/words'
import type { EditResult, SyncAnswer, SyncRequest } from '#core/job/protocol'
import { mayChangeOrigins } from '#core/job/origins'
import { writeUse } from '../gear/repository'
import { inSlices } from './slices'
import { documentAt, hold } from './documentCache'
import * as records from './recordRows'
import * as rows from './repository'

/** A window that is further behind than this reads the job anew instead of its edits. */
const MOST_ENTRIES = 1000
/** So many revisions may a stored document lag behind: writing it costs, and so does bringing it up. */
const DOCUMENT_LAG = 50

/**
 * The opened job as JSON text in pieces: its growing sections come from the database as text and go out as text.
 * All of it is of one moment.
 */
export function openJobText(db: Knex, id: string, by: string): Promise<string[] | null> {
  return atOneMoment(db, async (trx) => {
    const row = await rows.findJob(trx, id)
    if (!row) return null
    const drawing = drawingOf(toDocument(await documentAt(trx, row)))
    const [grown, log] = [await records.rowsText(trx, id), await rows.lastEditsOf(trx, id, by, UNDO_REACH)]
    const head = JSON.stringify({ id, revision: row.revision, archivedAt: row.archivedAt, log })
    const lists = Object.entries(grown).flatMap(([list, pieces]) => [`,"${list}":`, ...pieces])
    return [head.slice(0, -1), ',"job":', JSON.stringify(drawing).slice(0, -1), ...lists, '}}']
  })
}

/** The whole document of a job; null when there is none. */
export async function readWhole(db: Knex, id: string): Promise<JobDocument | null> {
  return atOneMoment(db, async (trx) => {
    const row = await rows.findJob(trx, id)
    if (!row) return null
    const grown = Object.entries(await records.rowsText(trx, id)).map(([list, pieces]) => [list, JSON.parse(pieces.join('')) as unknown])
    return { ...toDocument(await documentAt(trx, row)), ...Object.fromEntries(grown) as Partial<JobDocument> }
  })
}

/** The job without what it keeps in rows. */
export async function readDrawing(db: Knex, id: string): Promise<Job | null> {
  const row = await rows.findJob(db, id)
  return row && documentAt(db, row)
}

function atOneMoment<T>(db: Knex, read: (trx: Knex.Transaction) => Promise<T>): Promise<T> {
  return db.transaction(read, { isolationLevel: 'repeatable read', readOnly: true })
}

/** Puts a job in under an id of the caller's; an id that is there already changes nothing. */
export async function createJob(db: Knex, id: string, job: Job): Promise<void> {
  await db.transaction(async (trx) => {
    if (!await rows.insertJob(trx, id, job)) return
    await writeUse(trx, id, job)
    await records.insertRows(trx, id, job)
    await rows.noteWeight(trx, id, await records.measured(trx, id))
    await rows.notifyChanged(trx, id, 0)
  })
}

export async function archiveJob(db: Knex, id: string, archived: boolean): Promise<boolean> {
  const found = id !== BENCH_ID && await rows.setArchived(db, id, archived)
  if (found) await rows.notifyChanged(db, id, -1)
  return found
}

/**
 * Applies edits in order, each once, numbered in one transaction; an edit that does not fit comes back with its reason
 * and the rest go on. Answers with all that the window has not seen.
 */
export async function syncJob(db: Knex, id: string, { since, by, edits }: Omit<SyncRequest, 'version'>): Promise<SyncAnswer | null> {
  if (edits.length === 0) {
    const row = await rows.findJob(db, id)
    return row && { revision: row.revision, results: [], entries: await newsOf(db, id, row.revision, { since, by, edits }) }
  }
  let confirmed = () => {}
  const answer = await db.transaction(async (trx): Promise<SyncAnswer | null> => {
    const row = await rows.lockJob(trx, id)
    if (!row) return null
    const { known, ...own } = await mentionedBy(trx, id, edits)
    const before = { ...await documentAt(trx, row), ...own }
    const weight = await weightOf(trx, row, edits)
    const { job, outcomes } = await inSlices(takeInSteps(before, edits, known, row.archivedAt !== null, MOST_BYTES - weight))
    const applied = outcomes.flatMap(o => o.status === 'applied' ? [o.entry] : [])
      .map((entry, k) => ({ ...entry, seq: row.revision + k + 1, isInDocument: documentParts(entry.edit).length > 0 }))
    if (applied.length > 0) await write(trx, { ...row, weight }, before, job, applied)
    const revision = row.revision + applied.length
    confirmed = () => hold(row, revision, { ...job, ...noRows() })
    // Where the window missed nothing, what is new is what it sent.
    const entries = since === row.revision
      ? applied.map(({ isInDocument: _, ...entry }) => ({ ...entry, edit: null, inverse: entry.by === by ? entry.inverse : null }))
      : await newsOf(trx, id, revision, { since, by, edits })
    return { revision, results: outcomes.map(resultOf), entries }
  })
  confirmed()
  return answer
}

/** The entries and edits that these edits are about, with the count of all. */
async function mentionedBy(trx: Knex.Transaction, id: string, edits: readonly StampedEdit[]): Promise<Rows & { known: Map<string, Edit> }> {
  const bodies = edits.map(e => e.edit)
  const found = await records.mentioned(trx, id, mentionedIds(bodies), edits.map(e => e.id))
  return {
    ...await records.rowsAround(trx, id, found, correctedIds(bodies)),
    known: new Map(found.edits.map(({ id, edit, version }) => [id, upgradedEdit(edit, version) as Edit])),
  }
}

/** Bytes that a job may have: measured anew before anything would be refused for what was only added up. */
async function weightOf(trx: Knex.Transaction, row: rows.JobRow, edits: readonly StampedEdit[]): Promise<number> {
  const added = edits.reduce((sum, e) => sum + bytesAddedBy(e.edit), 0)
  return row.weight === null || row.weight + added > MOST_BYTES ? records.measured(trx, row.id) : row.weight
}

/** Writes what was taken in. */
async function write(trx: Knex.Transaction, row: rows.JobRow & { weight: number }, before: Job, job: Job, applied: readonly rows.NewEdit[]): Promise<void> {
  const revision = row.revision + applied.length
  await records.writeRows(trx, row.id, before, job, applied.map(entry => touchedRows(entry.edit)))
  // A document that nothing has changed stands for the new revision as well.
  const documentStands = !applied.some(e => e.isInDocument) && row.documentRevision === row.revision
  if (applied.some(entry => partsOf(entry.edit).some(mayChangeOrigins))) await writeUse(trx, row.id, job)
  const weight = row.weight + applied.reduce((sum, entry) => sum + bytesAddedBy(entry.edit), 0)
  const isDue = !documentStands && revision - row.documentRevision >= DOCUMENT_LAG
  await rows.commitRevision(trx, row.id, applied, { revision, name: job.name, weight, documentStands, ...(isDue ? { job } : {}) })
}

function resultOf(outcome: Outcome): EditResult {
  return outcome.status === 'refused'
    ? { id: outcome.id, status: 'refused', refusal: outcome.refusal, message: refusalWords(outcome.refusal) }
    : { id: outcome.id, status: outcome.status }
}

/** Edits after a revision; null where the window had better read the job anew. */
async function newsOf(db: Knex, id: string, revision: number, { since, by, edits }: Omit<SyncRequest, 'version'>): Promise<SyncAnswer['entries']> {
  const behind = revision - since
  if (behind < 0 || behind > MOST_ENTRIES) return null
  return behind === 0 ? [] : rows.editsSince(db, id, since, MOST_ENTRIES, by, edits.map(e => e.id))
}
