import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import { emptyJob } from '#core/job/document'
import { unstatedModel } from '#core/gear/models'
import type { Job } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { evaluateJob } from '#core/line/evaluate'
import { counter } from '#core/testing/jobs'
import { beginWith, hanging, type Hanging } from './begin'

const cable = { awg: 16 } as const
const drawn = (job: Job) => outputsOf(job).map(o => [o.label, o.rating, speakersOf(o.wiring).map(s => [s.label, s.load.kind === 'tap' ? `${s.load.tapW} of ${s.load.tapsW.join(' ')} at ${s.load.ratedV}` : s.load.kind === 'nominal' ? `${s.load.nominalOhm} Ω` : '?'].join(': ')), o.wiring.children.map(c => c.lead)])

test.each<[string, Hanging, unknown[]]>([
  ['two taps on a line', { count: 2, each: { tapW: 7.5 }, lineV: 70.71, lead: { cable, lengthM: 6 } },
    ['A1', { kind: 'constant-voltage', lineV: 70.71, powerW: null }, ['01: 7.5 of 1.25 2.5 5 7.5 10 20 30 at 70.71', '02: 7.5 of 1.25 2.5 5 7.5 10 20 30 at 70.71'], [{ cable, lengthM: 6 }, { cable, lengthM: 6 }]]],
  ['one straight on an amplifier', { count: 1, each: { nominalOhm: 8 }, lineV: null, lead: null }, ['A1', { kind: 'not-known' }, ['01: 8 Ω'], [null]]],
  ['on a line of 100 V', { count: 1, each: { tapW: 10 }, lineV: 100, lead: null }, ['A1', { kind: 'constant-voltage', lineV: 100, powerW: null }, ['01: 10 of 1.25 2.5 5 10 20 30 at 100'], [null]]],
])('speakers that hang already: %s', (_, wanted, expected) => {
  const newId = counter('n')
  const begun = beginWith(emptyJob('New'), hanging(wanted, newId), newId)
  const { job, inverse } = applyEdit(emptyJob('New'), begun.edit)
  expect(drawn(job)).toEqual([expected])
  expect([begun.outputId, begun.nodeIds]).toEqual([outputsOf(job)[0]!.id, speakersOf(outputsOf(job)[0]!.wiring).map(s => s.id)])
  // What nobody said is not known: no power, no verdict that it fits.
  expect(evaluateJob(job)[0]!.grade).not.toBe('good')
  expect(applyEdit(job, inverse).job.amplifiers).toEqual([])
})

test('a second line stands on an amplifier of its own letter, and brings its kinds in one edit', () => {
  const newId = counter('n')
  const item = { what: 'speaker' as const, id: 'k', from: null, model: unstatedModel('speaker', 'Box') }
  const first = applyEdit(emptyJob('New'), beginWith(emptyJob('New'), hanging({ count: 1, each: { tapW: 5 }, lineV: 70.71, lead: null }, newId), newId).edit).job
  const line = { ...hanging({ count: 3, each: { nominalOhm: 4 }, lineV: null, lead: null }, newId), kinds: [item] }
  const known = { ...first, kinds: [{ ...item, id: 'a' }] }
  const second = applyEdit(known, beginWith(known, line, newId).edit).job
  expect([second.amplifiers.map(a => a.name), outputsOf(second).map(o => o.label), second.kinds.map(k => k.id)]).toEqual([['Amplifier A', 'Amplifier B'], ['A1', 'B1'], ['a', 'k']])
})
