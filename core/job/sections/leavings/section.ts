import { refuse } from '../../refusal'
import { findSpeaker } from '../../tree'
import { growingRules, placedBy } from '../growing'
import { none, type Section } from '../section'
import type { Leaving } from './schema'
import { leavings as shape } from './shape'

const isPlaced = placedBy(findSpeaker)

const { add, withdraw } = growingRules({
  shape,
  entryOf: (edit: { kind: 'leaving.add', leaving: Leaving }) => edit.leaving,
  withdrawal: (leavingId, withdrawn) => ({ kind: 'leaving.withdraw' as const, leavingId, withdrawn }),
  idOf: ({ leavingId, withdrawn }) => ({ id: leavingId, withdrawn }),
  fits: (job, leaving, isNew) => {
    if (isNew && !isPlaced(job, leaving)) refuse(leaving.nodeId === null ? { code: 'not-there', what: 'output', id: leaving.outputId } : { code: 'not-there', what: 'speaker', id: leaving.nodeId })
  },
  words: { add: 'left as it is', withdraw: 'left as it is, taken back' },
})

export const leavings: Section<'leavings'> = {
  shape,
  edits: { 'leaving.add': add, 'leaving.withdraw': withdraw },
  fields: {},
  lists: { leavings: (_, number) => `thing left no. ${number}` },
  has: (job, id) => job.leavings.get(id) !== undefined,
  ids: ({ leavings }) => leavings.map((leaving, k) => [leaving.id, `leavings[${k}].id`] as const),
  names: none,
  isPlaced,
}
