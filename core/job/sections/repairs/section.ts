import { refuse } from '../../refusal'
import { findPlace } from '../../tree'
import { growingRules, placedBy } from '../growing'
import { none, type Section } from '../section'
import type { Repair } from './schema'
import { repairs as shape } from './shape'

/** A control or a transformer is repaired, too. */
const isPlaced = placedBy(findPlace)

const { add, withdraw } = growingRules({
  shape,
  entryOf: (edit: { kind: 'repair.add', repair: Repair }) => edit.repair,
  withdrawal: (repairId, withdrawn) => ({ kind: 'repair.withdraw' as const, repairId, withdrawn }),
  idOf: ({ repairId, withdrawn }) => ({ id: repairId, withdrawn }),
  fits: (job, repair, isNew) => {
    if (isNew && !isPlaced(job, repair)) refuse(repair.nodeId === null ? { code: 'not-there', what: 'output', id: repair.outputId } : { code: 'not-there', what: 'speaker', id: repair.nodeId })
  },
  words: { add: 'repair', withdraw: 'repair taken back' },
})

export const repairs: Section<'repairs'> = {
  shape,
  edits: { 'repair.add': add, 'repair.withdraw': withdraw },
  fields: {},
  lists: { repairs: (_, number) => `repair no. ${number}` },
  has: (job, id) => job.repairs.get(id) !== undefined,
  ids: ({ repairs }) => repairs.map((repair, k) => [repair.id, `repairs[${k}].id`] as const),
  names: none,
  isPlaced,
}
