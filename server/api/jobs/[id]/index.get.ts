import { setHeader } from 'h3'
import { jobIdOf, noSuchJob, route } from '../../../http/route'
import { openJobText } from '../../../jobs/service'

export default route(async (event, db) => {
  const opened = await openJobText(db, jobIdOf(event))
  if (!opened) throw noSuchJob()
  setHeader(event, 'content-type', 'application/json; charset=utf-8')
  return opened
})
