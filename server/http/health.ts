import { route } from './route'

/** Well only when the database is migrated and answers; anything else is 503. The process tells whoever started it that it is its own. */
export const health = route(async (_event, db) => {
  await db.raw('select 1')
  return { ok: true, pid: process.pid }
})
