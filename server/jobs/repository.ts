import type { Knex } from 'knex'
import type { Edit, StampedEdit } from '#core/job/edits'
import { BENCH_ID, BENCH_NAME } from '#core/job/bench'
import { drawingOf, emptyJob, toDocument } from '#core/job/document'
import { FORMAT_VERSION, type Job } from '#core/job/schema'
import { upgradedEdit } from '#core/job/upgrade'
import type { LogEntry } from '#core/job/undo'
import type { EditEntry } from '#core/job/protocol'
import { CHANGES_CHANNEL } from '../database/channel'

/** All SQL about jobs and their edits. No rules of the trade here. */

export interface JobRow {
  id: string
  revision: number
  /** The revision that the stored document stands at; edits after it are in the log. */
  documentRevision: number
  archivedAt: string | null
  updatedAt: string
  /** Bytes that it may have become since it was measured; null: not measured. */
  weight: number | null
  /** Tells a job from one of the same id that was there before. */
  createdAt: string
}
interface RawJob {
  id: string
  revision: number
  document_revision: number
  archived_at: Date | null
  updated_at: Date
  created_at: Date
  weight: string | null
}

const toRow = (raw: RawJob): JobRow => ({
  id: raw.id, revision: raw.revision, documentRevision: raw.document_revision,
  archivedAt: raw.archived_at?.toISOString() ?? null, updatedAt: raw.updated_at.toISOString(), createdAt: raw.created_at.toISOString(),
  weight: raw.weight === null ? null : Number(raw.weight),
})
const JOB_COLUMNS = ['id', 'revision', 'document_revision', 'archived_at', 'updated_at', 'created_at', 'weight'] as const

export async function findJob(db: Knex, id: string): Promise<JobRow | null> {
  const raw = await db('jobs').select(JOB_COLUMNS).where({ id }).whereNull('deleted_at').first() as RawJob | undefined
  return raw ? toRow(raw) : null
}

/** Locks the job until the transaction ends: edits are numbered one after the other. */
export async function lockJob(trx: Knex.Transaction, id: string): Promise<JobRow | null> {
  const raw = await trx('jobs').select(JOB_COLUMNS).where({ id }).whereNull('deleted_at').forUpdate().first() as RawJob | undefined
  return raw ? toRow(raw) : null
}

/** The stored document, as some version wrote it. */
export async function readDocument(db: Knex, id: string): Promise<{ document: unknown, version: number, documentRevision: number } | null> {
  const raw = await db('jobs').select('document', 'version', 'document_revision').where({ id }).first() as { document: unknown, version: number, document_revision: number } | undefined
  return raw ? { document: raw.document, version: raw.version, documentRevision: raw.document_revision } : null
}

/** The document as it is stored: all but what is kept in rows. */
function written(job: Job): string {
  return JSON.stringify(drawingOf(toDocument(job)))
}

/** Puts a new job in; false when its id is there already. */
export async function insertJob(db: Knex, id: string, job: Job): Promise<boolean> {
  const inserted = await db('jobs').insert({ id, name: job.name, document: written(job), version: FORMAT_VERSION }).onConflict('id').ignore().returning('id')
  return inserted.length > 0
}

/** The bench is there from the first start: windows open it, and nobody makes it. */
export async function ensureBench(db: Knex): Promise<void> {
  await insertJob(db, BENCH_ID, emptyJob(BENCH_NAME))
}

export async function noteWeight(db: Knex, id: string, weight: number): Promise<void> {
  await db('jobs').where({ id }).update({ weight })
}

export async function setArchived(db: Knex, id: string, archived: boolean): Promise<boolean> {
  return await db('jobs').where({ id }).whereNull('deleted_at').update({ archived_at: archived ? db.fn.now() : null }) > 0
}

export async function deleteJobs(db: Knex, ids: string[]): Promise<void> {
  await db('jobs').whereIn('id', ids).delete()
}

export interface NewEdit extends StampedEdit { seq: number, inverse: Edit, isInDocument: boolean }

export interface NewRevision { revision: number, name: string, weight: number, job?: Job, documentStands: boolean }

