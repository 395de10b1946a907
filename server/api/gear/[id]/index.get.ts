import { jobIdOf, route } from '../../../http/route'
import { findModel } from '../../../gear/repository'
import { noSuchModel } from '../../../gear/request'

/** A model with all its versions, and the jobs that use it. */
export default route(async (event, db) => {
  const found = await findModel(db, jobIdOf(event))
  if (!found) throw noSuchModel()
  return found
})
