import { readJson, route } from '../../http/route'
import { setRetired } from '../../gear/repository'
import { noSuchModel, retiring } from '../../gear/request'

/** Takes models out of what is offered, or back in, all or none; nothing is lost, and twice is once. */
export default route(async (event, db) => {
  const { ids, retired } = await readJson(event, retiring)
  if (!await setRetired(db, ids, retired)) throw noSuchModel()
  return { retired }
})
