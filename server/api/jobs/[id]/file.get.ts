import { setHeader } from 'h3'
import { fileNameOf, writeJobFile } from '#core/format/plainMatch'
import { readJob } from '#core/job/readJob'
import { jobIdOf, noSuchJob, route } from '../../../http/route'
import { openJob } from '../../../jobs/service'

export default route(async (event, db) => {
  const opened = await openJob(db, jobIdOf(event))
  if (!opened) throw noSuchJob()
  setHeader(event, 'content-type', 'application/json; charset=utf-8')
  setHeader(event, 'content-disposition', `attachment; filename="${fileNameOf(opened.job)}"`)
  // Read through the schema once more: it also puts the keys back in their order.
  return writeJobFile(readJob(opened.job))
})
