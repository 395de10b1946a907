import type { Knex } from 'knex'
import { Records, type Placed } from '#core/job/records'
import type { Job, Rows } from '#core/job/schema'
import type { GrowingList } from '#core/job/sections/shapes'
import { TABLES, type Table } from './tables'

/** All SQL about what only grows. Which tables and columns there are follows from the sections (tables.ts). */

type Entry = Placed & { withdrawn: boolean }

const objectOf = ({ columns }: Table) => `json_build_object(${columns.map(({ name, key }) => `'${key}', ${name}`).join(', ')})`
const keysOf = ({ columns }: Table) => columns.map(({ name, key }) => `${name} as "${key}"`).join(', ')
/** One value a list. */
async function eachTable<T>(of: (table: Table) => T | Promise<T>): Promise<Record<GrowingList, T>> {
  const found: [GrowingList, T][] = []
  for (const table of TABLES) found.push([table.name, await of(table)])
  return Object.fromEntries(found) as Record<GrowingList, T>
}

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

/** All entries of a job as JSON text in pieces, by list. */
export const rowsText = (db: Knex, jobId: string) => eachTable(table => textOf(db, table, jobId))

/** Bytes of a job as the database counts them: its document, and its rows with their own columns, which is a little more than a file says. */
export async function measured(db: Knex, jobId: string): Promise<number> {
  const grown = TABLES.map(t => `coalesce((select sum(octet_length(to_jsonb(r)::text)) from ${t.name} r where job_id = :jobId), 0)`)
  const { rows: [job] } = await db.raw<{ rows: { bytes: string }[] }>(`select octet_length(document::text) + ${grown.join(' + ')} as bytes from jobs where id = :jobId`, { jobId })
  return Number(job!.bytes)
}

/** What is written on a ticket stands at no line. */
const isOfLines = ({ columns }: Table) => columns.some(c => c.key === 'outputId')

/** The entries of one line. */
export async function rowsOfLine(db: Knex, jobId: string, outputId: string): Promise<Rows> {
  return await eachTable(async (table) => {
    if (!isOfLines(table)) return Records.of<Entry>()
    const { rows } = await db.raw<{ rows: Entry[] }>(`select ${keysOf(table)} from ${table.name} where job_id = ? and output_id = ? order by no`, [jobId, outputId])
    return Records.of(rows)
  }) as unknown as Rows
}

/** Lines that have any entry. */
export async function linesWithRows(db: Knex, jobId: string): Promise<Set<string>> {
  const all = TABLES.filter(isOfLines).map(table => `select output_id from ${table.name} where job_id = :jobId`)
  const { rows } = await db.raw<{ rows: { output_id: string }[] }>(all.join(' union '), { jobId })
  return new Set(rows.map(r => r.output_id))
}

async function entriesOf(db: Knex, table: Table, jobId: string, where: string, ids: readonly string[]): Promise<Entry[]> {
  if (ids.length === 0) return []
  const { rows } = await db.raw<{ rows: Entry[] }>(`select ${keysOf(table)} from ${table.name} where job_id = ? and ${where} order by no`, [jobId, [...ids] as never])
  return rows
}

/** What a job has of the entries and edits of these ids, and how many entries there are of all, by list. */
export interface Mentioned {
  entries: Record<GrowingList, Entry[]>
  counts: Record<GrowingList, number>
  edits: { id: string, edit: unknown, version: number }[]
}

/**
 * One question for all that taking edits in needs to know: each costs a way to the database and back while the job is locked.
 * Entries are never taken out, so the newest number is their count.
 */
export async function mentioned(db: Knex, jobId: string, entryIds: string[], editIds: string[]): Promise<Mentioned> {
  const entries = TABLES.map(t => `'${t.name}', coalesce((select json_agg(${objectOf(t)} order by no) from ${t.name} where job_id = :jobId and id = any(:entryIds::varchar[])), '[]')`)
  const counts = TABLES.map(t => `'${t.name}', coalesce((select max(no) from ${t.name} where job_id = :jobId), 0)`)
  const { rows: [found] } = await db.raw<{ rows: Mentioned[] }>(`
    select json_build_object(${entries.join(', ')}) as entries, json_build_object(${counts.join(', ')}) as counts,
      coalesce((select json_agg(json_build_object('id', id, 'edit', edit, 'version', version)) from edits where job_id = :jobId and id = any(:editIds::varchar[])), '[]') as edits`,
  { jobId, entryIds, editIds })
  return found!
}

