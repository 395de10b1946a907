import { z } from 'zod'
import { jobIdOf, readJson, route } from '../../../http/route'
import { setRetired } from '../../../gear/repository'
import { noSuchModel } from '../../../gear/request'

/** Takes a model out of what is offered, or back in; nothing is lost. */
export default route(async (event, db) => {
  const { retired } = await readJson(event, z.strictObject({ retired: z.boolean() }))
  if (!await setRetired(db, [jobIdOf(event)], retired)) throw noSuchModel()
  return { retired }
})
