import { z } from 'zod'
import { jobIdOf, noSuchJob, readJson, route } from '../../../http/route'
import { archiveJob } from '../../../jobs/service'

export default route(async (event, db) => {
  const { archived } = await readJson(event, z.strictObject({ archived: z.boolean() }))
  if (!await archiveJob(db, jobIdOf(event), archived)) throw noSuchJob()
  return { archived }
})
