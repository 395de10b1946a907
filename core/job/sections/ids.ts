import { refuse } from '../refusal'
import type { Job } from '../schema'
import { isInWiring } from '../tree'

/** Refuses ids that stand in the job already, or twice in the list. */
export function noneTaken(job: Job, ids: readonly string[]): void {
  const wanted = new Set<string>()
  for (const id of ids) {
    const isNamed = [job.kinds, job.zones, job.variants].some(list => list.some(item => item.id === id))
    const stands = wanted.has(id) || job.readings.get(id) || job.repairs.get(id) || isNamed
    if (stands || isInSpaces(job, id) || isInWiring(job, id)) refuse({ code: 'already-there', id })
    wanted.add(id)
  }
}

function isInSpaces(job: Job, id: string): boolean {
  return job.spaces.some(s => s.id === id || s.spots.some(p => p.id === id) || s.measured.some(m => m.id === id))
}
