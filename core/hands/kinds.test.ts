import { describe, expect, test } from '@jest/globals'
import { counter, jobOf, outputOf } from '#core/testing/jobs'
import { unstatedModel } from '#core/gear/models'
import type { SpeakerModel } from '#core/gear/speaker'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import { asKind, byHand, changeKind, equalsOf, fieldsOf, giveKind, giveModel, kindOf, makeKind, modelOf, passVersion, removeKind, takeVersion, speakersOfKind } from './kinds'
import { newerThan } from '#core/job/origins'
import { copyEach, hang } from './many/many'
import type { Job, Speaker } from '#core/job/schema'
import { findSpeaker, speakersOf } from '#core/job/tree'
import { nominalOhmOf } from '#core/network/tree'

const at = (job: Job, id: string): Speaker => findSpeaker(job, id)!.speaker
const done = (job: Job, edit: Edit | null): Job => applyEdit(job, edit!).job
/** What one looks like to a person: name, wiring, rating, driver, and what of it is by hand. */
const says = (job: Job, id: string) => {
  const s = at(job, id)
  const kind = kindOf(job, s)
  const load = s.load.kind === 'tap' ? `${s.load.tapW} of ${s.load.tapsW.join(' ')} at ${s.load.ratedV}` : s.load.kind === 'members' ? `${s.load.members.length} ${s.load.joined}` : `${nominalOhmOf(s.load)} ${s.load.kind}`
  return [s.name, load, s.continuousW, s.driverOhm, kind ? byHand(s, kind).join(' ') : 'none'].join(' | ')
}
const ceiling: SpeakerModel = { ...unstatedModel('speaker', 'Ceiling'), nominalOhm: 8, continuousW: 30, scales: [{ lineV: 70, tapsW: [5, 10] }, { lineV: 100, tapsW: [10, 20] }] }

const line = jobOf('4 x 5 W on 70 V', '8 || 8')
const [a, b, c, d] = speakersOf(outputOf(line).wiring).map(s => s.id) as [string, string, string, string]
const [plain] = speakersOf(outputOf(line, 1).wiring).map(s => s.id) as [string]
const made = makeKind(line, [a, b, c, d], '5 W on 70 V', counter('k'))!
const ofOne = done(line, made.edit)

test('a kind is made of what the first of them says; each takes its name, and one undo takes it all back', () => {
  expect(says(ofOne, d)).toBe('5 W on 70 V | 5 of 1.25 2.5 5 10 20 30 at 70.71 |  |  | ')
  expect(speakersOfKind(ofOne, made.kindId)).toHaveLength(4)
  expect(applyEdit(ofOne, applyEdit(line, made.edit).inverse).job).toEqual(line)
})

