import { refuse } from '../../refusal'
import type { Job } from '../../schema'
import { allSpeakers } from '../../tree'
import { changedBack, guarded, inserted } from '../guard'
import { noneTaken } from '../ids'
import type { Section } from '../section'
import type { kindEdits } from './edits'
import { MOST_KINDS, type Kind } from './schema'

const found = (job: Job, kindId: string): Kind => job.kinds.find(k => k.id === kindId) ?? refuse({ code: 'not-there', what: 'kind', id: kindId })

export const kinds: Section<typeof kindEdits> = {
  name: 'kinds',
  keeps: 'document',
  apply: {
    'kind.add': (job, { index, item }) => {
      noneTaken(job, [item.id])
      if (job.kinds.length >= MOST_KINDS) refuse({ code: 'too-many', what: 'kinds', most: MOST_KINDS })
      return { job: { ...job, kinds: inserted(job.kinds, index, item) }, inverse: { kind: 'kind.remove', kindId: item.id } }
    },
    'kind.remove': (job, { kindId }) => {
      const item = found(job, kindId)
      const count = allSpeakers(job).filter(s => s.kindId === kindId).length
      if (count > 0) refuse({ code: 'not-valid', message: `${count} ${count === 1 ? 'speaker is' : 'speakers are'} of the kind “${item.model.name}”: take them off it first.` })
      return { job: { ...job, kinds: job.kinds.filter(k => k !== item) }, inverse: { kind: 'kind.add', index: job.kinds.indexOf(item), item } }
    },
    'kind.set': (job, edit) => {
      const item = found(job, edit.kindId)
      const changed = { ...item, ...guarded(`the kind “${item.model.name}”`, item, edit) }
      return { job: { ...job, kinds: job.kinds.map(k => k === item ? changed : k) }, inverse: changedBack(item, edit) }
    },
  },
  words: { 'kind.add': 'kind made', 'kind.remove': 'kind removed', 'kind.set': 'kind changed' },
  fields: { model: 'model', from: 'origin' },
}
