import { describe, expect, test } from '@jest/globals'
import { unstatedModel } from '#core/gear/models'
import type { SpeakerModel } from '#core/gear/speaker'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Job, Space } from '#core/job/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { hangSpace, layOut, spaceById } from '#core/hands/spaces'
import { outputsOf } from '#core/job/tree'
import { counter, jobOf } from '#core/testing/jobs'
import { makeEvaluator } from '#core/line/evaluate'
import { dropsById, fieldOf, spaceFacts, wattDbOf } from './spaces'

const stated: SpeakerModel = {
  ...unstatedModel('speaker', 'Ceiling'), nominalOhm: 8, sensitivityDb: 89, sensitivityAt: '1 W', coverageDeg: 90, scales: [{ lineV: 70.71, tapsW: [1.25, 2.5, 5, 10] }], insertionDb: 1, tapMeans: 'line-gives',
}
const done = (job: Job, edit: Edit | null) => edit ? applyEdit(job, edit).job : job
function room(over: Partial<Space> = {}, model: Partial<SpeakerModel> = {}, places = [{ xM: 4, yM: 3 }]): Job {
  const job = done(jobOf('1 x 10 W on 70 V 240 W'), { kind: 'kind.add', index: 0, item: { what: 'speaker', id: 'k', from: null, model: { ...stated, ...model } } })
  const made = done(job, { kind: 'space.add', index: 0, space: { ...plainSpace('hall', 'Hall'), kindId: 'k', rackM: 20, noiseDb: 58, peaks: 'none', ...over } })
  return done(made, layOut(made, spaceById(made, 'hall')!, places, counter('spot')))
}
const facts = (job: Job) => spaceFacts(job, dropsById(makeEvaluator()(job).lines), spaceById(job, 'hall')!, fieldOf(spaceById(job, 'hall')!, 400))
function hang(job: Job, tapW: number): Job {
  const answer = hangSpace(job, spaceById(job, 'hall')!, { outputId: outputsOf(job)[0]!.id }, { tapW, cable: { awg: 18 }, newId: counter('n') })
  if (typeof answer === 'string') throw new Error(answer)
  return done(job, answer.edit)
}

test('planned: the tap less its transformer’s loss sounds; hung: what the cable leaves of it', () => {
  const planned = facts(room({ tapW: 5 }))
  const [spot] = planned.spots
  // 5 W less 1 dB are 3.97 W: 89 + 5.99 dB at a metre.
  expect([spot!.basis, spot!.powerW, spot!.source!.atMetreDb, planned.free, planned.unknown, planned.assumed]).toEqual(['planned', expect.closeTo(3.972, 3), expect.closeTo(94.99, 2), 1, [], []])
  const hung = facts(hang(room({ tapW: 5 }), 5))
  expect([hung.spots[0]!.basis, hung.free, hung.spots[0]!.powerW! < 3.972, hung.spots[0]!.powerW! > 3.8]).toEqual(['solved', 0, true, true])
  expect(hung.level!.meanDb).toBeCloseTo(planned.level!.meanDb + 10 * Math.log10(hung.spots[0]!.powerW! / spot!.powerW!), 6)
})

test('target, circle, spacing; what is kept for peaks comes off the level', () => {
  const f = facts(room({ overlap: 'edge' }))
  expect([f.targetDb, f.circleM, f.spacingM]).toEqual([64, expect.closeTo(3.6, 6), expect.closeTo(3.6, 6)])
  expect(facts(room({ overlap: 'edge', peaks: 'open' })).level!.meanDb).toBeCloseTo(f.level!.meanDb - 6, 6)
})

describe('taps', () => {
  const lowest = (noiseDb: number | null, tapW = 1.25) => facts(room({ noiseDb, tapW })).taps!.lowestW
  test('the lowest that brings the mean to the target; each step says what it would be', () => {
    const { taps, level } = facts(room({ tapW: 2.5 }))
    expect(taps!.steps.map(s => [s.tapW, Number((s.meanDb - level!.meanDb).toFixed(2))])).toEqual([[1.25, -3.01], [2.5, 0], [5, 3.01], [10, 6.02]])
    // The target just met and just missed by the step at 2.5 W.
    const at = (tapW: number) => taps!.steps.find(s => s.tapW === tapW)!.meanDb
    expect([lowest(at(2.5) - 6 - 0.01), lowest(at(2.5) - 6 + 0.01), lowest(at(10) - 6 - 0.01, 10), lowest(at(10) - 6 + 0.01, 10), lowest(null)])
      .toEqual([2.5, 5, 10, null, null])
  })
  test('none where they differ, or one is off, or hangs on none', () => {
    const two = hang(room({}, {}, [{ xM: 2, yM: 3 }, { xM: 6, yM: 3 }]), 5)
    const [first] = spaceById(two, 'hall')!.spots
    const load = facts(two).spots[0]!.speaker!.load
    const set = (tapW: number) =>
      facts(done(two, { kind: 'speaker.set', nodeId: first!.nodeId!, was: { load }, to: { load: { ...load, tapW } as never } }))
    expect([facts(two).taps!.nowW, set(10).taps, set(0).taps, facts(room({}, { scales: [] })).taps])
      .toEqual([5, { nowW: null, lowestW: null, steps: [] }, null, null])
    expect(set(0).level!.meanDb).toBeLessThan(facts(two).level!.meanDb)
  })
})

test.each<[string, Job, string[]]>([
  ['all known', room(), []], ['noise', room({ noiseDb: null }), ['noise']], ['no kind', room({ kindId: null }), ['kind']], ['no places', room({}, {}, []), ['no-places']], ['sensitivity', room({}, { sensitivityDb: null }), ['sensitivity']],
  ['sensitivity of what', room({}, { sensitivityAt: null }), ['sensitivity']], ['coverage', room({}, { coverageDeg: null }), ['coverage']], ['no taps, none hung', room({}, { scales: [] }), ['power']],
])('not known: %s', (_, job, unknown) => {
  const f = facts(job)
  expect(f.unknown).toEqual(unknown)
  if (unknown.some(u => u !== 'noise')) expect([f.level, f.taps]).toEqual([null, null])
})
test('a loss that is not stated is taken as 1 dB and said so', () => {
  const f = facts(room({ tapW: 5 }, { insertionDb: null }))
  expect([f.assumed, f.spots[0]!.powerW]).toEqual([['transformer-loss'], expect.closeTo(3.972, 3)])
  expect(facts(room({ tapW: 5 }, { insertionDb: null, tapMeans: 'driver-gets' })).assumed).toEqual([])
})
test('one of several not known: no level of the whole', () => {
  const two = hang(room({}, {}, [{ xM: 2, yM: 3 }, { xM: 6, yM: 3 }]), 5)
  const bare = done(two, { kind: 'speaker.set', nodeId: spaceById(two, 'hall')!.spots[0]!.nodeId!, was: { kindId: 'k' }, to: { kindId: null } })
  expect([facts(bare).unknown, facts(bare).level]).toEqual([['kind'], null])
})
test('a watt at 2.83 V into 4 Ω is 3 dB less', () => expect(wattDbOf({ model: { ...stated, sensitivityAt: '2.83 V', nominalOhm: 4 } } as never)).toBeCloseTo(85.99, 2))