describe('changed once, all follow', () => {
  const byHandC = done(ofOne, { kind: 'speaker.set', nodeId: c, was: { continuousW: null }, to: { continuousW: 15 } })
  const retapped = done(byHandC, { kind: 'speaker.set', nodeId: b, was: { load: at(byHandC, b).load }, to: { load: { kind: 'tap', tapW: 0, ratedV: 70.71, tapsW: [1.25, 2.5, 5, 10, 20, 30], insertionDb: null, tapMeans: null } } })
  const edit = changeKind(retapped, made.kindId, { name: 'Ceiling', nominalOhm: 8, continuousW: 30, scales: ceiling.scales })!
  const after = done(retapped, edit)

  test.each([
    ['one that had nothing by hand', a, 'Ceiling | 5 of 5 10 at 70 | 30 | 8 | '],
    ['its tap is its own, and no difference', b, 'Ceiling | 0 of 5 10 at 70 | 30 | 8 | '],
    ['what was set by hand stays, and is marked', c, 'Ceiling | 5 of 5 10 at 70 | 15 | 8 | continuousW'],
    ['one of no kind', plain, ' | 8 nominal |  |  | none'],
  ])('%s', (_, id, expected) => expect(says(after, id)).toBe(expected))

  test('back by one undo, and what was by hand may be taken back', () => {
    expect(applyEdit(after, applyEdit(retapped, edit).inverse).job).toEqual(retapped)
    expect(says(done(after, asKind(after, [a, b, c])), c)).toBe('Ceiling | 5 of 5 10 at 70 | 30 | 8 | ')
    expect(asKind(after, [a, plain])).toBeNull()
  })
  test('nothing changed is no edit; a kind that is not there neither', () => {
    expect([changeKind(after, made.kindId, { name: 'Ceiling' }), changeKind(after, 'nope', { name: 'x' }), giveKind(after, [a], 'nope', () => null), removeKind(after, 'nope')]).toEqual([null, null, null, null])
  })
  test('by hand to what the kind then becomes: the undo leaves it', () => {
    const same15 = done(after, changeKind(after, made.kindId, { continuousW: 15 }))
    expect([says(same15, a), says(same15, c)]).toEqual(['Ceiling | 5 of 5 10 at 70 | 15 | 8 | ', 'Ceiling | 5 of 5 10 at 70 | 15 | 8 | '])
    expect(says(done(same15, applyEdit(after, changeKind(after, made.kindId, { continuousW: 15 })!).inverse), c)).toBe('Ceiling | 5 of 5 10 at 70 | 15 | 8 | continuousW')
  })
})

test.each<[string, Partial<SpeakerModel>, Speaker['load'], unknown]>([
  ['the nearest scale of its dial', ceiling, { kind: 'tap', tapW: 10, ratedV: 100, tapsW: [], insertionDb: null, tapMeans: null }, { kind: 'tap', tapW: 10, ratedV: 100, tapsW: [10, 20], insertionDb: null, tapMeans: null }],
  ['nearest by ratio', { scales: [{ lineV: 25, tapsW: [1] }, { lineV: 100, tapsW: [2] }] }, { kind: 'tap', tapW: 1, ratedV: 51, tapsW: [], insertionDb: null, tapMeans: null }, { kind: 'tap', tapW: 1, ratedV: 100, tapsW: [2], insertionDb: null, tapMeans: null }],
  ['a plain one keeps to its ohms', ceiling, { kind: 'nominal', nominalOhm: 4 }, { kind: 'nominal', nominalOhm: 8 }],
  ['one without a transformer loses its tap', { nominalOhm: 4 }, { kind: 'tap', tapW: 10, ratedV: 100, tapsW: [10], insertionDb: null, tapMeans: null }, { kind: 'nominal', nominalOhm: 4 }],
  ['parameters of the unit', { nominalOhm: 8, smallSignal: { reOhm: 6, leH: 0, fsHz: 50, qms: 3, qes: 1 } }, { kind: 'nominal', nominalOhm: 4 }, { kind: 'motional', nominalOhm: 8, reOhm: 6, leH: 0, fsHz: 50, qms: 3, qes: 1 }],
  ['two coils', { members: { kind: 'members', joined: 'series', members: [{ kind: 'nominal', nominalOhm: 4 }, { kind: 'nominal', nominalOhm: 4 }] } }, { kind: 'nominal', nominalOhm: 4 }, { kind: 'members', joined: 'series', members: [{ kind: 'nominal', nominalOhm: 4 }, { kind: 'nominal', nominalOhm: 4 }] }],
  ['nothing stated: it stays', {}, { kind: 'nominal', nominalOhm: 4 }, { kind: 'nominal', nominalOhm: 4 }],
])('the load of a model: %s', (_, model, load, expected) => {
  const whole = { ...unstatedModel('speaker', 'm'), ...model }
  expect(fieldsOf(whole, { load, driverOhm: null }).load).toEqual(expected)
  // What a speaker says of itself is a model that says the same of it.
  const speaker: Speaker = { ...at(line, a), load: expected as Speaker['load'], driverOhm: null }
  const own = modelOf(speaker, 'f')
  expect(byHand({ ...speaker, name: 'f' }, { what: 'speaker', id: 'k', from: null, model: own })).toEqual([])
})

