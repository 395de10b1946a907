import { route } from '../http/route'

export default route(async (_event, db) => {
  await db.raw('select 1')
  return { ok: true }
})
