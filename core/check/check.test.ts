import { describe, expect, test } from '@jest/globals'
import { cabled, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { withBranch } from '#core/job/tree'
import { Records } from '#core/job/records'
import type { Job, Reading, ReadingKind, ReadingValue } from '#core/job/schema'
import { predictLine } from './predict'
import { checkKey, firstWrong, historyOf, proveLine } from './proof'
import { isWrong, judge } from './verdict'
import { GRADE_WORDS, MARKS, plannedWords } from './gradeWords'
import { verdictWords } from './signs'
import { SOUND_WORDS, takenWords, valueWords, VERDICT_TAGS } from './words'

const driver8 = (job: Job) => nodeIds(outputOf(job)).reduce((j, id) => withBranch(j, id, b => b.node.kind === 'speaker' ? { ...b, node: { ...b.node, driverOhm: 8 } } : b), job)
const foretold = (job: Job, kind: ReadingKind) => predictLine(outputOf(job)).find(p => p.kind === kind)!

describe('predicted readings', () => {
  // Bands: 0.70 to 0.90 of nominal for a coil; units at 0.70 to 1.10 (behind transformers) or 1.50 of their label, alike within a model;
  // each by a tenth of its own, a meter of 2 % and 0.1 Ω, two sigma: common practice, no source.
  // Combined by hand: the exponential of the root of the sum of squares of logarithms.
  const edge = (expected: number, shared: number, own: number) =>
    expected * Math.exp(Math.sign(Math.log(shared)) * Math.hypot(Math.log(shared), own, 0.04, 0.1 / expected))
  test.each<[string, Job, ReadingKind, (number | null)[]]>([
    ['ten taps of 5 W at 70 V: 100 Ω', jobOf('10 x 5 W on 70 V'), 'line-impedance', [edge(100, 0.7, Math.log(1.1) / Math.sqrt(10)), 100, edge(100, 1.1, Math.log(1.1) / Math.sqrt(10))]],
    ['the ladder of 20 × 10 W: 26.5 Ω', cabled(jobOf('20 x 10 W on 70 V'), { cable: { awg: 16 }, lengthM: 8 }), 'line-impedance', [18.86, 26.5, 29.3]],
    ['its copper is not known', jobOf('10 x 5 W on 70 V'), 'line-dcr', [null, null, null]],
    ['8 Ω by its label', jobOf('8'), 'line-impedance', [edge(8, 0.7, Math.log(1.1)), 8, edge(8, 1.5, Math.log(1.1))]],
    ['its coil', jobOf('8'), 'coil-dcr', [5.6, 6.4, 7.2]],
    ['two in series at the head', jobOf('8 + 8'), 'line-dcr', [11.2, 12.8, 14.4]],
    ['4 Ω over 20 m of 1.5 mm²', cabled(jobOf('4'), { cable: { areaMm2: 1.5 }, lengthM: 20 }), 'line-dcr', [3.33, 3.73, 4.13]],
    ['a driver behind a transformer', driver8(jobOf('5 W on 70 V')), 'coil-dcr', [5.6, 6.4, 7.2]],
    ['a driver of which nothing is known', jobOf('5 W on 70 V'), 'coil-dcr', [null, null, null]],
  ])('%s', (_, job, kind, [low, expected, high]) => {
    const p = foretold(job, kind)
    const rounded = [p.low, p.expected, p.high].map(v => v === null ? null : Number(v.toFixed(2)))
    ;[low, expected, high].forEach((v, k) => v === null ? expect(rounded[k]).toBeNull() : expect(Math.abs(rounded[k]! / v! - 1)).toBeLessThan(2e-3))
    expect(p.source.length).toBeGreaterThan(20)
  })
})

test('what is said of the drawing and what is said of readings share no word', () => {
  const words = (all: string[]) => all.join(' ').toLowerCase().split(/[^a-z]+/)
  const [planned, found] = [words([...Object.values(GRADE_WORDS), plannedWords('good', 1)]), words([...Object.values(VERDICT_TAGS), ...Object.values(MARKS).map(m => m.says)])]
  expect(planned.filter(w => found.includes(w) && !['not', 'on'].includes(w))).toEqual([])
  expect([plannedWords('good', 0), plannedWords('good', 1), plannedWords('tight', 1)]).toEqual(['Good', 'Fits on paper', 'Tight'])
})

test.each<[ReadingKind, string, ReadingValue, string, RegExp]>([
  // The table of signs: common practice, no source.
  ['coil-dcr', '8', { is: 'ohm', ohm: 6.5 }, 'as-planned', /5.6 Ω to 7.2 Ω/],
  ['coil-dcr', '8', { is: 'ohm', ohm: 31.4 }, 'far-high', /corroding joint or a failing coil/],
  ['coil-dcr', '8', { is: 'ohm', ohm: 7.4 }, 'just-high', /read again/],
  ['coil-dcr', '8', { is: 'ohm', ohm: 5.4 }, 'just-low', /Right would be 5.6 Ω to 7.2 Ω. Just outside/],
  ['coil-dcr', '8', { is: 'ohm', ohm: 10 }, 'high', /joint/],
  ['coil-dcr', '8', { is: 'ohm', ohm: 4.7 }, 'far-low', /Shorted turns/],
  ['coil-dcr', '8', { is: 'ohm', ohm: 5.1 }, 'low', /begins to short/],
  ['coil-dcr', '8', { is: 'open' }, 'open', /broken/],
  ['coil-dcr', '8', { is: 'ohm', ohm: 0.1 }, 'short', /short/],
  ['line-impedance', '9 x 5 W on 70 V', { is: 'ohm', ohm: 111 }, 'as-planned', /As it should be/],
  ['line-impedance', '10 x 5 W on 70 V', { is: 'ohm', ohm: 160 }, 'high', /missing or on a lower tap/],
  ['line-impedance', '10 x 5 W on 70 V', { is: 'ohm', ohm: 65 }, 'low', /A speaker more than drawn, a higher tap, or leakage/],
  ['line-impedance', '10 x 5 W on 70 V', { is: 'ohm', ohm: 9 }, 'far-low', /More than twice the load that is right; what the output stands is not known\. Look for a speaker on its 8 Ω position/],
  ['line-impedance', '10 x 5 W on 70 V 100 W', { is: 'ohm', ohm: 45 }, 'far-low', /Ω\. More than the output stands\. Look for/],
  ['line-impedance', '10 x 5 W on 70 V', { is: 'open' }, 'open', /break before the first/],
  ['line-dcr', '10 x 5 W on 70 V', { is: 'ohm', ohm: 12 }, 'not-open', /never “right”/],
  ['sound', '8', { is: 'silent' }, 'silent', /open coil or joint/],
  ['sound', '8', { is: 'plays' }, 'plays', /sounds/],
  ['sound', '8', { is: 'scratchy' }, 'scratchy', /rubbing coil/], ['sound', '8', { is: 'thin' }, 'thin', /other way round/], ['sound', '8', { is: 'quiet' }, 'quiet', /lower tap/],
  ['sound', '8', { is: 'hum' }, 'hum', /tingle: hands off, mains off at the breaker, and a licensed person/], ['sound', '8', { is: 'comes-and-goes' }, 'comes-and-goes', /several days/],
])('%s on “%s”: %j is %s', (kind, line, value, code, says) => {
  const predicted = kind === 'sound' ? null : foretold(jobOf(line), kind)
  const verdict = judge(value, predicted)
  expect([verdict.code, valueWords(value).length > 2, VERDICT_TAGS[verdict.code].length > 3]).toEqual([code, true, true])
  expect(verdictWords(kind, verdict.code, predicted)).toMatch(says)
})

test('the edges of a band, to the hair', () => {
  const plan = foretold(jobOf('10 x 5 W on 70 V'), 'line-impedance')
  const [low, high] = [plan.low!, plan.high!]
  const hair = 1e-9
  const edges: [number, string][] = [
    [low, 'as-planned'], [low * (1 - hair), 'just-low'], [low * 0.95, 'just-low'], [low * 0.95 * (1 - hair), 'low'], [low * 0.5 * (1 + hair), 'low'], [low * 0.5 * (1 - hair), 'far-low'],
    [high, 'as-planned'], [high * (1 + hair), 'just-high'], [high * 1.05, 'just-high'], [high * 1.05 * (1 + hair), 'high'], [high * 2, 'high'], [high * 2 * (1 + hair), 'far-high'],
    [0.5, 'far-low'], [0.5 - hair, 'short'],
  ]
  expect(edges.map(([ohm]) => judge({ is: 'ohm', ohm }, plan).code)).toEqual(edges.map(([, code]) => code))
  // Of a band under an ohm a short is half of its lower edge.
  const small = { ...plan, low: 0.6, expected: 0.7, high: 0.8 }
  expect([0.29, 0.31, 0.7].map(ohm => judge({ is: 'ohm', ohm }, small).code)).toEqual(['short', 'low', 'as-planned'])
  // A coil under 0.6 of its label, which is 6/7 of its lower edge; a line of a stated output where that is overloaded.
  const coil = { ...plan, kind: 'coil-dcr' as const }
  expect([0.6 / 0.7 * (1 + hair), 0.6 / 0.7 * (1 - hair)].map(part => judge({ is: 'ohm', ohm: low * part }, coil).code)).toEqual(['low', 'far-low'])
  expect([61, 59].map(ohm => judge({ is: 'ohm', ohm }, { ...plan, overloadOhm: 60 }).code)).toEqual(['low', 'far-low'])
  // Known to one side alone, or not at all, nothing is judged; copper end to end is a short all the same.
  const codes = (p: Parameters<typeof judge>[1]) => [0.4, 50].map(ohm => judge({ is: 'ohm', ohm }, p).code)
  expect([codes({ ...plan, low: null }), codes({ ...plan, high: null }), codes(null), codes({ ...plan, kind: 'line-dcr', low: null, high: null })])
    .toEqual([['short', 'nothing-to-compare'], ['short', 'nothing-to-compare'], ['short', 'nothing-to-compare'], ['next-to-nothing', 'not-open']])
  expect((['good', 'tight', 'stop', 'unknown'] as const).map(grade => [isWrong({ code: 'high', grade }), MARKS[grade].mark])).toEqual([[false, '✓'], [true, '✕'], [true, '✕'], [false, '~']])
  expect([valueWords({ is: 'open' }), valueWords({ is: 'ohm', ohm: 8 })]).toEqual(['open', '8 Ω'])
  expect([verdictWords('coil-dcr', 'nothing-to-compare', null), verdictWords('coil-dcr', 'nothing-to-compare', { ...plan, source: 'x' }), verdictWords('sound', 'silent', null).startsWith('If all are silent, first the amplifier')])
    .toEqual(['Nothing to compare with: no plan for this place.', 'Nothing to compare with: x.', true])
})

describe('what is foretold of units whose curve is known', () => {
  const motional = { kind: 'motional' as const, nominalOhm: 8, reOhm: 5.6, leH: 0.5e-3, fsHz: 45, qms: 4.2, qes: 0.48 }
  const known = (job: Job) => nodeIds(outputOf(job)).reduce((j, id) => withBranch(j, id, b => b.node.kind === 'speaker' ? { ...b, node: { ...b.node, load: motional } } : b), job)
  // Small, JAES 1972: 6.19 Ω at 1 kHz; a tenth to each side with the meter, Re a tenth.
  test.each<[ReadingKind, (number | null)[]]>([['line-impedance', [5.57, 6.19, 6.87]], ['line-dcr', [5.04, 5.6, 6.16]], ['coil-dcr', [5.04, 5.6, 6.16]]])('%s', (kind, wanted) => {
    const p = foretold(known(jobOf('8')), kind)
    expect([p.low, p.expected, p.high].map(v => v!.toFixed(2))).toEqual(wanted.map(v => v!.toFixed(2)))
  })
  test('one transformer among plain speakers, and an ohmmeter sees its copper; a tap on off hides nothing; of no speaker nothing is foretold', () => {
    const mixed = withBranch(jobOf('8 || 8'), 'o1n3', b => b.node.kind === 'speaker' ? { ...b, node: { ...b.node, load: { kind: 'tap', tapW: 10, ratedV: 70.71, tapsW: [10], insertionDb: null, tapMeans: null } } } : b)
    expect([foretold(mixed, 'line-dcr').low, foretold(mixed, 'line-dcr').source]).toEqual([null, expect.stringMatching(/copper of the windings/)])
    const off = withBranch(jobOf('2 x 5 W on 70 V'), 'o1n3', b => b.node.kind === 'speaker' ? { ...b, node: { ...b.node, load: { kind: 'tap', tapW: 0, ratedV: 70.71, tapsW: [5], insertionDb: null, tapMeans: null } } } : b)
    expect([foretold(off, 'line-impedance').expected!.toFixed(0), predictLine({ ...outputOf(off), wiring: { ...outputOf(off).wiring, children: [] } })]).toEqual(['1000', []])
  })
})

describe('what stands, what is history', () => {
  const read = (id: string, minute: number, ohm: number, more: Partial<Reading> = {}): Reading => ({
    id, at: `2026-05-04T09:${String(minute).padStart(2, '0')}:00Z`, kind: 'line-impedance', outputId: 'out1', nodeId: null,
    value: { is: 'ohm', ohm }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false, ...more,
  })
  const proof = (readings: Reading[], repairedAt?: number) => {
    const job = jobOf('4 x 12.5 W on 70 V 100 W')
    const repairs = repairedAt === undefined ? [] : [{ id: 'fix', at: `2026-05-04T09:${repairedAt}:00Z`, outputId: 'out1', nodeId: 'o1n3', fault: 'open-at-drop' as const, note: '', who: null, withdrawn: false }]
    return proveLine({ ...job, readings: Records.of(readings), repairs: Records.of(repairs) }, outputOf(job))
  }
  const standing = (p: ReturnType<typeof proof>) => p.standing.get(checkKey('line-impedance', null))?.reading.id

  test.each<[string, Reading[], string | undefined]>([
    ['the last taken', [read('a', 10, 100), read('b', 20, 160)], 'b'],
    ['also when noted in another order', [read('b', 20, 160), read('a', 10, 100)], 'b'],
    ['not a withdrawn one', [read('a', 10, 100), read('b', 20, 160, { withdrawn: true })], 'a'],
    ['a correction in place of the wrong one', [read('a', 10, 160), read('b', 10, 100, { supersedes: 'a' })], 'b'],
    ['a withdrawn correction corrects nothing', [read('a', 10, 160), read('b', 10, 100, { supersedes: 'a', taken: null, withdrawn: true })], 'a'],
    ['none', [], undefined],
    ['a correction, though its clock was behind', [read('a', 20, 160), read('b', 10, 100, { supersedes: 'a' })], 'b'],
    ['what a correction of another corrects is not this one', [read('a', 20, 160), read('b', 10, 100), read('c', 5, 101, { supersedes: 'b' })], 'a'],
    ['of two at one moment the later in the list', [read('a', 10, 100), read('b', 10, 101)], 'b'],
    ['a correction of another place corrects nothing here', [read('a', 10, 100), read('b', 20, 7, { supersedes: 'x', nodeId: 'o1n3', kind: 'coil-dcr' })], 'a'],
  ])('%s', (_, readings, id) => expect(standing(proof(readings))).toBe(id))

  test('a repair makes earlier readings stale and is proved by a good one after it', () => {
    const before = proof([read('a', 10, 160)], 30)
    expect([before.standing.get(checkKey('line-impedance', null))!.stale, before.unproved.length, before.wrong]).toEqual([true, 1, 1])
    const after = proof([read('a', 10, 160), read('b', 40, 101)], 30)
    expect([after.unproved.length, after.wrong, after.proved, after.total]).toEqual([0, 0, 1, 13])
  })
  test.each<[string, Reading[], number, number[]]>([
    // Unproved repairs, stale ones among those that stand, and what is proved.
    ['a good reading at the very moment of the repair proves it', [read('a', 30, 101)], 30, [0, 0, 1]],
    ['one before it does not, and counts no more', [read('a', 20, 101)], 30, [1, 1, 1]],
    ['a bad one after it does not', [read('a', 40, 160)], 30, [1, 0, 0]],
    ['a good one of another speaker does not', [{ ...read('a', 40, 6), kind: 'sound', nodeId: 'o1n5', value: { is: 'plays' } }], 30, [1, 0, 1]],
    ['a good one of the speaker itself does', [{ ...read('a', 40, 6), kind: 'sound', nodeId: 'o1n3', value: { is: 'plays' } }], 30, [0, 0, 1]],
    ['a good one proves it beside a bad one of another speaker', [read('a', 40, 101), { ...read('b', 41, 6), kind: 'sound', nodeId: 'o1n5', value: { is: 'silent' } }], 30, [0, 0, 1]],
    ['one that says nothing does not', [{ ...read('a', 40, 6), kind: 'line-dcr', value: { is: 'ohm', ohm: 12 } }], 30, [1, 0, 0]],
  ])('%s', (_, readings, repairedAt, wanted) => {
    const p = proof(readings, repairedAt)
    expect([p.unproved.length, [...p.standing.values()].filter(j => j.stale).length, p.proved]).toEqual(wanted)
  })
  test('a repair taken back asks for no proof and makes nothing stale; of two the later does; those of other lines count for nothing here', () => {
    const fix = (id: string, minute: number, more: object = {}) =>
      ({ id, at: `2026-05-04T09:${minute}:00Z`, outputId: 'out1', nodeId: 'o1n3', fault: 'open-at-drop' as const, note: '', who: null, withdrawn: false, ...more })
    const told = (...repairs: ReturnType<typeof fix>[]) => {
      const job = jobOf('4 x 12.5 W on 70 V 100 W', '8')
      const p = proveLine({ ...job, readings: Records.of([read('a', 35, 101)]), repairs: Records.of(repairs) }, outputOf(job))
      return [p.repairs.length, p.unproved.length, p.standing.get(checkKey('line-impedance', null))!.stale]
    }
    expect([told(fix('x', 40, { withdrawn: true })), told(fix('x', 40, { outputId: 'out2' })), told(fix('x', 40), fix('y', 30)), told(fix('x', 30), fix('y', 40)), told(fix('x', 30), fix('y', 31))])
      .toEqual([[0, 0, false], [0, 0, false], [2, 1, true], [2, 1, true], [2, 0, false]])
  })
  test('history keeps every reading, newest first', () => {
    const others = [read('c', 30, 3, { kind: 'line-dcr' }), read('d', 30, 3, { nodeId: 'o1n3' }), read('e', 30, 3, { outputId: 'out2' })]
    const job = { ...jobOf('8'), readings: Records.of([read('a', 10, 1), read('b', 20, 2, { withdrawn: true }), ...others]) }
    expect(historyOf(job, 'out1', 'line-impedance', null).map(r => r.id)).toEqual(['b', 'a'])
    expect(firstWrong(proof([read('a', 10, 100)]))).toBeNull()
    expect(firstWrong(proof([read('a', 10, 160)]))!.reading.id).toBe('a')
  })
})

test('what plays but not as it should reads wrong, and is no silence', () => {
  const sounds = Object.keys(SOUND_WORDS) as (keyof typeof SOUND_WORDS)[]
  expect(([{ is: 'as-it-should' }, { is: 'seen', fault: 'rubbing' }, { is: 'goes-with-it', withId: null }, { is: 'stays', withId: 's2' }] as const).map(v => `${valueWords(v)}: ${judge(v, null).code} ${judge(v, null).grade}`))
    .toEqual(['nothing amiss: as-planned good', 'cone rubs, or torn: seen-wrong stop', 'it goes with the unit, by a known-good unit: goes-with-it unknown', 'it stays here, by its neighbour: stays unknown'])
  expect(sounds.map(is => `${valueWords({ is })} ${judge({ is }, null).grade}`)).toEqual(['plays good', 'silent stop', 'scratchy tight', 'thin tight', 'quiet tight', 'hum tight', 'comes and goes tight'])
})

test.each<[Reading['taken'], string]>([
  [null, ''], [{ by: '', meter: '', leadsOhm: null }, ''], [{ by: 'Iris', meter: 'blue one', leadsOhm: 0 }, 'Iris, blue one, leads nulled'], [{ by: '', meter: 'blue one', leadsOhm: 0.2 }, 'blue one, leads of 0.2 Ω taken off'],
])('how it was taken: %j', (taken, says) => expect(takenWords(taken)).toBe(says))
