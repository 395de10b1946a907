import type { Knex } from 'knex'
import { BENCH_ID } from '#core/job/bench'
import { noRows } from '#core/job/document'
import { outputsOf } from '#core/job/tree'
import { DELETED_KEPT_DAYS, JOB_STATES, JOBS_A_PAGE, type ListQuery } from '#core/job/protocol'
import { aroundOf } from '#core/line/surroundings'
import { gathered, lessonsOf, type Teaches } from '#core/check/lessons'
import { askedOf } from '#core/check/asked'
import { proveLine, type LineProof } from '#core/check/proof'
import { taughtBy } from '#core/check/taught'
import type { Output } from '#core/job/schema'
import { evaluateOutput, type LineEvaluation } from '#core/line/evaluate'
import type { LineState } from '#core/line/jobState'
import { lineStateOf } from '#core/line/lineState'
import { tell, type JobList, type JobSummary, type JobTold } from '#core/line/jobSummary'
import { BUILD } from '../helper/build'
import { helperDoes, isHelper } from '../helper/helper'
import { isHeavyJob } from '../helper/heavy'
import { documentAt } from './documentCache'
import { linesWithRows, rowsOfLine } from './recordRows'
import { findJob, notifyChanged } from './repository'

/**
 * The list of jobs. What a job says of itself is worked out once a revision and kept beside it, so that a list of any length
 * is read, sorted and searched by the database; what has changed since is worked out when somebody looks.
 */

/** Jobs told anew before an answer goes out; what is left is told behind it. */
const MOST_BEFORE_ANSWER = 60

export async function listJobs(db: Knex, query: ListQuery): Promise<JobList> {
  await forgetDeleted(db)
  const { isMore, heavy } = await tellStale(db, MOST_BEFORE_ANSWER)
  if (isMore) void tellAll(db)
  for (const id of heavy) void tellApart(db, id)
  const [jobs, total, counts] = await Promise.all([pageOf(db, query), totalOf(db, query), countsOf(db)])
  return { jobs, total, counts }
}

function matching(db: Knex, { place, search, state }: ListQuery): Knex.QueryBuilder {
  const found = db('jobs').whereNot({ id: BENCH_ID })
  if (place === 'deleted') found.whereNotNull('deleted_at')
  else found.whereNull('deleted_at')[place === 'archived' ? 'whereNotNull' : 'whereNull']('archived_at')
  for (const word of search.trim().split(/\s+/).filter(Boolean)) found.whereRaw('name ilike ?', [`%${word.replace(/[\\%_]/g, '\\$&')}%`])
  if (state) found.where({ state: JOB_STATES.indexOf(state) })
  return found
}

async function pageOf(db: Knex, query: ListQuery): Promise<JobSummary[]> {
  interface Raw { id: string, name: string, revision: number, archived_at: Date | null, deleted_at: Date | null, updated_at: Date, told: JobTold | null }
  // What was told of another revision, or by another build, is not said of this one.
  const told = db.raw('case when summary_revision = revision and summary_build = ? then summary end as told', [BUILD])
  const found = matching(db, query).select('id', 'name', 'revision', 'archived_at', 'deleted_at', 'updated_at', told)
  if (query.sort === 'name') found.orderByRaw('lower(name)')
  if (query.sort === 'state') found.orderByRaw('state nulls last')
  const rows = await found.orderBy([{ column: 'updated_at', order: 'desc' }, 'id']).limit(JOBS_A_PAGE).offset(query.page * JOBS_A_PAGE) as Raw[]
  return rows.map(raw => ({
    id: raw.id, name: raw.name, revision: raw.revision, archivedAt: raw.archived_at?.toISOString() ?? null, deletedAt: raw.deleted_at?.toISOString() ?? null,
    updatedAt: raw.updated_at.toISOString(), ...(raw.told ?? { sentence: 'Being looked at…', state: 'open', lines: [], spaces: null, again: null }),
  }))
}

async function totalOf(db: Knex, query: ListQuery): Promise<number> {
  const row = await matching(db, query).count('* as count').first() as { count: string }
  return Number(row.count)
}

async function countsOf(db: Knex): Promise<JobList['counts']> {
  const { rows: [counts] } = await db.raw<{ rows: Record<string, string>[] }>(`
    select count(*) filter (where deleted_at is null and archived_at is null) as active,
      count(*) filter (where deleted_at is null and archived_at is not null) as archived, count(*) filter (where deleted_at is not null) as deleted from jobs where id <> ?`, [BENCH_ID])
  return { active: Number(counts!.active), archived: Number(counts!.archived), deleted: Number(counts!.deleted) }
}

