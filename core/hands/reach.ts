import type { Job } from '#core/job/schema'
import { findPlace, speakersOf } from '#core/job/tree'

/** How far along its line something that is put before a speaker may reach. */
export type ReachOf = 'this' | 'behind' | 'rail' | 'zone'
export interface Reach { of: ReachOf, nodeIds: string[] }

/**
 * What a control, a transformer or a part may be put before, of one speaker: it alone, it and all that hang behind it beside each other, the whole rail,
 * those of its zone there. What comes to the same as one before it is left out.
 */
export function reachesOf(job: Job, nodeId: string): Reach[] {
  const place = findPlace(job, nodeId)
  const node = place?.branch.node
  if (!place || node?.kind !== 'speaker') return []
  const idsOf = (children: typeof place.parent.children) => children.flatMap(b => speakersOf(b.node)).map(s => s.id)
  const rail = speakersOf(place.output.wiring)
  const wanted: Reach[] = [
    { of: 'this', nodeIds: [nodeId] },
    { of: 'behind', nodeIds: idsOf(place.parent.children.slice(place.index)) },
    { of: 'rail', nodeIds: rail.map(s => s.id) },
    { of: 'zone', nodeIds: node.zoneId === null ? [] : rail.filter(s => s.zoneId === node.zoneId).map(s => s.id) },
  ]
  const seen = new Set<string>([''])
  return wanted.filter(({ nodeIds }) => !seen.has(nodeIds.join()) && seen.add(nodeIds.join()))
}
