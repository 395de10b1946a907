import { hereSchema } from '#core/door/here'
import { deviceIdOf } from '../../../door/asker'
import { beat } from '../../../here/presence'
import { jobIdOf, readJson, route } from '../../../http/route'

const MOST_BYTES = 1000

/** A window says where in a job it is, and hears who else is there. */
export default route(async (event, db) => {
  const id = jobIdOf(event)
  const { by, place } = await readJson(event, hereSchema, MOST_BYTES)
  return { others: await beat(db, id, by, deviceIdOf(event), place) }
})