/** Tells jobs that have changed since they were told, newest first; whether some are left, and those that are too heavy to be waited for. */
async function tellStale(db: Knex, most: number): Promise<{ isMore: boolean, heavy: string[] }> {
  const { rows } = await db.raw<{ rows: { id: string }[] }>(
    'select id from jobs where id <> ? and deleted_at is null and (summary_revision is distinct from revision or summary_build is distinct from ?) order by updated_at desc limit ?', [BENCH_ID, BUILD, most + 1])
  const heavy: string[] = []
  for (const { id } of rows.slice(0, most)) {
    if (!isHelper && await isHeavyJob(db, id)) heavy.push(id)
    else await tellJob(db, id)
  }
  return { isMore: rows.length > most, heavy }
}

const apart = new Set<string>()
/** Has a heavy job told by the helper, once at a time. Whoever looks at the list hears when it is. */
async function tellApart(db: Knex, id: string): Promise<void> {
  if (apart.has(id)) return
  apart.add(id)
  try {
    if (!await helperDoes({ tell: id })) await tellJob(db, id)
    await notifyChanged(db, id, (await findJob(db, id))?.revision ?? -1)
  }
  catch {
    // The database is away: whoever looks next tells it.
  }
  finally {
    apart.delete(id)
  }
}

let telling = false
async function tellAll(db: Knex): Promise<void> {
  if (telling) return
  telling = true
  try {
    for (let isMore = true; isMore;) {
      const stale = await tellStale(db, MOST_BEFORE_ANSWER)
      for (const id of stale.heavy) await tellApart(db, id)
      isMore = stale.isMore
    }
  }
  catch {
    // The database is away: whoever looks next tells them.
  }
  finally {
    telling = false
  }
}

/** A line at a time: each is a few milliseconds, and others have their turn between two. */
export async function tellJob(db: Knex, id: string): Promise<void> {
  const row = await findJob(db, id)
  if (!row) return
  const job = await documentAt(db, row)
  const written = await linesWithRows(db, id)
  const lines: { line: LineEvaluation, proof: LineProof }[] = []
  const teaches: Teaches[] = []
  const asked = askedOf(job)
  const rowsOf = async (output: Output) => written.has(output.id) ? await rowsOfLine(db, id, output.id) : noRows()
  for (const output of outputsOf(job)) {
    const line = evaluateOutput(output, aroundOf(job, output.id))
    const proof = proveLine(await rowsOf(output), output, line.predicted, asked)
    lines.push({ line, proof })
    const taught = taughtBy(output, proof)
    if (taught) teaches.push(taught)
    await new Promise(resolve => setImmediate(resolve))
  }
  const states: LineState[] = []
  const taught = gathered(teaches)
  for (const { line, proof } of lines) {
    const lessons = proof.standing.size > 0 ? lessonsOf(line.output, taught) : null
    states.push(lineStateOf(line, lessons ? proveLine(await rowsOf(line.output), line.output, line.predicted, asked, lessons) : proof))
    if (lessons) await new Promise(resolve => setImmediate(resolve))
  }
  const told = tell(states, job)
  await db('jobs').where({ id, revision: row.revision })
    .update({ summary: JSON.stringify(told), state: JOB_STATES.indexOf(told.state), summary_revision: row.revision, summary_build: BUILD })
}

/** Deletes what is empty or archived, to be brought back within the days of grace. False where it is neither. */
export async function deleteJob(db: Knex, id: string): Promise<'deleted' | 'not-there' | 'in-hand'> {
  if (id === BENCH_ID) return 'in-hand'
  const row = await findJob(db, id)
  if (!row) return 'not-there'
  const job = await documentAt(db, row)
  const isEmpty = outputsOf(job).length === 0 && job.spaces.length === 0
  if (!isEmpty && row.archivedAt === null) return 'in-hand'
  const gone = await db('jobs').where({ id, revision: row.revision }).whereNull('deleted_at').update({ deleted_at: db.fn.now() })
  return gone > 0 ? 'deleted' : 'in-hand'
}

export async function bringBack(db: Knex, id: string): Promise<boolean> {
  return await db('jobs').where({ id }).whereNotNull('deleted_at').update({ deleted_at: null }) > 0
}

async function forgetDeleted(db: Knex): Promise<void> {
  await db('jobs').whereRaw(`deleted_at < now() - interval '${DELETED_KEPT_DAYS} days'`).delete()
}
