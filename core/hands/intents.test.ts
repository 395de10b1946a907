import { describe, expect, test } from '@jest/globals'
import { cabled, counter, jobOf, nodeIds as idsOf, outputOf } from '#core/testing/jobs'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import { sizeUnstated, addAfter, addAmplifier, addFirst, addOutput, joinWithNext, moveToOutput, nextLabel, removeNode, retap, setLineCable, setSpeaker, setTap, shift, ungroup } from './intents'
import { TAKEN_AS } from './takenAs'
import type { Cable } from '#core/quantity/cable'
import type { Job, WireNode } from '#core/job/schema'
import { findPlace, outputsOf, speakersOf, withBranch } from '#core/job/tree'

/** The wiring of a line in small: labels, groups in brackets, a lead as its length behind the node. */
function drawn(job: Job, k = 0): string {
  const text = (node: WireNode): string => node.kind === 'speaker' ? node.label : `${node.kind}(${node.children.map(b => text(b.node) + (b.lead ? `@${b.lead.lengthM}` : '')).join(' ')})`
  return text(outputOf(job, k).wiring as never).slice('chain('.length, -1)
}
const lead = (lengthM: number) => ({ cable: { awg: 16 }, lengthM })
const job = cabled(jobOf('4 x 10 W on 70 V 100 W', '8 + 8 + 8'), lead(5))
const [a, b, c, d] = ['o1n3', 'o1n4', 'o1n5', 'o1n6'] as const
const after = (edit: Edit | null | undefined, on = job) => edit ? drawn(applyEdit(on, edit).job) : null
const newId = () => counter('n')
const series = applyEdit(job, joinWithNext(job, a, 'series', newId())!).job
const seriesId = outputOf(series).wiring.children[0]!.node.id

describe('what hands on keys do to a line of four', () => {
  test.each<[string, () => string | null, string | null]>([
    ['as it is', () => drawn(job), '01@5 02@5 03@5 04@5'],
    ['one more after the second, on a lead like its own', () => after(addAfter(job, b, newId())!.edit), '01@5 02@5 05@5 03@5 04@5'],
    ['the lowest number that is free', () => after(addAfter(applyEdit(job, removeNode(job, b)!).job, c, newId())!.edit, applyEdit(job, removeNode(job, b)!).job), '01@5 03@10 02@10 04@5'],
    ['one taken off: the next lead grows by its own', () => after(removeNode(job, b)), '01@5 03@10 04@5'],
    ['the last one: nothing grows', () => after(removeNode(job, d)), '01@5 02@5 03@5'],
    ['places changed with the next; the leads stay', () => after(shift(job, a, 1)), '02@5 01@5 03@5 04@5'],
    ['the first cannot go further', () => after(shift(job, a, -1)), null],
    ['two in series: the way to them is the group’s', () => drawn(series), 'series(01 02@5)@5 03@5 04@5'],
    ['from one point', () => after(joinWithNext(job, c, 'star', newId())), '01@5 02@5 star(03 04@5)@5'],
    ['a third joins the group before it', () => after(joinWithNext(series, seriesId, 'series', newId()), series), 'series(01 02@5 03@5)@5 04@5'],
    ['one joins the group after it', () => after(joinWithNext(applyEdit(job, joinWithNext(job, b, 'series', newId())!).job, a, 'series', newId()), applyEdit(job, joinWithNext(job, b, 'series', newId())!).job), 'series(01@5 02 03@5)@5 04@5'],
    ['a group of another kind is not joined but held', () => after(joinWithNext(series, seriesId, 'star', counter('q')), series), 'star(series(01 02@5) 03@5)@5 04@5'],
    ['the last one has no next', () => after(joinWithNext(job, d, 'series', newId())), null],
    ['the group opened: as it was', () => after(ungroup(series, seriesId), series), '01@5 02@5 03@5 04@5'],
    ['a group left empty goes too', () => after(removeNode(applyEdit(series, removeNode(series, a)!).job, b), applyEdit(series, removeNode(series, a)!).job), '03@10 04@5'],
    ['another cable: only where one is stated', () => after(setLineCable(series, 'out1', { awg: 12 }), series), 'series(01 02@5)@5 03@5 04@5'],
    ['the same cable is no edit', () => after(setLineCable(job, 'out1', { awg: 16 })), null],
    ['to a line where it hangs already', () => after(moveToOutput(job, a, 'out1')), null],
    ['to the end of another, on its own lead', () => { const moved = applyEdit(job, moveToOutput(job, b, 'out2')!).job; return `${drawn(moved)} | ${drawn(moved, 1)}` }, '01@5 03@10 04@5 | series(01 02 03)@5 02@5'],
  ])('%s', (_, run, wanted) => expect(run()).toBe(wanted))

  test('taps go by the unit’s own list, and end with it', () => {
    const tapOf = (edit: Edit | null) => edit?.kind === 'speaker.set' && edit.to.load?.kind === 'tap' ? edit.to.load.tapW : null
    const [down, up] = [retap(job, a, -1), retap(job, a, 1)]
    expect([tapOf(down), tapOf(up), retap(job, outputOf(job, 1).wiring.children[0]!.node.id, 1)]).toEqual([5, 20, null])
    const least = ['1.25', '2.5', '5'].reduce(j => applyEdit(j, retap(j, a, -1)!).job, job)
    expect(retap(least, a, -1)).toBeNull()
  })
})

