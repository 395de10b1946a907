import type { Knex } from 'knex'
import type { Placed, Records } from '#core/job/records'
import type { Reading, Repair } from '#core/job/schema'

/** All SQL about what only grows: readings and repairs. A kind of record is one table described here. */

interface Withdrawable extends Placed { withdrawn: boolean }

interface Table {
  name: 'readings' | 'repairs'
  /** Column, key of the entry, type of the column. In the order of the schema: files are written in it. */
  columns: readonly (readonly [column: string, key: string, type: string])[]
}
const READINGS: Table = {
  name: 'readings',
  columns: [
    ['id', 'id', 'text'], ['at', 'at', 'text'], ['kind', 'kind', 'text'], ['output_id', 'outputId', 'text'], ['node_id', 'nodeId', 'text'], ['value', 'value', 'jsonb'],
    ['note', 'note', 'text'], ['supersedes', 'supersedes', 'text'], ['taken', 'taken', 'jsonb'],
    ['withdrawn', 'withdrawn', 'boolean'],
  ],
}
const REPAIRS: Table = {
  name: 'repairs',
  columns: [
    ['id', 'id', 'text'], ['at', 'at', 'text'], ['output_id', 'outputId', 'text'], ['node_id', 'nodeId', 'text'], ['fault', 'fault', 'text'], ['note', 'note', 'text'],
    ['withdrawn', 'withdrawn', 'boolean'],
  ],
}

const objectOf = ({ columns }: Table) => `json_build_object(${columns.map(([column, key]) => `'${key}', ${column}`).join(', ')})`
const keysOf = ({ columns }: Table) => columns.map(([column, key]) => `${column} as "${key}"`).join(', ')

/** Entries of a job as a JSON list in pieces, made by the database: 20,000 readings pass through without being looked at here. */
async function textOf(db: Knex, table: Table, jobId: string): Promise<string[]> {
  const pieces: string[] = []
  for (let from = 0; ; from += TEXT_PIECE) {
    const { rows: [piece] } = await db.raw<{ rows: { list: string | null }[] }>(
      `select json_agg(e)::text as list from (select ${keysOf(table)} from ${table.name} where job_id = ? and no > ? and no <= ? order by no) e`, [jobId, from, from + TEXT_PIECE])
    // Numbers are without a gap: an empty piece is the end.
    if (!piece!.list) return ['[', ...pieces, ']']
    pieces.push(pieces.length > 0 ? ',' : '', piece!.list.slice(1, -1))
  }
}
/** Entries in one piece of text, so that no piece holds up what else the server does. */
const TEXT_PIECE = 4000
export const readingsText = (db: Knex, jobId: string) => textOf(db, READINGS, jobId)
export const repairsText = (db: Knex, jobId: string) => textOf(db, REPAIRS, jobId)

async function ofLine<T>(db: Knex, table: Table, jobId: string, outputId: string): Promise<T[]> {
  const { rows } = await db.raw<{ rows: T[] }>(`select ${keysOf(table)} from ${table.name} where job_id = ? and output_id = ? order by no`, [jobId, outputId])
  return rows
}
export const readingsOfLine = (db: Knex, jobId: string, outputId: string) => ofLine<Reading>(db, READINGS, jobId, outputId)
export const repairsOfLine = (db: Knex, jobId: string, outputId: string) => ofLine<Repair>(db, REPAIRS, jobId, outputId)

/** Lines that have any reading or repair. */
export async function linesWithRecords(db: Knex, jobId: string): Promise<Set<string>> {
  const { rows } = await db.raw<{ rows: { output_id: string }[] }>('select distinct output_id from readings where job_id = :jobId union select output_id from repairs where job_id = :jobId', { jobId })
  return new Set(rows.map(r => r.output_id))
}

async function entriesOf<T>(db: Knex, table: Table, jobId: string, where: string, ids: readonly string[]): Promise<T[]> {
  if (ids.length === 0) return []
  const { rows } = await db.raw<{ rows: T[] }>(`select ${keysOf(table)} from ${table.name} where job_id = ? and ${where} order by no`, [jobId, [...ids] as never])
  return rows
}

/** What a job has of the readings, repairs and edits of these ids, and how many readings and repairs there are of all. */
export interface Mentioned {
  readings: Reading[]
  repairs: Repair[]
  readingCount: number
  repairCount: number
  edits: { id: string, edit: unknown, version: number }[]
}

