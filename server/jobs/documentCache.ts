import type { Knex } from 'knex'
import { applyInSteps } from '#core/job/apply'
import { fromDocument, NO_ROWS } from '#core/job/document'
import { together, type Edit } from '#core/job/edits'
import { documentParts } from '#core/job/parts'
import type { Job, JobDocument } from '#core/job/schema'
import { upgradedDocument } from '#core/job/upgrade'
import { inSlices } from './slices'
import { documentEdits, readDocument, type JobRow } from './repository'

/**
 * Documents of jobs in memory, without their rows, each at its revision. A server may hold an old one, since another server
 * took edits in: the edits since bring it up. So nothing here need ever be told of a change, and to forget is always right.
 */
interface Held { createdAt: string, revision: number, job: Job }

const MOST_HELD = 100
const held = new Map<string, Held>()

/** The document of a job at the revision of `row`, without readings and repairs. */
export async function documentAt(db: Knex, row: JobRow): Promise<Job> {
  const before = held.get(row.id)
  const base = before && before.createdAt === row.createdAt && before.revision <= row.revision ? before : await stored(db, row)
  const edits = base.revision < row.revision ? await documentEdits(db, row.id, base.revision, row.revision) : []
  const job = edits.length > 0 ? await inSlices(replayed(base.job, edits)) : base.job
  hold(row, row.revision, job)
  return job
}

/** Remembers a document. To be called only with what the database has. */
export function hold({ id, createdAt }: Pick<JobRow, 'id' | 'createdAt'>, revision: number, job: Job): void {
  held.delete(id)
  held.set(id, { createdAt, revision, job })
  if (held.size > MOST_HELD) held.delete(held.keys().next().value!)
}

async function stored(db: Knex, row: JobRow): Promise<Held> {
  const found = await readDocument(db, row.id)
  if (!found) throw new Error(`the document of job ${row.id} is gone`)
  const { data } = upgradedDocument({ ...found.document as object, ...NO_ROWS })
  return { createdAt: row.createdAt, revision: found.documentRevision, job: fromDocument(data as JobDocument) }
}

function* replayed(job: Job, edits: readonly Edit[]): Generator<void, Job> {
  let current = job
  for (const edit of edits) {
    const parts = together(documentParts(edit))
    if (parts) current = (yield* applyInSteps(current, parts, 'taken')).job
  }
  return current
}
