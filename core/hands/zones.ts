import { partsOf, together, type Edit, type SimpleEdit } from '#core/job/edits'
import type { NewId } from './intents'
import type { Job, Speaker, Zone } from '#core/job/schema'
import { allSpeakers, findSpeaker } from '#core/job/tree'

/** Zones of a job: made of speakers, named, given up. Each gives null where there is nothing to do. */

export function zoneOf(job: Pick<Job, 'zones'>, { zoneId }: Pick<Speaker, 'zoneId'>): Zone | null {
  return zoneId === null ? null : job.zones.find(z => z.id === zoneId) ?? null
}

export function speakersOfZone(job: Job, zoneId: string): Speaker[] {
  return allSpeakers(job).filter(s => s.zoneId === zoneId)
}

function put(speakers: readonly Speaker[], zoneId: string | null): SimpleEdit[] {
  return speakers.filter(s => s.zoneId !== zoneId).map(s => ({ kind: 'speaker.set', nodeId: s.id, was: { zoneId: s.zoneId }, to: { zoneId } }))
}

/** Into a zone; null takes them out of theirs. */
export function giveZone(job: Job, ids: readonly string[], zoneId: string | null): Edit | null {
  return together(put(ids.flatMap(id => findSpeaker(job, id)?.speaker ?? []), zoneId))
}

/** A new zone of these. */
export function makeZone(job: Job, ids: readonly string[], name: string, newId: NewId): Edit | null {
  const zone: Zone = { id: newId(), name }
  const given = giveZone({ ...job, zones: [...job.zones, zone] }, ids, zone.id)
  return given && together([{ kind: 'zone.add', index: job.zones.length, zone }, ...partsOf(given)])
}

/** Gives a zone up: its speakers stay, in none. */
export function removeZone(job: Job, zoneId: string): Edit | null {
  const zone = job.zones.find(z => z.id === zoneId)
  return zone ? together([...put(speakersOfZone(job, zoneId), null), { kind: 'zone.remove', zoneId, was: zone }]) : null
}
