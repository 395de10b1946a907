import { problem } from '../../../http/problem'
import { jobIdOf, noSuchJob, route } from '../../../http/route'
import { deleteJob } from '../../../jobs/summaries'

export default route(async (event, db) => {
  const outcome = await deleteJob(db, jobIdOf(event))
  if (outcome === 'not-there') throw noSuchJob()
  if (outcome === 'in-hand') throw problem(409, 'in-hand', 'Only a job that is empty or archived can be deleted. Archive it first.')
  return { deleted: true }
})