/**
 * Puts edits in, notes the new revision and tells every server of it, all in one statement: the job is locked meanwhile. With
 * `job`, its document is written too; with `documentStands`, the one that is there is as new as the revision.
 */
export async function commitRevision(trx: Knex.Transaction, jobId: string, edits: readonly NewEdit[], to: NewRevision): Promise<void> {
  const document = to.job ? ', document = :document::jsonb, version = :version, document_revision = :revision' : to.documentStands ? ', document_revision = :revision' : ''
  await trx.raw(`
    with put as (
      insert into edits (job_id, seq, id, by, who, undoes, edit, inverse, version, in_document)
      select :jobId, seq, id, by, who, undoes, edit, inverse, :version, "isInDocument"
      from jsonb_to_recordset(:edits::jsonb) as e(seq integer, id text, by text, who text, undoes text, edit jsonb, inverse jsonb, "isInDocument" boolean)
    ), noted as (
      update jobs set revision = :revision, name = :name, weight = :weight, updated_at = now()${document} where id = :jobId
    )
    select pg_notify(:channel, :message)`,
  {
    jobId, version: FORMAT_VERSION, edits: JSON.stringify(edits), revision: to.revision, name: to.name, weight: to.weight, channel: CHANGES_CHANNEL,
    message: JSON.stringify({ jobId, revision: to.revision }), ...(to.job ? { document: written(to.job) } : {}),
  })
}

/** Edits after a revision, as they are told to a window: see EditEntry for what is left out. */
export async function editsSince(db: Knex, jobId: string, since: number, most: number, by: string, justSent: string[]): Promise<EditEntry[]> {
  const { rows } = await db.raw<{ rows: (EditEntry & { version: number })[] }>(`
    select seq, id, by, who, undoes, version, case when id = any(:justSent::varchar[]) then null else edit end as edit, case when by = :by then inverse end as inverse
    from edits where job_id = :jobId and seq > :since order by seq limit :most`, { jobId, since, most, by, justSent })
  const up = (edit: Edit | null, version: number) => edit && upgradedEdit(edit, version) as Edit
  return rows.map(({ version, edit, inverse, ...rest }) => ({ ...rest, edit: up(edit, version), inverse: up(inverse, version) }))
}

/** Edits of the document between two revisions, `after` not included: what brings an older document up to date. */
export async function documentEdits(db: Knex, jobId: string, after: number, upTo: number): Promise<Edit[]> {
  const rows = await db('edits').select('edit', 'version').where({ job_id: jobId, in_document: true }).andWhere('seq', '>', after).andWhere('seq', '<=', upTo)
    .orderBy('seq') as { edit: unknown, version: number }[]
  return rows.map(row => upgradedEdit(row.edit, row.version) as Edit)
}

/** The newest edits of one window, oldest of them first. */
export async function lastEditsOf(db: Knex, jobId: string, by: string, most: number): Promise<LogEntry[]> {
  type Row = Omit<LogEntry, 'at'> & { version: number, at: Date }
  const rows = await db('edits').select('id', 'by', 'who', 'undoes', 'edit', 'inverse', 'version', 'at').where({ job_id: jobId, by })
    .orderBy('seq', 'desc').limit(most) as Row[]
  const up = (edit: Edit, version: number) => upgradedEdit(edit, version) as Edit
  return rows.reverse()
    .map(({ version, edit, inverse, at, ...rest }) => ({ ...rest, at: at.getTime(), edit: up(edit, version), inverse: up(inverse, version) }))
}

/** Tells every server on this database that a job changed; delivered when the transaction commits. */
export async function notifyChanged(db: Knex, jobId: string, revision: number): Promise<void> {
  await db.raw('select pg_notify(?, ?)', [CHANGES_CHANNEL, JSON.stringify({ jobId, revision })])
}

export async function readSetting(db: Knex, key: string): Promise<unknown> {
  const row = await db('settings').select('value').where({ key }).first() as { value: unknown } | undefined
  return row?.value ?? null
}

export async function writeSetting(db: Knex, key: string, value: unknown): Promise<void> {
  await db('settings').insert({ key, value: JSON.stringify(value) }).onConflict('key').merge()
}
