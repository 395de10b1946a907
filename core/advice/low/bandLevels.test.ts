import { expect, test } from '@jest/globals'
import { unstatedModel } from '#core/gear/models'
import type { Amplifier, Job, Output } from '#core/job/schema'
import { applyEdit } from '#core/job/apply'
import { speakersOf, withBranch } from '#core/job/tree'
import { jobOf } from '#core/testing/jobs'
import { evaluateJob } from '#core/line/evaluate'
import { isSetRight, levelsSentence, levelsSet, protectedAt, protectionSentence, systemLevels } from './bandLevels'

/** Two amplifiers: boxes above, a sub below, of so many dB for a watt; 200 W at 8 Ω are 40 V. */
function stage(gains: [number | null, number | null], sensitivities: (number | null)[], setDb: (number | null)[] = [null, null], bass = '8 on 200 W at 8'): Job {
  const plain = jobOf('8 || 8 on 400 W at 4', bass)
  const kinds = sensitivities.map((sensitivityDb, k) => ({ what: 'speaker' as const, id: `k${k}`, from: null, model: { ...unstatedModel('speaker', `k${k}`), nominalOhm: 8, sensitivityDb, sensitivityAt: '1 W' as const } }))
  const outputs = plain.amplifiers[0]!.outputs.map((o, k): Output => ({ ...o, band: { system: 'Stage', fromHz: k === 0 ? 100 : null, toHz: k === 0 ? null : 100, slopeDb: null, setDb: setDb[k]! } }))
  const amplifiers = outputs.map((o, k): Amplifier => ({ ...plain.amplifiers[0]!, id: `a${k}`, gainDb: gains[k]!, outputs: [o] }))
  const job: Job = { ...plain, kinds, amplifiers }
  return outputs.reduce((j, o, k) => speakersOf(o.wiring).reduce((jj, s) => withBranch(jj, s.id, b => ({ ...b, node: { ...s, kindId: `k${k}` } })), j), job)
}
const of = (job: Job) => systemLevels(job, 'out1', evaluateJob(job))!

// By hand: one volt into 8 Ω is 0.125 W, −9.03 dB; two boxes side by side add 3.01 dB. Definition of the decibel.
test.each<[string, Job, (number | null)[], (number | null)[], (string | RegExp)]>([
  ['sub first; the louder one goes down', stage([32, 32], [98, 92]), [92 - 9.03 + 32, 98 - 9.03 + 3.01 + 32], [0, 9.01], 'Equally loud with A1 9.0 dB down.'],
  ['gain counts', stage([26, 32], [98, 92]), [114.97, 117.98], [0, 3.01], /A1 3.0 dB down/],
  ['no gain stated: equal ones are taken', stage([null, null], [98, 92]), [82.97, 91.98], [0, 9.01], 'Equally loud with A1 9.0 dB down. No gain is stated: equal gains are taken.'],
  ['of one of two: not known', stage([32, null], [98, 92]), [null, null], [null, null], /gain of some amplifiers is stated, of others not/],
  ['a sensitivity not known', stage([32, 32], [98, null]), [null, 123.98], [null, null], /a kind with its sensitivity/],
  ['two bridged have 6 dB more', stage([32, 32], [98, 92], [null, null], '8 on 2 x 100 W at 4 bridged'), [120.99, 123.98], [0, 2.99], /A1 3.0 dB down/],
  ['as set they agree', stage([32, 32], [98, 92], [9, 0]), [114.97, 123.98], [0, 9.01], /As they are set they are equally loud within half a decibel/],
  ['as set they do not', stage([32, 32], [98, 92], [6, 0]), [114.97, 123.98], [0, 9.01], /As they are set they are 3.0 dB apart/],
  ['all alike', stage([32, 32], [92, 95.0103]), [118, 118], [0, 0].map(() => expect.closeTo(0, 1) as unknown as number), /All bands are equally loud/],
])('%s', (_, job, perVolt, down, says) => {
  const levels = of(job)
  expect(levels.rows.map(r => r.label)).toEqual(['A2', 'A1'])
  levels.rows.forEach((r, k) => perVolt[k] === null ? expect(r.perVoltDb).toBeNull() : expect(r.perVoltDb).toBeCloseTo(perVolt[k]!, 1))
  expect(levels.rows.map(r => r.downDb === null ? null : Number(r.downDb.toFixed(2)))).toEqual(down)
  expect(levelsSentence(levels)).toMatch(says)
})

