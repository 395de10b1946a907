import { z } from 'zod'
import { JOB_PLACES, JOB_SORTS, JOB_STATES } from '#core/job/protocol'
import { readQuery, route } from '../../http/route'
import { listJobs } from '../../jobs/summaries'

const query = z.strictObject({
  place: z.enum(JOB_PLACES).default('active'),
  search: z.string().max(200).refine(text => !text.includes('\u0000'), 'contains characters that cannot be searched for').default(''),
  state: z.enum(JOB_STATES).nullable().default(null),
  sort: z.enum(JOB_SORTS).default('changed'),
  page: z.coerce.number().int().min(0).max(100_000).default(0),
})

export default route(async (event, db) => listJobs(db, readQuery(event, query)))
