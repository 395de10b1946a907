import { refuse } from '../../refusal'
import type { Job } from '../../schema'
import { allSpeakers } from '../../tree'
import { changedBack, guarded, inserted } from '../guard'
import { noneTaken } from '../ids'
import type { Section } from '../section'
import type { zoneEdits } from './edits'
import { MOST_ZONES, type Zone } from './schema'

const found = (job: Job, zoneId: string): Zone => job.zones.find(z => z.id === zoneId) ?? refuse({ code: 'not-there', what: 'zone', id: zoneId })

export const zones: Section<typeof zoneEdits> = {
  name: 'zones',
  keeps: 'document',
  apply: {
    'zone.add': (job, { index, zone }) => {
      noneTaken(job, [zone.id])
      if (job.zones.length >= MOST_ZONES) refuse({ code: 'too-many', what: 'zones', most: MOST_ZONES })
      return { job: { ...job, zones: inserted(job.zones, index, zone) }, inverse: { kind: 'zone.remove', zoneId: zone.id } }
    },
    'zone.remove': (job, { zoneId }) => {
      const zone = found(job, zoneId)
      const count = allSpeakers(job).filter(s => s.zoneId === zoneId).length
      if (count > 0) refuse({ code: 'not-valid', message: `${count} ${count === 1 ? 'speaker is' : 'speakers are'} in the zone “${zone.name}”: take them out of it first.` })
      return { job: { ...job, zones: job.zones.filter(z => z !== zone) }, inverse: { kind: 'zone.add', index: job.zones.indexOf(zone), zone } }
    },
    'zone.set': (job, edit) => {
      const zone = found(job, edit.zoneId)
      const changed = { ...zone, ...guarded(`the zone “${zone.name}”`, zone, edit) }
      return { job: { ...job, zones: job.zones.map(z => z === zone ? changed : z) }, inverse: changedBack(zone, edit) }
    },
  },
  words: { 'zone.add': 'zone made', 'zone.remove': 'zone removed', 'zone.set': 'zone renamed' },
  fields: { zoneId: 'zone' },
}