test('what a speaker says of itself: taps of its dial where it has any, a name where it has one', () => {
  const of = (tapsW: number[], name: string) => modelOf({ ...at(line, a), name, load: { kind: 'tap', tapW: 5, ratedV: 70, tapsW, insertionDb: null, tapMeans: null }, driverOhm: 8 }, 'fallback')
  expect([of([5, 10], 'Horn').scales, of([], 'Horn').scales, of([5], ' ').name, of([5], 'Horn').name, of([5], 'Horn').nominalOhm]).toEqual([[{ lineV: 70, tapsW: [5, 10] }], [], 'fallback', 'Horn', 8])
})

test('the rating believed counts before the one stated', () => {
  expect(fieldsOf({ ...ceiling, believedW: 12 }, at(line, a)).continuousW).toBe(12)
})

test('given and taken off: a plain speaker on a distributed line gets the transformer, on its lowest tap', () => {
  const job = { ...line, kinds: [{ what: 'speaker' as const, id: 'k', from: null, model: ceiling }] }
  const given = done(job, giveKind(job, [a, plain], 'k', id => id === plain ? 100 : 70))
  expect([says(given, a), says(given, plain)]).toEqual(['Ceiling | 5 of 5 10 at 70 | 30 | 8 | ', 'Ceiling | 10 of 10 20 at 100 | 30 | 8 | '])
  expect(says(done(job, giveKind(job, [plain], 'k', () => null)), plain)).toBe('Ceiling | 8 nominal | 30 |  | ')
  const off = done(given, giveKind(given, [a], null, () => null))
  expect(says(off, a)).toBe('Ceiling | 5 of 5 10 at 70 | 30 | 8 | none')
  const gone = done(given, removeKind(given, 'k'))
  expect([gone.kinds, says(gone, plain)]).toEqual([[], 'Ceiling | 10 of 10 20 at 100 | 30 | 8 | none'])
})

test('out of the library: one copy a version, however often it is given; a newer version is taken or passed over by one edit', () => {
  const given = done(line, giveModel(line, [a, b], { modelId: 'm', version: 2, model: ceiling }, () => 70, counter('k')))
  const again = done(given, giveModel(given, [c], { modelId: 'm', version: 2, model: ceiling }, () => 70, counter('z')))
  expect([again.kinds.map(k => [k.id, k.from]), says(again, c)]).toEqual([[['k1', { modelId: 'm', version: 2, passed: null }]], 'Ceiling | 5 of 5 10 at 70 | 30 | 8 | '])
  // Another model, another version, or the same one changed by hand is a copy of its own.
  for (const [modelId, version, model] of [['n', 2, ceiling], ['m', 3, ceiling], ['m', 2, { ...ceiling, continuousW: 9 }]] as const) {
    expect(done(again, giveModel(again, [d], { modelId, version, model }, () => 70, counter('y'))).kinds).toHaveLength(2)
  }
  const [kind] = again.kinds
  expect([newerThan(kind!.from, { id: 'm', version: 3 }), newerThan(kind!.from, { id: 'm', version: 2 }), newerThan(kind!.from, { id: 'n', version: 3 }), newerThan(kind!.from, null), newerThan(null, { id: 'm', version: 3 })]).toEqual([3, null, null, null, null])
  const taken = done(again, takeVersion(again, 'k1', 3, { ...ceiling, continuousW: 20 }))
  expect([taken.kinds[0]!.from, says(taken, a)]).toEqual([{ modelId: 'm', version: 3, passed: null }, 'Ceiling | 5 of 5 10 at 70 | 20 | 8 | '])
  expect(applyEdit(taken, applyEdit(again, takeVersion(again, 'k1', 3, { ...ceiling, continuousW: 20 })!).inverse).job).toEqual(again)
  // The same figures under a new number are still a version taken.
  expect(done(again, takeVersion(again, 'k1', 3, ceiling)).kinds[0]!.from!.version).toBe(3)
  const passed = done(again, passVersion(again, 'k1', 3))
  expect([newerThan(passed.kinds[0]!.from, { id: 'm', version: 3 }), newerThan(passed.kinds[0]!.from, { id: 'm', version: 4 }), says(passed, a)]).toEqual([null, 4, 'Ceiling | 5 of 5 10 at 70 | 30 | 8 | '])
  expect([passVersion(ofOne, made.kindId, 3), passVersion(line, 'nope', 3)]).toEqual([null, null])
})

