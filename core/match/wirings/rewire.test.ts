import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Job } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { cabled, counter, jobOf } from '#core/testing/jobs'
import { evaluateJob } from '../evaluate'
import { findWirings } from './finder'
import { NOT_ASKED_WORDS, rewire, unitsOf } from './rewire'

const lineOf = (job: Job) => evaluateJob(job)[0]!
const asked = (job: Job) => {
  const units = unitsOf(lineOf(job))
  if (typeof units === 'string') throw new Error(units)
  return units
}
const bare = (job: Job): Job => cabled(job, { cable: { awg: 16 }, lengthM: 0 })

test('whatever is found for a line is what the line then is: load, who gets what; every speaker once, one undo brings all back', () => {
  let tried = 0
  for (const text of ['4 x 8 parallel on 300 W at 4, 180 W at 8, from 2', '(8 + 8) || (4 + 4) on 300 W at 2', '8 || (4 + 4) || 16 on 300 W at 2', '6 x 8 series on 300 W at 2']) {
    const job = bare(jobOf(text))
    const units = asked(job)
    for (const channels of [1, 2] as const) {
      const found = findWirings({ units, rating: lineOf(job).output.rating, isFair: false, channels })
      if (typeof found === 'string') continue
      for (const wiring of found.wirings.filter((_, k) => k % 2 === 0)) {
        const { edit, outputIds } = rewire(job, 'out1', units, wiring.network, channels, counter('n'))
        if (!edit) continue
        const { job: after, inverse } = applyEdit(job, edit)
        tried++
        expect(applyEdit(after, inverse).job).toEqual(job)
        expect(outputsOf(after).flatMap(o => speakersOf(o.wiring).map(s => s.id)).sort()).toEqual(speakersOf(outputsOf(job)[0]!.wiring).map(s => s.id).sort())
        const lines = evaluateJob(after).filter(l => outputIds.includes(l.outputId))
        expect(lines.map(l => Number(l.loadOhm!.toPrecision(8)))).toEqual(Array(channels).fill(Number(wiring.loadOhm.toPrecision(8))))
        expect(lines[0]!.drops.map(d => Number(d.powerW!.toPrecision(8)))).toEqual(wiring.powerW.map(p => Number(p.toPrecision(8))))
      }
    }
  }
  expect(tried).toBeGreaterThan(60)
})

test('cable stays: what led to a speaker leads to it, or to the group that it begins; a free output is taken before one is added', () => {
  const job = cabled(jobOf('4 x 8 parallel on 100 W at 4'), { cable: { awg: 14 }, lengthM: 5 })
  const units = asked(job)
  const network = { kind: 'series' as const, parts: [{ kind: 'one' as const, unit: 0 }, { kind: 'one' as const, unit: 0 }] }
  const { edit, outputIds } = rewire(job, 'out1', units, network, 2, counter('n'))
  const after = applyEdit(job, edit!).job
  expect(outputsOf(after).map(o => [o.label, o.rating, o.wiring.children.map(b => [b.node.kind, b.lead?.lengthM, 'children' in b.node ? b.node.children.map(c => c.lead?.lengthM ?? null) : null])]))
    .toEqual(['A1', 'A2'].map(label => [label, outputsOf(job)[0]!.rating, [['series', 5, [null, 5]]]]))
  expect(outputIds).toHaveLength(2)
  const free = { ...job, amplifiers: job.amplifiers.map(a => ({ ...a, outputs: [...a.outputs, { ...a.outputs[0]!, id: 'free', label: 'A9', rating: { kind: 'not-known' as const }, wiring: { kind: 'chain' as const, id: 'fw', children: [] } }] })) }
  expect(rewire(free, 'out1', units, network, 2, counter('n')).outputIds).toEqual(['out1', 'free'])
  expect(rewire(job, 'gone', units, network, 1, counter('n')).edit).toBeNull()
})

test('what the finder cannot be asked', () => {
  const controlled = jobOf('8 || 8')
  const first = controlled.amplifiers[0]!.outputs[0]!.wiring.children[0]!.node.id
  expect(['5 W on 70 V', '8'].map(text => unitsOf(lineOf(jobOf(text))))).toEqual(['transformer-line', [expect.objectContaining({ ohm: 8, count: 1 })]])
  expect(first).toBeTruthy()
  expect(NOT_ASKED_WORDS[unitsOf({ ...lineOf(jobOf('8')), speakers: [] }) as 'nothing']).toBe('No speaker hangs on this line.')
})
