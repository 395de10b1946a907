import { refuse } from '../../refusal'
import type { Job } from '../../schema'
import { changedBack, guarded, guardedWhole, inserted } from '../guard'
import { byName, none, type Section } from '../section'
import { MOST_KINDS, type Kind } from './schema'
import { kinds as shape } from './shape'

const found = (job: Job, kindId: string): Kind => job.kinds.find(k => k.id === kindId) ?? refuse({ code: 'not-there', what: 'kind', id: kindId })

export const kinds: Section<'kinds'> = {
  shape,
  edits: {
    'kind.add': {
      apply: (job, { index, item }) => {
        if (job.kinds.length >= MOST_KINDS) refuse({ code: 'too-many', what: 'kinds', most: MOST_KINDS })
        return { job: { ...job, kinds: inserted(job.kinds, index, item) }, inverse: { kind: 'kind.remove', kindId: item.id, was: item } }
      },
      makes: ({ item }) => [item.id], refersTo: none, words: 'kind made', leads: 50,
    },
    'kind.set': {
      apply: (job, edit) => {
        const item = found(job, edit.kindId)
        const changed = { ...item, ...guarded(`the kind “${item.model.name}”`, item, edit) }
        return { job: { ...job, kinds: job.kinds.map(k => k === item ? changed : k) }, inverse: changedBack(item, edit) }
      },
      makes: none, refersTo: none, words: 'kind changed', leads: 51,
    },
    'kind.remove': {
      apply: (job, { kindId, was }) => {
        const item = found(job, kindId)
        guardedWhole(`the kind “${item.model.name}”`, item, was)
        return { job: { ...job, kinds: job.kinds.filter(k => k !== item) }, inverse: { kind: 'kind.add', index: job.kinds.indexOf(item), item } }
      },
      makes: none, refersTo: none,
      frees: (job, { kindId }) => {
        const name = job.kinds.find(k => k.id === kindId)?.model.name
        return { what: 'kind', id: kindId, stillNamed: (by, isOne) => `${by} ${isOne ? 'is' : 'are'} of the kind “${name}”: take ${isOne ? 'it' : 'them'} off it first.` }
      },
      words: 'kind removed', leads: 52,
    },
  },
  fields: { model: 'model', from: 'origin', kindId: 'kind' },
  lists: { kinds: ({ model }, number) => byName('kind')((model ?? {}) as Record<string, unknown>, number) },
  has: (job, id) => job.kinds.some(k => k.id === id),
  ids: ({ kinds }) => kinds.map(k => [k.id, 'kinds'] as const),
  names: none,
}
