import { devices } from '../../door/repository'
import { entrance } from '../../door/entrance'
import { route } from '../../http/route'

/** Every device that was let in, and where others come in. */
export default route(async (_, db) => ({ devices: await devices(db), entrance: entrance() }))
