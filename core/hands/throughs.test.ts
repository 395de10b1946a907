import { expect, test } from '@jest/globals'
import { unstatedModel } from '#core/gear/models'
import { cabled, counter, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { applyEdit } from '#core/job/apply'
import type { Edit, SimpleEdit } from '#core/job/edits'
import { joinWithNext } from './intents'
import { mayChangeOrigins, newerThan, originsOf } from '#core/job/origins'
import { EditRefused } from '#core/job/refusal'
import { readJob } from '#core/job/readJob'
import { toDocument } from '#core/job/document'
import { editWords, refusalWords } from '#core/job/words'
import type { Branch, Control, Job, LineThrough, LineTransformer, Origin, WireNode } from '#core/job/schema'
import { controlOf, putBefore, replaceThrough, setThrough, stepThrough, takeOut, throughLabel, transformerOf, unknownControl, usualPart, usualTransformer } from './throughs'
import { copyEach, hang, joinEach } from './many/many'
import { findPlace, speakersOf, throughsOf } from '#core/job/tree'

const job = cabled(jobOf('5 x 10 W on 70 V 100 W'), { cable: { awg: 16 }, lengthM: 5 })
const ids = speakersOf(outputOf(job).wiring).map(s => s.id)
const at = (...places: number[]) => places.map(k => ids[k - 1]!)
function drawn(on: Job): string {
  const name = (node: WireNode): string => node.kind === 'speaker' ? node.label : `${node.through ? `${node.through.label}:` : ''}${node.kind}(${node.children.map(text).join(' ')})`
  const text = ({ node, lead }: Branch): string => `${name(node)}${lead ? `@${lead.lengthM}` : ''}`
  return outputOf(on).wiring.children.map(text).join(' ')
}
const put = (on: Job, which: string[], through: LineThrough = unknownControl('C1'), prefix = 'g'): Job => {
  const made = putBefore(on, which, through, counter(prefix))
  if (made === null || typeof made === 'string') throw new Error(String(made))
  return applyEdit(on, made.edit).job
}
const series = applyEdit(job, joinWithNext(job, ids[1]!, 'series', counter('s'))!).job

test.each<[string, Job, string[], string]>([
  ['one speaker', job, at(2), '01@5 C1:chain(02)@5 03@5 04@5 05@5'],
  ['a stretch', job, at(2, 3, 4), '01@5 C1:chain(02 03@5 04@5)@5 05@5'],
  ['all of a rail', job, at(1, 2, 3, 4, 5), 'C1:chain(01 02@5 03@5 04@5 05@5)@5'],
  ['a whole group keeps its wiring', series, at(2, 3), '01@5 C1:series(02 03@5)@5 04@5 05@5'],
  ['a group with its neighbour', series, at(2, 3, 4), '01@5 C1:chain(series(02 03@5) 04@5)@5 05@5'],
  ['a member of a series', series, at(2), '01@5 series(C1:series(02) 03@5)@5 04@5 05@5'],
])('put before %s, taken out again, and back', (_, on, which, wanted) => {
  const after = put(on, which)
  expect(drawn(after)).toBe(wanted)
  expect(readJob(toDocument(after))).toEqual(after)
  const { group } = throughsOf(after)[0]!
  const out = takeOut(after, group.id)!
  expect(drawn(applyEdit(after, out).job)).toBe(drawn(on))
  expect(applyEdit(applyEdit(after, out).job, applyEdit(after, out).inverse).job).toEqual(after)
  expect(editWords(out)).toMatch(/control or transformer/)
})

test.each<[string, () => unknown, unknown]>([
  ['not side by side', () => putBefore(job, at(1, 3), unknownControl('C1'), counter('g')), 'not-beside'],
  ['one there already', () => putBefore(put(job, at(2, 3)), at(2, 3), unknownControl('C2'), counter('h')), 'has-one'],
  ['nothing chosen', () => putBefore(job, ['gone'], unknownControl('C1'), counter('g')), null],
  ['nothing to take out', () => takeOut(job, outputOf(job).wiring.id), null],
  ['nothing to turn', () => [stepThrough(job, ids[0]!, 1), setThrough(job, 'gone', {}), setThrough(put(job, at(1)), 'g1', { setDb: null })], [null, null, null]],
  ['labels count on, each kind by itself', () => { const two = put(put(job, at(1)), at(3), unknownControl('C3'), 'h'); return [throughLabel(two, 'control'), throughLabel(two, 'transformer'), throughLabel(put(two, at(2), unknownControl('C2'), 'i'), 'control')] }, ['C2', 'T1', 'C4']],
])('%s', (_, run, wanted) => expect(run()).toEqual(wanted))

test.each<[string, Job, string[], LineThrough, RegExp]>([
  ['a control behind a control', put(job, at(2, 3, 4)), at(3), unknownControl('C2'), /On A1, C2 would stand behind C1: a control behind a control/],
  ['a control before one', put(job, at(3)), at(2, 3), unknownControl('C2'), /C1 would stand behind C2/],
  ['a transformer behind a transformer', put(job, at(2, 3), usualTransformer('T1', 70, [10])), at(3), usualTransformer('T2', 70, [10]), /wants the line itself/],
])('%s is refused with its reason, in an edit and in a file', (_, on, which, through, why) => {
  const { edit } = putBefore(on, which, through, counter('n')) as { edit: Edit }
  try {
    applyEdit(on, edit)
    throw new Error('was taken')
  }
  catch (error) {
    expect(error).toBeInstanceOf(EditRefused)
    expect(refusalWords((error as EditRefused).refusal)).toMatch(why)
  }
  const nested = JSON.parse(JSON.stringify(toDocument(on)).replace('"children"', `"through":${JSON.stringify(through)},"children"`)) as unknown
  expect(() => readJob(nested)).toThrow()
})
test('a transformer behind a control is what walls have', () => expect(drawn(put(put(job, at(2, 3)), at(2), usualTransformer('T1', 70, [10]), 'h'))).toBe('01@5 C1:chain(T1:chain(02) 03@5)@5 04@5 05@5'))

test('a step louder or quieter: by its own positions, by the usual ones, off at the end; a transformer by its taps', () => {
  const walk = (change: Partial<Control> | Partial<LineTransformer>, base: LineThrough, ...steps: (1 | -1)[]) => {
    let current = put(job, at(2), { ...base, ...change } as LineThrough)
    return steps.map((step) => {
      const edit = stepThrough(current, 'g1', step)
      if (edit) current = applyEdit(current, edit).job
      const through = throughsOf(current)[0]!.through
      return through.kind === 'control' ? through.setDb : through.kind === 'transformer' ? through.tapW : null
    })
  }
  expect(walk({}, unknownControl('C1'), 1, -1, -1, 1, 1)).toEqual([null, 3, 6, 3, 0])
  expect(walk({ stepsDb: [10, 0, 4], setDb: 5 }, unknownControl('C1'), 1, -1, -1, -1, 1)).toEqual([4, 10, 'off', 'off', 10])
  expect(walk({ tapW: 10 }, usualTransformer('T1', 70, [30, 10, 5]), 1, 1, -1, -1, -1)).toEqual([30, 30, 10, 5, 5])
})

test('as a model has it: the scale, the tap and the ohms nearest to what stands there', () => {
  const from = { modelId: 'wall-35', version: 3, passed: null }
  const wall = { ...unstatedModel('control', 'Wall 35'), ratingW: 35, linesV: [100, 70], stepsDb: [0, 6], insertionDb: 0.4 }
  expect(controlOf(wall, from, 70.71, { ...unknownControl('C1'), setDb: 6 })).toEqual({ kind: 'control', label: 'C1', name: 'Wall 35', from, setDb: 6, stepsDb: [0, 6], ratingW: 35, lineV: 70, insertionDb: 0.4 })
  expect([controlOf(wall, null, null, unknownControl('C1')).lineV, controlOf({ ...wall, linesV: [] }, null, 70, unknownControl('C1')).lineV]).toEqual([100, null])
  const scales = [{ lineV: 70.71, tapsW: [15, 60] }, { lineV: 100, tapsW: [30, 120] }]
  const model = { ...unstatedModel('transformer', 'T60'), ratingW: 60, scales, secondariesOhm: [4, 16], insertionDb: 0.9 }
  const now = usualTransformer('T1', 70, [20])
  expect(transformerOf(model, from, 100, now)).toEqual({ ...now, name: 'T60', from, ratingW: 60, insertionDb: 0.9, secondaryOhm: 4, ratedV: 100, tapsW: [30, 120], tapW: 30 })
  const none = { ...model, scales: [], secondariesOhm: [] }
  expect([transformerOf(model, null, null, { ...now, tapW: 0 }).tapW, transformerOf(none, null, 100, now).secondaryOhm]).toEqual([0, 8])
})

test('every origin in a job is told, and a newer version is asked about until it is taken or passed over', () => {
  const from = (modelId: string) => ({ modelId, version: 2, passed: null })
  const one = put(job, at(2), { ...unknownControl('C1'), from: from('wall') })
  const whole: Job = { ...one, amplifiers: one.amplifiers.map(a => ({ ...a, from: from('rack') })), kinds: [{ what: 'speaker', id: 'k', from: from('can'), model: unstatedModel('speaker', 'x') }, { what: 'speaker', id: 'own', from: null, model: unstatedModel('speaker', 'y') }] }
  expect(originsOf(whole).map(o => o.modelId)).toEqual(['can', 'rack', 'wall'])
  const newer = (passed: number | null, version: number, id = 'wall') => newerThan({ modelId: 'wall', version: 2, passed }, { id, version })
  const origin = (from: Origin | null) => ({ ...unknownControl('C1'), from })
  const may = (...parts: unknown[]) => (parts as SimpleEdit[]).map(mayChangeOrigins)
  expect(may({ kind: 'kind.add' }, { kind: 'kind.set', to: { from: null } }, { kind: 'amplifier.set', to: { from: null } }, { kind: 'node.remove' }, { kind: 'node.add', branch: { node: { kind: 'chain' } } }, { kind: 'through.set', was: null, to: origin(from('a')) }, { kind: 'through.set', was: origin(from('a')), to: origin({ ...from('a'), version: 3 }) })).toEqual(Array.from({ length: 7 }, () => true))
  expect(may({ kind: 'kind.set', to: { model: null } }, { kind: 'amplifier.set', to: { name: 'x' } }, { kind: 'node.add', branch: { node: { kind: 'speaker' } } }, { kind: 'node.move' }, { kind: 'speaker.set' }, { kind: 'through.set', was: origin(from('a')), to: origin(from('a')) }, { kind: 'through.set', was: null, to: origin(null) })).toEqual(Array.from({ length: 7 }, () => false))
  expect([newer(null, 3), newer(null, 2), newer(3, 3), newer(3, 4), newer(null, 3, 'other'), newerThan(null, { id: 'wall', version: 3 }), newerThan(from('wall'), null)]).toEqual([3, null, null, 4, null, null, null])
})

test('a copy of a control has a label of its own; nobody slips behind one by being joined; a member of a series is joined to its group', () => {
  const one = put(job, at(2, 3))
  const copied = applyEdit(one, copyEach(one, at(2, 3), counter('c')).edit!).job
  expect(drawn(copied)).toBe('01@5 C1:chain(02 03@5)@5 C2:chain(06 07@5)@5 04@5 05@5')
  const elsewhere = applyEdit(job, hang(job, [findPlace(one, 'g1')!.branch], { outputId: outputOf(job).id }, counter('h')).edit!).job
  expect(drawn(elsewhere)).toBe('01@5 02@5 03@5 04@5 05@5 C1:chain(06 07@5)@5')
  // A group of its own kind, with a control before it, is a place like any other.
  const before = put(series, at(2, 3))
  expect(drawn(applyEdit(before, joinWithNext(before, at(1)[0]!, 'series', counter('j'))!).job)).toBe('series(01 C1:series(02 03@5)@5)@5 04@5 05@5')
  expect(drawn(applyEdit(before, joinWithNext(before, 's1', 'series', counter('j'))!).job)).toBe('01@5 series(C1:series(02 03@5) 04@5)@5 05@5')
  expect(drawn(applyEdit(series, joinWithNext(series, at(1)[0]!, 'series', counter('j'))!).job)).toBe('series(01@5 02 03@5)@5 04@5 05@5')
  expect(drawn(applyEdit(before, joinEach(before, at(2, 3, 4, 5), 'series', counter('j')).edit!).job)).toBe('01@5 series(C1:series(02 03@5) 04@5 05@5)@5')
})

test('a capacitor and a coil before a speaker: put there, a size larger, made the other, taken out again', () => {
  const job = jobOf('8 on 100 W at 8')
  const id = nodeIds(outputOf(job)).find(n => !/chain/.test(n))!
  const put = putBefore(job, [id], usualPart('capacitor', throughLabel(job, 'capacitor')), counter('g'))
  if (typeof put !== 'object' || !put) throw new Error('put')
  let now = applyEdit(job, put.edit).job
  expect(throughsOf(now).map(t => t.through)).toEqual([{ kind: 'capacitor', label: 'F1', name: '', from: null, capacitanceF: 1e-4 }])
  now = applyEdit(now, stepThrough(now, put.nodeId, 1)!).job
  expect(throughsOf(now)[0]!.through).toMatchObject({ capacitanceF: 1.2e-4 })
  now = applyEdit(now, replaceThrough(now, put.nodeId, usualPart('inductor', throughLabel(now, 'inductor')))!).job
  now = applyEdit(now, stepThrough(now, put.nodeId, -1)!).job
  expect([throughsOf(now)[0]!.through, replaceThrough(now, id, usualPart('inductor', 'L1'))]).toEqual([{ kind: 'inductor', label: 'L1', name: '', from: null, inductanceH: 1.8e-3, resistanceOhm: null }, null])
  expect(outputOf(applyEdit(now, takeOut(now, put.nodeId)!).job).wiring).toEqual(outputOf(job).wiring)
})
