import { refuse } from '../refusal'
import type { Job } from '../schema'
import { isInWiring } from '../tree'

/** Refuses ids that stand in the job already, or twice in the list. */
export function noneTaken(job: Job, ids: readonly string[]): void {
  const wanted = new Set<string>()
  for (const id of ids) {
    if (wanted.has(id) || job.readings.get(id) || job.repairs.get(id) || job.kinds.some(k => k.id === id) || job.zones.some(z => z.id === id) || isInWiring(job, id)) refuse({ code: 'already-there', id })
    wanted.add(id)
  }
}
