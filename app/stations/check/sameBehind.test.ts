import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Reading } from '#core/job/schema'
import { counter, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { neighboursOf, usualHow } from './polarityTaken'
import { behindOf, sameUpTo } from './sameBehind'

const job = jobOf('8 || 8 || 8 || 8')
const output = outputOf(job)
const ids = nodeIds(output)
const reading: Reading = {
  id: 'r', at: '2026-05-04T09:00:00Z', kind: 'sound', outputId: 'out1', nodeId: ids[1]!, value: { is: 'plays' }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false,
}

test('from here to here in one act: each is kept by itself, with a note that says so', () => {
  const told = [...applyEdit(job, sameUpTo(output, reading, ids[3]!, counter('n'))!).job.readings]
  expect(told.map(r => [r.nodeId, r.value, r.note])).toEqual([2, 3].map(k => [ids[k], { is: 'plays' }, 'as expected, 02 to 04 in one act']))
  expect(behindOf(output, ids[1]!).map(s => s.label)).toEqual(['03', '04'])
})

test('by ear each beside the one before; backwards, at the head and of ohms there is none', () => {
  const ear: Reading = { ...reading, kind: 'polarity-heard', value: { is: 'right-way', how: 'ear', against: ids[0]! } }
  const told = [...applyEdit(job, sameUpTo(output, ear, ids[2]!, counter('n'))!).job.readings]
  expect(told.map(r => 'how' in r.value && r.value.against)).toEqual([ids[1]])
  expect([sameUpTo(output, reading, ids[0]!, counter('n')), sameUpTo(output, reading, ids[1]!, counter('n')), sameUpTo(output, { ...reading, nodeId: null }, ids[2]!, counter('n')), sameUpTo(output, { ...reading, kind: 'coil-dcr', value: { is: 'ohm', ohm: 6 } }, ids[2]!, counter('n'))])
    .toEqual([null, null, null, null])
})

test('the way that is usual at a speaker: the one used last where it works, else one that does', () => {
  const here = (text: string, k = 0) => {
    const of = outputOf(jobOf(text))
    const speaker = [...of.wiring.children].map(b => b.node)[k]! as never
    return { output: of, speaker, hasNeighbour: neighboursOf(of, (speaker as { id: string }).id).length > 0 }
  }
  expect([
    usualHow(undefined, 'polarity', here('8 || 8')), usualHow('meter-push', 'polarity', here('8 || 8')), usualHow('battery-run', 'polarity', here('2 x 5 W on 70 V')),
    usualHow('meter-push', 'polarity', here('dvc 4 series || 8')), usualHow(undefined, 'polarity-heard', here('8 || 8')), usualHow('ear', 'polarity-heard', here('8')), usualHow('pulse', 'polarity-heard', here('8 || 8')),
  ]).toEqual(['battery-run', 'meter-push', 'battery-driver', 'battery-run', 'ear', 'pulse', 'pulse'])
  expect(neighboursOf(output, ids[1]!).map(s => s.label)).toEqual(['01', '03', '04'])
})
