import { refuse } from '../refusal'
import type { Job } from '../schema'
import { someId } from '../tree'

/** Refuses ids that stand in the job already, or twice in the list. One walk over the wiring, nothing is gathered. */
export function noneTaken(job: Job, ids: readonly string[]): void {
  const wanted = new Set<string>()
  for (const id of ids) {
    if (wanted.has(id) || job.readings.get(id) || job.repairs.get(id)) refuse({ code: 'already-there', id })
    wanted.add(id)
  }
  const taken = someId(job, id => wanted.has(id))
  if (taken !== null) refuse({ code: 'already-there', id: taken })
}