/**
 * Of corrections: the entries that they correct, and what else corrects the same. Asked apart, and only where there are any: in
 * one question with the rest the database looked through all readings of the job (20,000: 15 ms an edit).
 */
async function alsoCorrecting(db: Knex, table: Table, jobId: string, corrected: readonly string[]): Promise<Entry[]> {
  const rivals = await entriesOf(db, table, jobId, `not withdrawn and ${table.growing.corrects} = any(?::varchar[])`, corrected)
  return [...await entriesOf(db, table, jobId, 'id = any(?::varchar[])', corrected), ...rivals]
}

/** The entries that edits are about, with the count of all: as much of what only grows as taking them in needs. */
export async function rowsAround(db: Knex, jobId: string, { entries, counts }: Mentioned, corrected: Record<GrowingList, string[]>): Promise<Rows> {
  return await eachTable(async (table) => {
    const found = entries[table.name]
    const { corrects } = table.growing
    const ids = corrects === null ? [] : [...corrected[table.name], ...found.flatMap(e => (e as unknown as Record<string, string | null>)[corrects] ?? [])]
    const more = ids.length > 0 ? await alsoCorrecting(db, table, jobId, [...new Set(ids)]) : []
    const all = [...new Map([...found, ...more].map(e => [e.id, e])).values()]
    return Records.of(all, counts[table.name] - all.length)
  }) as unknown as Rows
}

async function insert(db: Knex, table: Table, jobId: string, entries: readonly object[], from: number): Promise<void> {
  if (entries.length === 0) return
  const names = table.columns.map(({ name }) => name).join(', ')
  const values = table.columns.map(({ key }) => `"${key}"`).join(', ')
  const types = table.columns.map(({ key, type }) => `"${key}" ${type}`).join(', ')
  await db.raw(`insert into ${table.name} (job_id, no, ${names}) select ?, no, ${values} from jsonb_to_recordset(?::jsonb) as e(no integer, ${types}) order by no`,
    [jobId, JSON.stringify(entries.map((entry, k) => ({ ...entry, no: from + k + 1 })))])
}

const recordsOf = (job: Rows, { name }: Table) => job[name] as unknown as Records<Entry>

/** All entries of a job that comes in whole. */
export async function insertRows(db: Knex, jobId: string, job: Job): Promise<void> {
  for (const table of TABLES) await insert(db, table, jobId, [...recordsOf(job, table)], 0)
}

async function withdraw(db: Knex, table: Table, jobId: string, ids: string[], withdrawn: boolean): Promise<void> {
  if (ids.length > 0) await db.raw(`update ${table.name} set withdrawn = ? where job_id = ? and id = any(?)`, [withdrawn, jobId, ids])
}

/** Writes what edits did to a job's entries: new ones are put in, known ones are only ever withdrawn or brought back. `touched`: their ids, in order. */
export async function writeRows(db: Knex, jobId: string, before: Rows, after: Rows, touched: readonly Record<GrowingList, string[]>[]): Promise<void> {
  for (const table of TABLES) {
    const [was, is] = [recordsOf(before, table), recordsOf(after, table)]
    const ids = [...new Set(touched.flatMap(t => t[table.name]))]
    const isKnown = (id: string) => was.get(id) !== undefined
    const known = ids.filter(isKnown).map(id => is.get(id)!)
    // Withdrawn first: what takes the place of a withdrawn correction may come in the same request.
    await withdraw(db, table, jobId, known.filter(e => e.withdrawn).map(e => e.id), true)
    await withdraw(db, table, jobId, known.filter(e => !e.withdrawn).map(e => e.id), false)
    await insert(db, table, jobId, ids.filter(id => !isKnown(id)).map(id => is.get(id)!), was.size)
  }
}
