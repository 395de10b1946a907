import { z } from 'zod'
import { jobIdOf, noSuchJob, readJson, route } from '../../../http/route'
import { archiveJob } from '../../../jobs/service'
import { bringBack } from '../../../jobs/summaries'

const body = z.union([z.strictObject({ archived: z.boolean() }), z.strictObject({ deleted: z.literal(false) })])

/** Puts a job away and brings it back: from the archive, or from what was deleted. */
export default route(async (event, db) => {
  const id = jobIdOf(event)
  const wanted = await readJson(event, body)
  const found = 'archived' in wanted ? await archiveJob(db, id, wanted.archived) : await bringBack(db, id)
  if (!found) throw noSuchJob()
  return wanted
})
