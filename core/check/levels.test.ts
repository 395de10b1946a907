import { describe, expect, test } from '@jest/globals'
import { unstatedModel } from '#core/gear/models'
import type { Job, Reading } from '#core/job/schema'
import { Records } from '#core/job/records'
import { checkValue } from '#core/job/sections/readings/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { withBranch } from '#core/job/tree'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { askedOf } from './asked'
import { predictLine } from './predict'
import { makeProver } from './proveJob'
import { checkKey, proveLine } from './proof'
import { verdictWords } from './signs'
import { valueWords } from './words'

type Level = Extract<Reading['value'], { is: 'level' }>
type Read = [speaker: number, db: number, more?: Partial<Level> & { at?: string, id?: string, withdrawn?: boolean }]
const plain = { weighting: 'A', signal: 'pink-noise', headV: null } as const

function readOn(job: Job, ...reads: Read[]): Job {
  const output = outputOf(job)
  const readings = reads.map(([speaker, db, { at = '2026-05-04T09:30:00Z', id, withdrawn = false, ...value } = {}], k): Reading => ({
    id: id ?? `r${k}`, at, kind: 'level', outputId: output.id, nodeId: nodeIds(output)[speaker]!, value: { is: 'level', db, ...plain, ...value }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn,
  }))
  return { ...job, readings: Records.of(readings) }
}
const judged = (job: Job, speaker = 0) => {
  const output = outputOf(job)
  return proveLine(job, output, undefined, askedOf(job)).standing.get(checkKey('level', nodeIds(output)[speaker]!))!
}
const four = jobOf('4 x 5 W on 70 V')
const mixed = jobOf('2 x 5 W + 2 x 10 W on 70 V')

describe('a level against those under others like it', () => {
  test.each<[string, Job, string, RegExp]>([
    ['alone', readOn(four, [0, 80]), 'nothing-to-compare', /none like it was read so on that day/],
    ['2 dB off the middle of three', readOn(four, [0, 82], [1, 79], [2, 80], [3, 91]), 'alike', /^Under 3 like it, in the middle, 80 dB, brought to its watts\. As loud as those, within 2 dB\./],
    ['more than 2 dB over', readOn(four, [0, 82.1], [1, 79], [2, 80], [3, 91]), 'louder', /Another tap, another scale/],
    ['more than 2 dB under the middle of two', readOn(four, [0, 77.4], [1, 79], [2, 80]), 'quieter', /^Under 2 like it, in the middle, 79.5 dB/],
    ['half the tap, and half the watts drawn so', readOn(mixed, [0, 80], [2, 83]), 'alike', /^Under one like it 80 dB/],
    ['drawn as twice the watts, and no louder', readOn(mixed, [2, 80], [0, 80]), 'quieter', /^Under one like it 83 dB/],
    ['another weighting is another figure', readOn(four, [0, 80], [1, 90, { weighting: 'C' }]), 'nothing-to-compare', /none like it was read so/],
    ['another signal', readOn(four, [0, 80], [1, 90, { signal: 'programme' }]), 'nothing-to-compare', /none like it was read so/],
    ['another day', readOn(four, [0, 80], [1, 90, { at: '2026-05-05T09:30:00Z' }]), 'nothing-to-compare', /none like it was read so/],
    ['other volts', readOn(four, [0, 80, { headV: 10 }], [1, 90, { headV: 20 }]), 'nothing-to-compare', /none like it was read so/],
    ['of each place the last counts', readOn(four, [0, 80], [1, 95], [1, 80, { at: '2026-05-04T09:40:00Z', id: 'later' }]), 'alike', /As loud as those/],
    ['one taken back is none', readOn(four, [0, 80], [1, 95, { withdrawn: true }]), 'nothing-to-compare', /none like it was read so/],
    ['another kind of speaker', readOn(withBranch(four, nodeIds(outputOf(four))[1]!, b => ({ ...b, node: { ...b.node, name: 'Horn' } as typeof b.node })), [0, 80], [1, 95]), 'nothing-to-compare', /none like it was read so/],
  ])('%s', (_, job, code, says) => {
    const { verdict, predicted } = judged(job, nodeIds(outputOf(job)).indexOf([...job.readings][0]!.nodeId!))
    expect([verdict.code, verdictWords('level', verdict.code, predicted)]).toEqual([code, expect.stringMatching(says)])
  })
})

