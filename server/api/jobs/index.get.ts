import { route } from '../../http/route'
import { listJobs } from '../../jobs/service'

export default route(async (_event, db) => ({ jobs: await listJobs(db) }))
