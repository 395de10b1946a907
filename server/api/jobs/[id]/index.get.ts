import { jobIdOf, noSuchJob, route } from '../../../http/route'
import { openJob } from '../../../jobs/service'

export default route(async (event, db) => {
  const opened = await openJob(db, jobIdOf(event))
  if (!opened) throw noSuchJob()
  return opened
})