describe('less than its direct sound alone must bring', () => {
  // 90 dB for 1 W at 1 m, 2 m above ears: 83.98 dB; 5 W of a line at its 70.71 V: 90.97; 4 dB are left for meter, sheet and place.
  const model = { ...unstatedModel('speaker', 'Ceiling'), sensitivityDb: 90, sensitivityAt: '1 W' as const }
  const ids = nodeIds(outputOf(four))
  const hung = (more: { sensitivityDb?: number | null, aim?: { turnDeg: number, tiltDeg: number }, kindId?: string | null } = {}): Job => {
    const job = withBranch({ ...four, kinds: [{ what: 'speaker', id: 'k', from: null, model: { ...model, ...more.sensitivityDb === undefined ? {} : { sensitivityDb: more.sensitivityDb } } }] }, ids[0]!, b => ({ ...b, node: { ...b.node, kindId: more.kindId === undefined ? 'k' : more.kindId } as typeof b.node }))
    return { ...job, spaces: [{ ...plainSpace('s', 'Hall'), heightM: 3.2, earsM: 1.2, spots: [{ id: 'p', xM: 1, yM: 1, heightM: null, aim: more.aim ?? null, nodeId: ids[0]! }] }] }
  }
  const z = { weighting: 'Z', headV: 70.71 } as const
  test.each<[string, Job, string, RegExp]>([
    ['just enough proves no more', readOn(hung(), [0, 87, z]), 'over-direct', /^Its direct sound alone brings at least 87 dB\. At least what/],
    ['less than that', readOn(hung(), [0, 86.9, z]), 'under-direct', /should bring more at these volts/],
    ['less, though alike with another', readOn(hung({ kindId: 'k' }), [0, 80, z]), 'under-direct', /should bring more/],
    ['a tenth of the volts are 20 dB', readOn(hung(), [0, 67, { ...z, headV: 7.071 }]), 'over-direct', /At least what/],
    ['volts not read', readOn(hung(), [0, 60, { ...z, headV: null }]), 'nothing-to-compare', /none like it was read so/],
    ['weighted A it is another figure', readOn(hung(), [0, 60, { ...z, weighting: 'A' }]), 'nothing-to-compare', /none like it was read so/],
    ['a tone stands in waves', readOn(hung(), [0, 60, { ...z, signal: 'tone-1k' }]), 'nothing-to-compare', /none like it was read so/],
    ['aimed elsewhere', readOn(hung({ aim: { turnDeg: 0, tiltDeg: 20 } }), [0, 60, z]), 'nothing-to-compare', /none like it was read so/],
    ['sensitivity not stated', readOn(hung({ sensitivityDb: null }), [0, 60, z]), 'nothing-to-compare', /none like it was read so/],
    ['of no kind', readOn(hung({ kindId: null }), [0, 60, z]), 'nothing-to-compare', /none like it was read so/],
  ])('%s', (_, job, code, says) => {
    const { verdict, predicted } = judged(job)
    expect([verdict.code, verdictWords('level', verdict.code, predicted)]).toEqual([code, expect.stringMatching(says)])
  })

  test('a place that is moved is judged anew, and nothing else of the line', () => {
    const job = readOn(hung(), [0, 86.9, z])
    const prove = makeProver()
    const lines = [{ output: outputOf(job), predicted: predictLine(outputOf(job)) }]
    const code = (j: Job) => prove(j, lines, askedOf(j)).get(outputOf(j).id)!.standing.get(checkKey('level', ids[0]!))!.verdict.code
    expect([code(job), code({ ...job, spaces: [{ ...job.spaces[0]!, heightM: 3.6 }] }), code(job)]).toEqual(['under-direct', 'over-direct', 'under-direct'])
    expect(prove(job, lines, askedOf(job)).get('out1')).toBe(prove(job, lines, askedOf(job)).get('out1'))
  })
})

test('a level is written with its weighting, its signal and its volts; one of another shape is refused', () => {
  const job = readOn(four, [0, 81.24, { headV: 24 }])
  expect([[...job.readings].map(r => valueWords(r.value)), valueWords({ is: 'level', db: 70, ...plain, weighting: 'Z', signal: 'programme' })]).toEqual([['81.2 dB(A), pink noise at 24 V'], '70 dB, programme'])
  const [reading] = [...job.readings]
  expect(() => checkValue({ ...reading!, value: { is: 'plays' } }, 'reading')).toThrow(/level cannot be “plays”/)
  expect(() => checkValue({ ...reading!, kind: 'sound' }, 'reading')).toThrow(/sound cannot be “level”/)
})
