import { changedBack, guarded } from '../guard'
import { refuse } from '../../refusal'
import { none, type Section } from '../section'
import { MOST_SHARES, type Share } from './schema'
import { shares as shape } from './shape'

const sharerOf = (share: Share | undefined) => share ? { who: share.who, name: share.name } : null

export const shares: Section<'shares'> = {
  shape,
  edits: {
    'share.set': {
      apply: (job, edit) => {
        const { roomId } = edit
        const sharer = sharerOf(job.shares.find(s => s.roomId === roomId))
        const to = guarded('this room', { sharer }, edit).sharer
        if (sharer === null && to !== null && job.shares.length >= MOST_SHARES) refuse({ code: 'too-many', what: 'shares', most: MOST_SHARES })
        const others = job.shares.filter(s => s.roomId !== roomId)
        return { job: { ...job, shares: to === null ? others : [...others, { roomId, ...to }] }, inverse: changedBack({ sharer }, edit) }
      },
      makes: none, refersTo: none, words: 'walk shared out', leads: 130,
    },
  },
  fields: { sharer: 'walker' },
  lists: { shares: (_, number) => `share ${number}` },
  has: () => false,
  ids: none,
  names: none,
}
