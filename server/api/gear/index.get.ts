import { z } from 'zod'
import { readQuery, route } from '../../http/route'
import { listModels } from '../../gear/repository'
import { kindSchema } from '../../gear/request'

/** Every model of a kind, as a table shows it. */
export default route(async (event, db) => ({ rows: await listModels(db, readQuery(event, z.strictObject({ kind: kindSchema })).kind) }))
