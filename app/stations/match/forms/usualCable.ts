import type { Job } from '#core/job/schema'
import { branchesOf, findPlace } from '#core/job/tree'
import type { Cable } from '#core/quantity/cable'

/** The cable most at hand for some speakers: the first that is on their line already, else 16 AWG, which is on every shelf (common practice, no source). */
export function usualCableOf(job: Job, ids: readonly string[]): Cable {
  const output = ids[0] === undefined ? undefined : findPlace(job, ids[0])?.output
  return (output && branchesOf(output.wiring).find(b => b.lead)?.lead?.cable) ?? { awg: 16 }
}
