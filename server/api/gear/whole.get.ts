import { z } from 'zod'
import { readQuery, route } from '../../http/route'
import { newestOf } from '../../gear/repository'
import { kindSchema } from '../../gear/request'

/** Every model of a kind that is offered, whole: what a search among all of them asks for. */
export default route(async (event, db) => ({ models: await newestOf(db, readQuery(event, z.strictObject({ kind: kindSchema })).kind) }))