test('equals are those of no kind that agree in all but label, tap and cable; a copy is of the kind', () => {
  expect([equalsOf(line, a), equalsOf(line, plain), equalsOf(ofOne, a), equalsOf(line, 'nope')]).toEqual([[a, b, c, d], speakersOf(outputOf(line, 1).wiring).map(s => s.id), [], []])
  const { edit, nodeIds } = copyEach(ofOne, [a, b], counter('z'))
  expect(nodeIds.map(id => says(done(ofOne, edit), id))).toEqual([says(ofOne, a), says(ofOne, b)])
})

test('pasted into a job that has not its kind, it is of none; so is one whose kind is gone', () => {
  const { edit, nodeIds } = hang(line, outputOf(ofOne).wiring.children, { outputId: 'out2' }, counter('z'))
  expect(nodeIds.map(id => says(done(line, edit), id))).toEqual(Array(4).fill('5 W on 70 V | 5 of 1.25 2.5 5 10 20 30 at 70.71 |  |  | none'))
  expect(equalsOf({ ...ofOne, kinds: [] }, a)).toEqual([a, b, c, d])
})

test('a kind in use is not removed; its id is no other’s', () => {
  expect(() => applyEdit(ofOne, { kind: 'kind.remove', kindId: made.kindId, was: null })).toThrow(expect.objectContaining({ refusal: { code: 'not-valid', message: '4 speakers are of the kind “5 W on 70 V”: take them off it first.' } }))
  expect(() => applyEdit(ofOne, { kind: 'kind.add', index: 0, item: { what: 'speaker', id: a, from: null, model: ceiling } })).toThrow(expect.objectContaining({ refusal: { code: 'already-there', id: a } }))
})

test('a cabinet stays plugged as it is, a coil stays a coil, whatever their kind says; a curve comes along', () => {
  const model = unstatedModel('speaker', 'Cabinet')
  const positions = [16, 4].map(nominalOhm => ({ jack: `${nominalOhm}`, switchTo: '', plays: 'all' as const, load: { kind: 'nominal' as const, nominalOhm } }))
  const coil = { kind: 'coil' as const, unit: 'Sub', of: 2, coil: { kind: 'nominal' as const, nominalOhm: 4 } }
  const points: [number, number, number | null][] = [[20, 8, 1], [20_000, 20, null]]
  const load = (of: Partial<typeof model>, now: Speaker['load']) => fieldsOf({ ...model, ...of }, { load: now, driverOhm: null }).load
  expect([
    load({ positions }, { kind: 'cabinet', at: 1, positions }), load({ positions: positions.slice(0, 1) }, { kind: 'cabinet', at: 1, positions }), load({ positions }, { kind: 'nominal', nominalOhm: 8 }),
    load({ nominalOhm: 8 }, coil), load({ nominalOhm: 8, curve: points }, { kind: 'nominal', nominalOhm: 4 }),
  ]).toEqual([
    { kind: 'cabinet', at: 1, positions }, { kind: 'cabinet', at: 0, positions: positions.slice(0, 1) }, { kind: 'cabinet', at: 0, positions }, coil, { kind: 'curve', nominalOhm: 8, reOhm: null, points },
  ])
})
