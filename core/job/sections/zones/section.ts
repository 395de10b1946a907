import { refuse } from '../../refusal'
import type { Job } from '../../schema'
import { changedBack, guarded, guardedWhole, inserted } from '../guard'
import { byName, none, type Section } from '../section'
import { MOST_ZONES, type Zone } from './schema'
import { zones as shape } from './shape'

const found = (job: Job, zoneId: string): Zone => job.zones.find(z => z.id === zoneId) ?? refuse({ code: 'not-there', what: 'zone', id: zoneId })

export const zones: Section<'zones'> = {
  shape,
  edits: {
    'zone.add': {
      apply: (job, { index, zone }) => {
        if (job.zones.length >= MOST_ZONES) refuse({ code: 'too-many', what: 'zones', most: MOST_ZONES })
        return { job: { ...job, zones: inserted(job.zones, index, zone) }, inverse: { kind: 'zone.remove', zoneId: zone.id, was: zone } }
      },
      makes: ({ zone }) => [zone.id], refersTo: none, words: 'zone made', leads: 40,
    },
    'zone.remove': {
      apply: (job, { zoneId, was }) => {
        const zone = found(job, zoneId)
        guardedWhole(`the zone “${zone.name}”`, zone, was)
        return { job: { ...job, zones: job.zones.filter(z => z !== zone) }, inverse: { kind: 'zone.add', index: job.zones.indexOf(zone), zone } }
      },
      makes: none, refersTo: none,
      frees: (job, { zoneId }) => {
        const name = job.zones.find(z => z.id === zoneId)?.name
        return { what: 'zone', id: zoneId, stillNamed: (by, isOne) => `${by} ${isOne ? 'is' : 'are'} in the zone “${name}”: take ${isOne ? 'it' : 'them'} out of it first.` }
      },
      words: 'zone removed', leads: 41,
    },
    'zone.set': {
      apply: (job, edit) => {
        const zone = found(job, edit.zoneId)
        const changed = { ...zone, ...guarded(`the zone “${zone.name}”`, zone, edit) }
        return { job: { ...job, zones: job.zones.map(z => z === zone ? changed : z) }, inverse: changedBack(zone, edit) }
      },
      makes: none, refersTo: none, words: 'zone renamed',
    },
  },
  fields: { zoneId: 'zone' },
  lists: { zones: byName('zone') },
  has: (job, id) => job.zones.some(z => z.id === id),
  ids: ({ zones }) => zones.map(z => [z.id, 'zones'] as const),
  names: none,
}
