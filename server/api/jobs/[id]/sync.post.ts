import { z } from 'zod'
import { stampedEditSchema } from '#core/job/edits'
import { jobIdOf, noSuchJob, readJson, route } from '../../../http/route'
import { syncJob } from '../../../jobs/service'

const body = z.strictObject({ since: z.int().min(0).max(2 ** 31 - 1), edits: z.array(stampedEditSchema).max(500) })

/** Takes a window's edits and answers with all it has not seen. */
export default route(async (event, db) => {
  const id = jobIdOf(event)
  const { since, edits } = await readJson(event, body)
  const answer = await syncJob(db, id, since, edits)
  if (!answer) throw noSuchJob()
  return answer
})
