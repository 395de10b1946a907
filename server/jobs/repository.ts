import type { Knex } from 'knex'
import type { Job } from '#core/job/schema'
import type { EditEntry } from '#core/job/wire'

/** All SQL about jobs and their edits. No rules of the trade here. */

export interface JobRow { id: string, revision: number, document: Job, archivedAt: string | null, updatedAt: string }

interface RawJob { id: string, revision: number, document: Job, archived_at: Date | null, updated_at: Date }

const toRow = (raw: RawJob): JobRow => ({
  id: raw.id, revision: raw.revision, document: raw.document,
  archivedAt: raw.archived_at?.toISOString() ?? null, updatedAt: raw.updated_at.toISOString(),
})

const JOB_COLUMNS = ['id', 'revision', 'document', 'archived_at', 'updated_at'] as const

export async function listRevisions(db: Knex): Promise<Omit<JobRow, 'document'>[]> {
  const rows = await db('jobs').select('id', 'revision', 'archived_at', 'updated_at').orderBy('updated_at', 'desc') as RawJob[]
  return rows.map((raw) => {
    const { document: _, ...row } = toRow(raw)
    return row
  })
}

export async function findJob(db: Knex, id: string): Promise<JobRow | null> {
  const raw = await db('jobs').select(JOB_COLUMNS).where({ id }).first() as RawJob | undefined
  return raw ? toRow(raw) : null
}

export async function findJobs(db: Knex, ids: string[]): Promise<JobRow[]> {
  if (ids.length === 0) return []
  const rows = await db('jobs').select(JOB_COLUMNS).whereIn('id', ids) as RawJob[]
  return rows.map(toRow)
}

/** Locks the job until the transaction ends: edits are numbered one after the other. */
export async function lockJob(trx: Knex.Transaction, id: string): Promise<JobRow | null> {
  const raw = await trx('jobs').select(JOB_COLUMNS).where({ id }).forUpdate().first() as RawJob | undefined
  return raw ? toRow(raw) : null
}

/** Puts a new job in; false when its id is there already. */
export async function insertJob(db: Knex, id: string, document: Job): Promise<boolean> {
  const inserted = await db('jobs').insert({ id, document: JSON.stringify(document) }).onConflict('id').ignore().returning('id')
  return inserted.length > 0
}

export async function updateJob(trx: Knex.Transaction, id: string, revision: number, document: Job): Promise<void> {
  await trx('jobs').where({ id }).update({ revision, document: JSON.stringify(document), updated_at: trx.fn.now() })
}

export async function setArchived(db: Knex, id: string, archived: boolean): Promise<boolean> {
  return await db('jobs').where({ id }).update({ archived_at: archived ? db.fn.now() : null }) > 0
}

export async function deleteJobs(db: Knex, ids: string[]): Promise<void> {
  await db('jobs').whereIn('id', ids).delete()
}

export async function knownEdits(trx: Knex, jobId: string, ids: string[]): Promise<Map<string, number>> {
  const rows = await trx('edits').select('id', 'seq').where({ job_id: jobId }).whereIn('id', ids) as { id: string, seq: number }[]
  return new Map(rows.map(row => [row.id, row.seq]))
}

export async function insertEdit(trx: Knex.Transaction, jobId: string, entry: Omit<EditEntry, 'at'>): Promise<void> {
  await trx('edits').insert({
    job_id: jobId, seq: entry.seq, id: entry.id, by: entry.by, undoes: entry.undoes, edit: JSON.stringify(entry.edit), inverse: JSON.stringify(entry.inverse),
  })
}

interface RawEdit extends Omit<EditEntry, 'at'> { at: Date }
const EDIT_COLUMNS = ['seq', 'id', 'by', 'undoes', 'edit', 'inverse', 'at'] as const
const toEntry = (raw: RawEdit): EditEntry => ({ ...raw, at: raw.at.toISOString() })

export async function editsSince(db: Knex, jobId: string, since: number, most: number): Promise<EditEntry[]> {
  const rows = await db('edits').select(EDIT_COLUMNS).where({ job_id: jobId }).andWhere('seq', '>', since).orderBy('seq').limit(most) as RawEdit[]
  return rows.map(toEntry)
}

/** The newest edits, oldest of them first. */
export async function lastEdits(db: Knex, jobId: string, most: number): Promise<EditEntry[]> {
  const rows = await db('edits').select(EDIT_COLUMNS).where({ job_id: jobId }).orderBy('seq', 'desc').limit(most) as RawEdit[]
  return rows.reverse().map(toEntry)
}

/** Tells every server on this database that a job changed; delivered when the transaction commits. */
export async function notifyChanged(db: Knex, jobId: string, revision: number): Promise<void> {
  await db.raw('select pg_notify(?, ?)', [CHANGES_CHANNEL, JSON.stringify({ jobId, revision })])
}
export const CHANGES_CHANNEL = 'plain_match_changes'

export async function readSetting(db: Knex, key: string): Promise<unknown> {
  const row = await db('settings').select('value').where({ key }).first() as { value: unknown } | undefined
  return row?.value ?? null
}

export async function writeSetting(db: Knex, key: string, value: unknown): Promise<void> {
  await db('settings').insert({ key, value: JSON.stringify(value) }).onConflict('key').merge()
}