/**
 * One question for all that taking edits in needs to know: each costs a way to the database and back while the job is locked.
 * Entries are never taken out, so the newest number is their count.
 */
export async function mentioned(db: Knex, jobId: string, recordIds: string[], editIds: string[]): Promise<Mentioned> {
  const { rows: [found] } = await db.raw<{ rows: Mentioned[] }>(`
    select
      coalesce((select json_agg(${objectOf(READINGS)} order by no) from readings where job_id = :jobId and id = any(:recordIds::varchar[])), '[]') as readings,
      coalesce((select json_agg(${objectOf(REPAIRS)} order by no) from repairs where job_id = :jobId and id = any(:recordIds::varchar[])), '[]') as repairs,
      coalesce((select max(no) from readings where job_id = :jobId), 0) as "readingCount",
      coalesce((select max(no) from repairs where job_id = :jobId), 0) as "repairCount",
      coalesce((select json_agg(json_build_object('id', id, 'edit', edit, 'version', version)) from edits where job_id = :jobId and id = any(:editIds::varchar[])), '[]') as edits`,
  { jobId, recordIds, editIds })
  return found!
}

/**
 * Of corrections: the readings that they correct, and what else corrects the same. Asked apart, and only where there are any: in
 * one question with the rest the database looked through all readings of the job (20,000: 15 ms an edit).
 */
export async function alsoCorrecting(db: Knex, jobId: string, corrected: readonly string[]): Promise<Reading[]> {
  const rivals = await entriesOf<Reading>(db, READINGS, jobId, 'not withdrawn and supersedes = any(?::varchar[])', corrected)
  return [...await entriesOf<Reading>(db, READINGS, jobId, 'id = any(?::varchar[])', corrected), ...rivals]
}

async function insert(db: Knex, table: Table, jobId: string, entries: readonly object[], from: number): Promise<void> {
  if (entries.length === 0) return
  const names = table.columns.map(([column]) => column).join(', ')
  const values = table.columns.map(([, key]) => `"${key}"`).join(', ')
  const types = table.columns.map(([, key, type]) => `"${key}" ${type}`).join(', ')
  await db.raw(`insert into ${table.name} (job_id, no, ${names}) select ?, no, ${values} from jsonb_to_recordset(?::jsonb) as e(no integer, ${types}) order by no`,
    [jobId, JSON.stringify(entries.map((entry, k) => ({ ...entry, no: from + k + 1 })))])
}
export const insertReadings = (db: Knex, jobId: string, entries: readonly Reading[], from = 0) => insert(db, READINGS, jobId, entries, from)
export const insertRepairs = (db: Knex, jobId: string, entries: readonly Repair[], from = 0) => insert(db, REPAIRS, jobId, entries, from)

async function withdraw(db: Knex, table: Table, jobId: string, ids: string[], withdrawn: boolean): Promise<void> {
  if (ids.length > 0) await db.raw(`update ${table.name} set withdrawn = ? where job_id = ? and id = any(?)`, [withdrawn, jobId, ids])
}

/** Entries before and after, and the ids of those that edits added or changed, in order. */
export interface Written<T extends Placed> { before: Records<T>, after: Records<T>, touched: readonly string[] }

/** Writes what edits did to a job's entries: new ones are put in, known ones are only ever withdrawn or brought back. */
async function write<T extends Withdrawable>(db: Knex, table: Table, jobId: string, { before, after, touched }: Written<T>): Promise<void> {
  const ids = [...new Set(touched)]
  const isKnown = (id: string) => before.get(id) !== undefined
  const known = ids.filter(isKnown).map(id => after.get(id)!)
  // Withdrawn first: what takes the place of a withdrawn correction may come in the same request.
  await withdraw(db, table, jobId, known.filter(e => e.withdrawn).map(e => e.id), true)
  await withdraw(db, table, jobId, known.filter(e => !e.withdrawn).map(e => e.id), false)
  await insert(db, table, jobId, ids.filter(id => !isKnown(id)).map(id => after.get(id)!), before.size)
}
export const writeReadings = (db: Knex, jobId: string, written: Written<Reading>) => write(db, READINGS, jobId, written)
export const writeRepairs = (db: Knex, jobId: string, written: Written<Repair>) => write(db, REPAIRS, jobId, written)
