import type { Knex } from 'knex'

/** What is too much for the process that answers everybody. */

/** A body of so many bytes takes some 10 ms to be read and judged. */
export const HEAVY_BODY = 250_000
/** A job of so many bytes is some three hundred speakers: its longest line is evaluated in 5 ms. */
export const HEAVY_JOB = 150_000

const JOB = /^\/api\/jobs\/([0-9a-f-]{36})(?:[/?]|$)/i
/** Every model of a kind, whole: ten thousand at most. */
const WHOLE_LIBRARY = /^\/api\/gear\/(?:whole|file)\?/

interface Asked { method: string, path: string, contentLength: string | undefined, isChunked: boolean }

/** Whether a request is heavy by what it says of itself; the id of a job where that decides. */
export function weighed({ method, path, contentLength, isChunked }: Asked): boolean | string {
  if (method !== 'GET' && (isChunked || Number(contentLength ?? 0) > HEAVY_BODY)) return true
  if (WHOLE_LIBRARY.test(path)) return true
  return method === 'PATCH' ? false : JOB.exec(path)?.[1]?.toLowerCase() ?? false
}

/** Jobs change slowly: what was asked a moment ago still holds. */
const KNOWN_MS = 5000
const MOST_KNOWN = 2000
const known = new Map<string, { at: number, isHeavy: boolean }>()

/** Whether a job is heavy. One that was never measured is told from what its document takes in the database, packed. */
export async function isHeavyJob(db: Knex, id: string, now = Date.now()): Promise<boolean> {
  const before = known.get(id)
  if (before && now - before.at < KNOWN_MS) return before.isHeavy
  const row = await db('jobs').select(db.raw('coalesce(weight, 8 * pg_column_size(document)) as bytes')).where({ id }).first<{ bytes: string } | undefined>()
  const isHeavy = Number(row?.bytes ?? 0) > HEAVY_JOB
  if (known.size >= MOST_KNOWN) known.clear()
  known.set(id, { at: now, isHeavy })
  return isHeavy
}
