import { findOutput, findSpeaker } from '#core/job/tree'
import type { Job } from '#core/job/schema'
import { labelledOhm } from '#core/network/element'
import { writeNumber } from '#core/quantity/write'

/** The address at which a ticket is opened for a speaker of a job, with what is known of it; `complaint`: what a trace says of it. */
export function ticketAddress(jobId: string, job: Job | null, nodeId: string | null, complaint = ''): { path: string, query: Record<string, string> } {
  const place = job && nodeId ? findSpeaker(job, nodeId) : null
  if (!job || !place || !findOutput(job, place.output.id)) return { path: '/bench', query: {} }
  const { output, speaker: { id, label, name, load, driverOhm } } = place
  // Behind a transformer the ohms of the driver count, and the label of the tap says nothing of them.
  const nominalOhm = driverOhm ?? (load.kind === 'tap' ? null : labelledOhm(load))
  return {
    path: '/bench',
    query: {
      from: 'job', job: jobId, node: id, says: `${job.name}, ${output.label} ${label}`.slice(0, 200), unit: name.slice(0, 120), ...complaint === '' ? {} : { complaint: complaint.slice(0, 500) },
      ...nominalOhm === null ? {} : { ohm: writeNumber(nominalOhm) },
    },
  }
}