test('left and right are one band: three outputs, and the sub goes down against both (powers added: 3.01 dB)', () => {
  const job = stage([32, 32], [92, 98])
  const [boxes, sub] = job.amplifiers
  const right: Amplifier = { ...boxes!, id: 'a2', outputs: [{ ...JSON.parse(JSON.stringify(boxes!.outputs[0]!).replace(/"o1/g, '"o3')) as Output, id: 'out3', label: 'A3' }] }
  const three = of({ ...job, amplifiers: [boxes!, sub!, right] })
  expect(three.rows.map(r => [r.label, r.downDb!.toFixed(2)])).toEqual([['A2', '0.00'], ['A1', '0.02'], ['A3', '0.02']])
  const louder = of({ ...stage([32, 32], [98, 92], [9, 0]), amplifiers: [...stage([32, 32], [98, 92], [12, 0]).amplifiers, { ...right,
    outputs: right.outputs.map(o => ({ ...o, band: { ...o.band!, setDb: 12 } })) }] })
  expect([levelsSentence(louder), louder.apartDb!.toFixed(1)]).toEqual(['Equally loud with A1 and A3 12.0 dB down. As they are set they are equally loud within half a decibel.', '0.0'])
})

test.each<[downDb: number | null, setDb: number | null, isRight: boolean | null]>([
  [9.01, null, false], [9.01, 9, true], [9.25, 9, true], [9.26, 9, false], [8.74, 9, false], [0, 0, true], [0, null, false],
  [null, null, null], [null, 3, null],
])('to be set down by %p, set to %p: %p', (downDb, setDb, isRight) => {
  expect(isSetRight({ downDb, band: { system: 'Stage', fromHz: 100, toHz: null, slopeDb: null, setDb } })).toBe(isRight)
})

test('levels are noted in one edit, to half a decibel, and only where they are not yet right', () => {
  const edited = (job: Job) => {
    const edit = levelsSet(job, of(job))
    return edit && applyEdit(job, edit).job.amplifiers.map(a => a.outputs[0]!.band!.setDb)
  }
  expect(edited(stage([32, 32], [98, 92]))).toEqual([9, 0])
  expect(edited(stage([30, 32], [97.7, 92], [9, 0]))).toEqual([6.5, 0])
  expect(levelsSet(stage([32, 32], [98, 92], [9, 0]), of(stage([32, 32], [98, 92], [9, 0])))).toBeNull()
  expect(levelsSet(stage([32, null], [98, 92]), of(stage([32, null], [98, 92])))).toBeNull()
  // A quarter of a decibel off is as near as its knob goes, and is left as it was typed.
  expect(levelsSet(stage([32, 32], [98, 92], [9.2, 0]), of(stage([32, 32], [98, 92], [9.2, 0])))).toBeNull()
  const one = stage([32, 32], [98, 92], [9, 1])
  expect(levelsSet(one, of(one))).toMatchObject({ kind: 'output.set', to: { band: { setDb: 0 } } })
})

test('level at full output is that of its watts; alone it is half a system; what plays everything has none', () => {
  const job = stage([32, 32], [98, 92])
  expect(of(job).rows.map(r => [r.fullW, Number(r.fullDb!.toFixed(2))])).toEqual([[200, 115.01], [400, 124.02]])
  const alone: Job = { ...job, amplifiers: job.amplifiers.slice(0, 1) }
  expect(levelsSentence(systemLevels(alone, 'out1', evaluateJob(alone))!)).toMatch(/Only one band/)
  expect(systemLevels(jobOf('8'), 'out1', [])).toBeNull()
})

test('what it protects: the highest crossover, and the largest amplifier that plays up to it; what clipping would send there is said when it is known', () => {
  const job = stage([32, 32], [98, 92])
  const three: Job = { ...job, amplifiers: [...job.amplifiers, { ...job.amplifiers[1]!, id: 'a2', outputs: job.amplifiers[1]!.outputs.map(o => ({ ...o, id: 'out3', label: 'A3', rating: { ...o.rating, points: [{ loadOhm: 8, powerW: 300 }] } as Output['rating'], wiring: { kind: 'chain' as const, id: 'x', children: o.wiring.children.map(c => ({ ...c, node: { ...c.node, id: 'y' } })) } })) }] }
  expect(protectedAt(of(three))).toEqual({ above: ['A1'], crossoverHz: 100, powerW: 300 })
  const lows: Job = { ...job, amplifiers: job.amplifiers.map(a => ({ ...a, outputs: a.outputs.map(o => ({ ...o, band: { ...o.band!, fromHz: null,
    toHz: 100 } })) })) }
  expect(protectedAt(of(lows))).toBeNull()
  const apart: Job = { ...job, amplifiers: job.amplifiers.map(a => ({ ...a, outputs: a.outputs.map(o => ({ ...o, band: { ...o.band!,
    toHz: o.band!.toHz && 400 } })) })) }
  expect(protectedAt(of(apart))).toBeNull()
  const at = { above: ['A1', 'A3'], crossoverHz: 2000, powerW: 200 }
  expect(protectionSentence(at, null, 6)).toBe('What clips in a band stays in it: its harmonics go to its own units, and none to those on A1 and A3.')
  expect(protectionSentence(at, { totalW: 150, highW: 12, cleanHighW: 4, harmonicShare: 0.1 }, 6)).toMatch(/One amplifier of 200 W for everything, driven 6 dB into clipping with open music, would send 12 W above 2 kHz, where a clean signal has 4 W\.$/)
})
