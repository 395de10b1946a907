import { deviceIdOf } from '../../door/asker'
import { route } from '../../http/route'
import { resultsOf } from '../../practice/repository'

/** How far somebody has come in practice. */
export default route(async (event, db) => ({ results: await resultsOf(db, deviceIdOf(event)) }))
