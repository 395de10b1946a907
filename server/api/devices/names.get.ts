import { devices } from '../../door/repository'
import { route } from '../../http/route'

/** Names of all that were ever let in, by id: whose a reading is. */
export default route(async (_, db) => Object.fromEntries((await devices(db)).map(({ id, name }) => [id, name])))
