import { meters } from '../../meter/repository'
import { route } from '../../http/route'

/** Meters that are reached by a wire. */
export default route(async (_, db) => ({ meters: await meters(db) }))