describe('what is new, and what it is taken for', () => {
  const empty = (rating: string, ...others: string[]) => {
    const made = jobOf(rating, ...others)
    const outputs = made.amplifiers[0]!.outputs.map((o, k) => k === 0 ? { ...o, wiring: { ...o.wiring, children: [] } } : o)
    return { ...made, amplifiers: [{ ...made.amplifiers[0]!, outputs }] }
  }
  const first = (on: Job) => {
    const added = addFirst(on, 'out1', newId())!
    const speaker = findPlace(applyEdit(on, added.edit).job, added.nodeId)!.branch.node
    return speaker.kind === 'speaker' ? [speaker.label, speaker.name, speaker.load.kind === 'tap' ? speaker.load.tapW : speaker.load.kind, speaker.driverOhm] : null
  }
  test.each<[string, Job, unknown[]]>([
    ['on a line, nothing to go by: a guess that says so', empty('5 W on 100 V 50 W'), ['01', 'taken as 10 W: not known yet', 10, null]],
    ['on low impedance likewise', empty('8 on 100 W at 8'), ['01', 'taken as 8 Ω: not known yet', 'nominal', null]],
    ['like the last of the job on a line of the same kind', empty('5 W on 70 V', '2 x 30 W on 70 V', '8 + 8'), ['01', '', 30, null]],
  ])('%s', (_, on, wanted) => expect(first(on)).toEqual(wanted))
  test('an output counts on from its amplifier’s letter, rated as the last; an amplifier takes the next letter that is free', () => {
    const added = addOutput(job, 'amp', newId())!
    const one = applyEdit(job, added.edit).job
    expect(outputsOf(one).map(o => [o.label, o.rating.kind])).toEqual([['A1', 'constant-voltage'], ['A2', 'not-known'], ['A3', 'not-known']])
    const two = applyEdit(one, addAmplifier(one, counter('m')).edit).job
    expect([outputsOf(two).at(-1)!.label, two.amplifiers.at(-1)!.name, addOutput(two, 'gone', newId())]).toEqual(['B1', 'Amplifier B', null])
    expect(outputsOf(applyEdit(two, addOutput(two, two.amplifiers.at(-1)!.id, counter('x'))!.edit).job).at(-1)!.label).toBe('B2')
  })
  test('an amplifier whose outputs are called by another letter keeps it', () => {
    const other = { ...job, amplifiers: [{ ...job.amplifiers[0]!, outputs: job.amplifiers[0]!.outputs.map((o, k) => ({ ...o, label: `M${k + 1}` })) }] }
    expect(outputsOf(applyEdit(other, addOutput(other, 'amp', newId())!.edit).job).at(-1)!.label).toBe('M3')
  })
  test('numbers fill the gaps, two figures wide', () => {
    expect([nextLabel(outputOf(job)), nextLabel(outputOf(applyEdit(job, removeNode(job, a)!).job)), nextLabel(outputOf(jobOf('120 x 5 W on 70 V')))]).toEqual(['05', '01', '121'])
  })
})

test.each<[string, Cable, Cable, number | null]>([
  ['of one size the gap closes: the next lead grows', { awg: 16 }, { awg: 16 }, 7], ['of two sizes nothing is joined: the next lead stays as it is', { awg: 16 }, { awg: 14 }, 4], ['metric and gauge are two sizes', { areaMm2: 1.5 }, { awg: 16 }, 4],
])('a speaker taken off: %s', (_, own, next, lengthM) => {
  const plain = jobOf('3 x 10 W on 70 V')
  const [first, second] = idsOf(outputOf(plain))
  const led = withBranch(plain, first!, b => ({ ...b, lead: { cable: own, lengthM: 3 } }))
  const job = withBranch(led, second!, b => ({ ...b, lead: { cable: next, lengthM: 4 } }))
  expect(findPlace(applyEdit(job, removeNode(job, first!)!).job, second!)!.branch.lead).toEqual({ cable: next, lengthM })
})

test('who sets what was only guessed has said it: the name that told of a guess goes, and comes back with undo', () => {
  const speaker = { ...speakersOf(outputOf(jobOf('10 W on 70 V')).wiring)[0]!, name: TAKEN_AS.tap }
  expect((setTap(speaker, 5))).toMatchObject({ was: { name: TAKEN_AS.tap }, to: { name: '', load: { tapW: 5 } } })
  expect((setTap(speaker, 10))).toMatchObject({ to: { name: '' } })
  expect([setTap({ ...speaker, name: 'wall unit' }, 10), setTap({ ...speaker, name: 'wall unit' }, 5)]).toEqual([null, expect.objectContaining({ to: { load: expect.objectContaining({ tapW: 5 }) } })])
  expect((setSpeaker(speaker, { continuousW: 20 }))).toMatchObject({ to: { continuousW: 20 } })
  expect(JSON.stringify(setSpeaker(speaker, { continuousW: 20 }))).not.toContain('name')
})

test('a size for every length that has none: what is stated stays, what has no length stays so', () => {
  const sizeless = applyEdit(job, { kind: 'lead.set', nodeId: b, was: lead(5), to: { cable: null, lengthM: 7 } }).job
  const bare = applyEdit(sizeless, { kind: 'lead.set', nodeId: c, was: lead(5), to: null }).job
  const sized = applyEdit(bare, sizeUnstated(bare, { areaMm2: 1.5 })!).job
  expect(outputOf(sized).wiring.children.map(child => child.lead)).toEqual([lead(5), { cable: { areaMm2: 1.5 }, lengthM: 7 }, null, lead(5)])
  expect(sizeUnstated(job, { awg: 12 })).toBeNull()
})
