import type { Job, Output, Space } from './schema'
import { outputsOf, speakersOf } from './tree'

/** Speakers that are heard together: by the space that they hang in, else by their zone, else by what they are wired to. */
export interface HeardTogether {
  /** Of the space, the zone or the output; of a unit whose coils have outputs of their own, made of its name. */
  id: string
  name: string
  /** `line`, `unit`: nobody has said where they hang; what is on one line, or moves one cone, is taken to be heard together. */
  by: 'space' | 'zone' | 'line' | 'unit'
  nodeIds: string[]
}

type Asked = Pick<Job, 'amplifiers' | 'spaces' | 'zones'>
type Group = Omit<HeardTogether, 'nodeIds'>

/** The space that each speaker hangs in, where one is drawn. */
export const spacesByNode = ({ spaces }: Pick<Job, 'spaces'>): ReadonlyMap<string, Space> =>
  new Map(spaces.flatMap(space => space.spots.flatMap(spot => spot.nodeId === null ? [] : [[spot.nodeId, space] as const])))

/** Every speaker of a job is in one of them; in the order of the rails. */
export function heardTogether(job: Asked): HeardTogether[] {
  const spaceOf = spacesByNode(job)
  const zoneOf = new Map(job.zones.map(zone => [zone.id, zone]))
  const groups = new Map<string, HeardTogether>()
  for (const output of outputsOf(job)) {
    for (const speaker of speakersOf(output.wiring)) {
      const space = spaceOf.get(speaker.id)
      const zone = speaker.zoneId === null ? undefined : zoneOf.get(speaker.zoneId)
      const group: Group = space ? { id: space.id, name: space.name, by: 'space' } : zone ? { id: zone.id, name: zone.name, by: 'zone' } : byWire(output, speaker.load)
      const known = groups.get(`${group.by} ${group.id}`)
      if (known) known.nodeIds.push(speaker.id)
      else groups.set(`${group.by} ${group.id}`, { ...group, nodeIds: [speaker.id] })
    }
  }
  return [...groups.values()]
}

function byWire({ id, label, name }: Output, load: { kind: string, unit?: string }): Group {
  if (load.kind === 'coil') return { id: load.unit!, name: load.unit!, by: 'unit' }
  return { id, name: [label, name].filter(Boolean).join(' '), by: 'line' }
}

/** Speakers that are heard with at least one other. */
export function together(job: Asked): ReadonlySet<string> {
  return new Set(heardTogether(job).filter(group => group.nodeIds.length > 1).flatMap(group => group.nodeIds))
}
