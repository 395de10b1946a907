import type { Job, WireNode } from '#core/job/schema'
import { findPlace, speakersOf } from '#core/job/tree'

/** What a place of a line is called where a suspect is at it. */
export function placeName(job: Pick<Job, 'amplifiers'> | null, nodeId: string | null): string {
  if (nodeId === null) return 'the whole line'
  const node = job ? findPlace(job, nodeId)?.branch.node : undefined
  return node ? labelOf(node) : 'a speaker that is gone'
}

function labelOf(node: WireNode): string {
  if (node.kind === 'speaker') return node.label
  // A control or a transformer is named by itself: what hangs behind it follows.
  return node.through ? `${node.through.kind === 'control' ? 'control' : node.through.kind} ${node.through.label}` : `the group of ${speakersOf(node).map(s => s.label).join(', ')}`
}
