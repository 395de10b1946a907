import { resultSchema } from '#core/practice/result'
import { deviceIdOf } from '../../door/asker'
import { readJson, route } from '../../http/route'
import { keepResult } from '../../practice/repository'

/** Keeps a play that came to an end. */
export default route(async (event, db) => {
  await keepResult(db, deviceIdOf(event), await readJson(event, resultSchema))
  return { kept: true }
})
