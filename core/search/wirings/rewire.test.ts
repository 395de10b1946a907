import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Job } from '#core/job/schema'
import { outputsOf, speakersOf, withBranch } from '#core/job/tree'
import { cabled, counter, jobOf } from '#core/testing/jobs'
import { evaluateJob } from '#core/line/evaluate'
import { findWirings, type Wirings } from './finder'
import { hasCoils, NOT_ASKED_WORDS, rewire, unitsOf, weighted, type Units } from './rewire'

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
        const { edit, outputIds } = rewire(job, 'out1', units, wiring.network, { channels }, counter('n')) as Exclude<ReturnType<typeof rewire>, string>
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
  const { edit, outputIds } = rewire(job, 'out1', units, network, { channels: 2 }, counter('n')) as Exclude<ReturnType<typeof rewire>, string>
  const after = applyEdit(job, edit!).job
  expect(outputsOf(after).map(o => [o.label, o.rating, o.wiring.children.map(b => [b.node.kind, b.lead?.lengthM, 'children' in b.node ? b.node.children.map(c => c.lead?.lengthM ?? null) : null])]))
    .toEqual(['A1', 'A2'].map(label => [label, outputsOf(job)[0]!.rating, [['series', 5, [null, 5]]]]))
  expect(outputIds).toHaveLength(2)
  const free = { ...job, amplifiers: job.amplifiers.map(a => ({ ...a, outputs: [...a.outputs, { ...a.outputs[0]!, id: 'free', label: 'A9', rating: { kind: 'not-known' as const }, wiring: { kind: 'chain' as const, id: 'fw', children: [] } }] })) }
  expect(rewire(free, 'out1', units, network, { channels: 2 }, counter('n'))).toMatchObject({ outputIds: ['out1', 'free'] })
  expect(rewire(job, 'gone', units, network, { channels: 1 }, counter('n'))).toMatchObject({ edit: null })
})

test('coils one by one: each with its part of the rating and the name of its unit, the first with the id that was there', () => {
  const plain = jobOf('dvc 4 series || dvc 4 series on 100 W at 4')
  const job = withBranch(plain, plain.amplifiers[0]!.outputs[0]!.wiring.children[0]!.node.id, b => b.node.kind === 'speaker' ? { ...b, node: { ...b.node, continuousW: 120 } } : b)
  const line = lineOf(job)
  const units = unitsOf(line, true) as Units
  expect([hasCoils(line), hasCoils(lineOf(jobOf('8'))), units.map(u => [u.ohm, u.count, u.ratingW])]).toEqual([true, false, [[4, 2, 60], [4, 2, null]]])
  const found = findWirings({ units, rating: line.output.rating, isFair: true }) as Wirings
  const { edit } = rewire(job, 'out1', units, found.wirings.find(w => w.loadOhm === 4)!.network, { channels: 1 }, counter('n')) as { edit: Edit }
  const { job: after, inverse } = applyEdit(job, edit)
  const [rewired] = evaluateJob(after)
  expect(rewired!.loadOhm).toBeCloseTo(4, 9)
  expect(rewired!.speakers.map(s => s.id)).toEqual(expect.arrayContaining(speakersOf(outputsOf(job)[0]!.wiring).map(s => s.id)))
  expect(new Set(rewired!.speakers.map(s => `${s.label} ${s.load.kind === 'coil' && `${s.load.unit} ${s.load.of}`} ${s.continuousW}`))).toEqual(new Set(['01a 01 2 60', '01b 01 2 60', '02a 02 2 null', '02b 02 2 null']))
  expect(applyEdit(after, inverse).job).toEqual(job)
})

test('bridged: the channel beside goes with it; where it cannot, that is said and nothing is done', () => {
  const two = jobOf('8 || 8 on 300 W at 4, 180 W at 8, from 4', '8 on 300 W at 4, 180 W at 8, from 4')
  const empty = applyEdit(two, { kind: 'node.remove', nodeId: outputsOf(two)[1]!.wiring.children[0]!.node.id, was: null }).job
  const units = asked(empty)
  const found = findWirings({ units, rating: lineOf(empty).output.rating, isFair: true, isBridged: true }) as Wirings
  const { edit } = rewire(empty, 'out1', units, found.wirings[0]!.network, { channels: 1, isBridged: true }, counter('n')) as { edit: Edit }
  const { job: after, inverse } = applyEdit(empty, edit)
  const [line] = evaluateJob(after)
  expect([outputsOf(after).length, line!.loadOhm, line!.amplifierW, found.wirings[0]!.amplifierW]).toEqual([1, 16, 360, 360])
  expect(applyEdit(after, inverse).job).toEqual(empty)
  expect(rewire(two, 'out1', units, found.wirings[0]!.network, { channels: 1, isBridged: true }, counter('n'))).toMatch(/A1 must be empty/)
})

test('shares: the same, as rated, as said; by ratings only where all are known', () => {
  const [a, b] = [{ ratingW: 100 }, { ratingW: 50 }]
  expect([weighted([a, b], 'same'), weighted([a, b], 'ratings'), weighted([a, b], [3])].map(w => w!.map(u => u.weight))).toEqual([[1, 1], [100, 50], [3, 1]])
  expect(weighted([a, { ratingW: null }], 'ratings')).toBeNull()
})

test('what the finder cannot be asked', () => {
  const controlled = jobOf('8 || 8')
  const first = controlled.amplifiers[0]!.outputs[0]!.wiring.children[0]!.node.id
  expect(['5 W on 70 V', '8'].map(text => unitsOf(lineOf(jobOf(text))))).toEqual(['transformer-line', [expect.objectContaining({ ohm: 8, count: 1 })]])
  expect(first).toBeTruthy()
  expect(NOT_ASKED_WORDS[unitsOf({ ...lineOf(jobOf('8')), speakers: [] }) as 'nothing']).toBe('No speaker hangs on this line.')
})

test('over two bridged pairs of four channels both outputs are bridged, each takes the channel beside it, and one undo gives all four back', () => {
  const job = bare(jobOf('4 x 8 parallel on 300 W at 4, from 4'))
  const [amplifier] = job.amplifiers
  const [output] = amplifier!.outputs
  const free = (id: string) => ({ ...output!, id, label: id, wiring: { kind: 'chain' as const, id: `${id}-line`, children: [] } })
  const four: Job = { ...job, amplifiers: [{ ...amplifier!, outputs: [output!, free('B'), free('C'), free('D')] }] }
  const units = asked(four)
  const found = findWirings({ units, rating: output!.rating, isFair: true, channels: 2, isBridged: true }) as Wirings
  const made = rewire(four, output!.id, units, found.wirings[0]!.network, { channels: 2, isBridged: true }, counter('n')) as Exclude<ReturnType<typeof rewire>, string>
  const { job: after, inverse } = applyEdit(four, made.edit!)
  expect(outputsOf(after).map(o => [o.id, o.rating.kind === 'solid-state' && o.rating.mode, speakersOf(o.wiring).length])).toEqual([[output!.id, 'bridged', 2], ['C', 'bridged', 2]])
  expect(applyEdit(after, inverse).job).toEqual(four)
})
