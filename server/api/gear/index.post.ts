import { readJson, route } from '../../http/route'
import { insertModels } from '../../gear/repository'
import { bodyOf, newModels } from '../../gear/request'

/** Models more, all or none. Ids are the caller's: a request sent twice makes each once. */
export default route(async (event, db) => {
  const { models } = await readJson(event, newModels)
  return { made: await insertModels(db, models.map(({ id, kind, body }, k) => ({ id, kind, body: bodyOf(kind, body, `models[${k}].body`) }))) }
})
