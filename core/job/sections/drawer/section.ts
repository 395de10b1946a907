import { refuse } from '../../refusal'
import type { Job } from '../../schema'
import { changedBack, guarded, guardedWhole, inserted } from '../guard'
import { byName, none, type Section } from '../section'
import { MOST_IN_DRAWER, type DrawerItem } from './schema'
import { drawer as shape } from './shape'

const found = (job: Job, id: string): DrawerItem => job.drawer.find(d => d.id === id) ?? refuse({ code: 'not-there', what: 'drawer item', id })
const called = ({ model }: DrawerItem) => `“${model.name}” in the drawer`

export const drawer: Section<'drawer'> = {
  shape,
  edits: {
    'drawer.add': {
      apply: (job, { index, item }) => {
        if (job.drawer.length >= MOST_IN_DRAWER) refuse({ code: 'too-many', what: 'drawer', most: MOST_IN_DRAWER })
        return { job: { ...job, drawer: inserted(job.drawer, index, item) }, inverse: { kind: 'drawer.remove', drawerId: item.id, was: item } }
      },
      makes: ({ item }) => [item.id], refersTo: none, words: 'put in the drawer', leads: 60,
    },
    'drawer.set': {
      apply: (job, edit) => {
        const item = found(job, edit.drawerId)
        const changed = { ...item, ...guarded(called(item), item, edit) }
        return { job: { ...job, drawer: job.drawer.map(d => d === item ? changed : d) }, inverse: changedBack(item, edit) }
      },
      makes: none, refersTo: none, words: 'drawer counted', leads: 61,
    },
    'drawer.remove': {
      apply: (job, { drawerId, was }) => {
        const item = found(job, drawerId)
        guardedWhole(called(item), item, was)
        return { job: { ...job, drawer: job.drawer.filter(d => d !== item) }, inverse: { kind: 'drawer.add', index: job.drawer.indexOf(item), item } }
      },
      makes: none, refersTo: none, words: 'taken out of the drawer', leads: 62,
    },
  },
  fields: { count: 'how many', drawerId: 'drawer item' },
  lists: { drawer: ({ model }, number) => byName('drawer item')((model ?? {}) as Record<string, unknown>, number) },
  has: (job, id) => job.drawer.some(d => d.id === id),
  ids: ({ drawer }) => drawer.map(d => [d.id, 'drawer'] as const),
  names: none,
}
