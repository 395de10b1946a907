import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Job } from '#core/job/schema'
import { putBefore, unknownControl } from '#core/hands/throughs'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { withBranch } from '#core/job/tree'
import { cabled, counter, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import type { Cable } from '#core/quantity/cable'
import { writeCable } from '#core/quantity/cable'
import { cableCost, cableList, cableListTable } from './cableList'

const job = cabled(jobOf('4 x 10 W on 70 V 100 W', '8 + 8'), { cable: { awg: 16 }, lengthM: 2.5 })
const at = (on: Job, k: number, lead: { cable: Cable | null, lengthM: number } | null) => withBranch(on, nodeIds(outputOf(on))[k]!, b => ({ ...b, lead }))
const mixed = at(at(at(job, 0, { cable: { awg: 12 }, lengthM: 10 }), 1, { cable: { areaMm2: 0.75 }, lengthM: 4 }), 2, null)
const behind = applyEdit(jobOf('3 x 10 W on 70 V'), (putBefore(jobOf('3 x 10 W on 70 V'), nodeIds(outputOf(jobOf('3 x 10 W on 70 V'))).slice(1), unknownControl('C1'), counter('g')) as { edit: Edit }).edit).job
/** Two leads of 10 m, the first of them laid by the plan of a space. */
const planned = (slack: number): Job => {
  const two = cabled(jobOf('2 x 10 W on 70 V'), { cable: { awg: 12 }, lengthM: 10 })
  const spots = [{ id: 'p', xM: 1, yM: 1, heightM: null, aim: null, nodeId: nodeIds(outputOf(two))[0]! }]
  return applyEdit(two, { kind: 'space.add', index: 0, space: { ...plainSpace('s', 'Hall'), slack, spots } }).job
}
const short = (on: Job, slack: number) => { const { sizes, missing } = cableList(on, slack); return [sizes.map(s => `${writeCable(s.cable)}: ${s.pieces}, ${s.lengthM}, ${s.withSlackM}`), missing] }

test.each<[string, Job, number, unknown]>([
  ['all of one size, a series counted by its way there', job, 0.1, [['16 AWG: 5, 12.5, 14'], 0]],
  ['no slack, whole metres all the same', job, 0, [['16 AWG: 5, 12.5, 13'], 0]],
  ['a tenth on ten is eleven', at(jobOf('10 W on 70 V'), 0, { cable: { awg: 12 }, lengthM: 10 }), 0.1, [['12 AWG: 1, 10, 11'], 0]],
  ['thick before thin, gauges and areas by their copper; one length missing', mixed, 0.2, [['12 AWG: 1, 10, 12', '16 AWG: 2, 5, 6', '0.75 mm²: 1, 4, 5'], 1]],
  ['of no stated size: a row of its own, last', at(mixed, 1, { cable: null, lengthM: 4 }), 0.2, [['12 AWG: 1, 10, 12', '16 AWG: 2, 5, 6', 'no stated size: 1, 4, 5'], 1]],
  ['the first behind a control stands beside it', behind, 0, [[], 3]],
  ['slack once: what the plan of a space laid with its own has it already', planned(0.1), 0.1, [['12 AWG: 2, 20, 21'], 0]],
  ['a plan without slack', planned(0), 0.1, [['12 AWG: 2, 20, 22'], 0]],
  ['0 m is no piece', at(jobOf('10 W on 70 V'), 0, { cable: { awg: 12 }, lengthM: 0 }), 0.1, [[], 0]],
])('%s', (_, on, slack, wanted) => expect(short(on, slack)).toEqual(wanted))

test('what it costs, where every size has a price; as a table', () => {
  const prices = new Map([['12 AWG', 2], ['16 AWG', 1.1]])
  const priceOf = (cable: Cable) => prices.get(writeCable(cable)) ?? null
  const list = cableList(mixed, 0.2)
  const costs = [list.sizes.slice(0, 2), list.sizes, [], [{ cable: null, lengthM: 4 }]].map(lengths => cableCost(lengths, priceOf))
  expect(costs).toEqual([25.5, null, 0, null])
  expect(cableListTable(list, priceOf).split('\n')).toEqual(['cable\tpieces\tmeasured\tto buy\tprice', '12 AWG\t1\t10 m\t12 m\t24.00', '16 AWG\t2\t5 m\t6 m\t6.60', '0.75 mm²\t1\t4 m\t5 m\t'])
})

// 110 % of a hundred is 110.00000000000001 in a machine.
test.each([[100, 0.1, 110], [10, 0.1, 11], [30, 0.1, 33], [10, 0, 10], [10.01, 0, 11], [0.1, 0.1, 1]])('of %d m with %d slack %d m are bought', (lengthM, slack, wanted) =>
  expect(cableList(at(jobOf('10 W on 70 V'), 0, { cable: { awg: 16 }, lengthM }), slack).sizes.map(s => s.withSlackM)).toEqual([wanted]))
