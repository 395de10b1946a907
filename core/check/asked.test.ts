import { describe, expect, test } from '@jest/globals'
import { emptyJob } from '#core/job/document'
import { heardTogether } from '#core/job/heard'
import { Records } from '#core/job/records'
import type { Checks, Job, Leaving, Reading, ReadingValue } from '#core/job/schema'
import { DEFAULT_CHECKS } from '#core/job/sections/checks/schema'
import { checkValue } from '#core/job/sections/readings/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { speakersOf } from '#core/job/tree'
import { cabled, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { ASKED_UNSAID, askedOf, asksOf, blockedOn } from './asked'
import { batteriesFor } from './battery'
import { wayOhm } from './barePairs'
import { marksAt } from './marks'
import { outwardFrom } from './outward'
import { leftWords, openWords } from './openWords'
import { checkKey, proveLine, stateOf } from './proof'
import { judge } from './verdict'
import { amplifierFor, nextOpen, phaseOf, walkOf } from './walk'
import { roomsOf, walkOfJob } from './walkOrder'
import { valueWords, VERDICT_TAGS } from './words'

const asks = (text: string, checks: Partial<Checks> = {}, job: Job = jobOf(text)) =>
  asksOf(outputOf(job), askedOf({ ...job, checks: { ...DEFAULT_CHECKS, ...checks } })).map(({ kinds, speaker }) => `${kinds[0]} ${speaker?.label ?? ''}`.trim()).join(', ')

test.each<[string, string, Partial<Checks>, string]>([
  ['plain speakers: a battery goes round', '8 || 8', {}, 'line-impedance, coil-dcr 01, sound 01, polarity 01, coil-dcr 02, sound 02, polarity 02'],
  ['behind transformers it is heard', '2 x 5 W on 70 V', {}, 'line-impedance, coil-dcr 01, sound 01, polarity-heard 01, coil-dcr 02, sound 02, polarity-heard 02'],
  ['of one alone nobody asks which way round', '8', {}, 'line-impedance, coil-dcr 01, sound 01'],
  ['unless every one is asked for', '8', { polarity: 'every' }, 'line-impedance, coil-dcr 01, sound 01, polarity 01'],
  ['none', '8 || 8', { polarity: 'none', coils: 'none', sounds: 'none' }, 'line-impedance'],
  ['samples: the ends and one of each', '8 || 8 || 8 || 8 || 8', { coils: 'samples', sounds: 'none', polarity: 'none' }, 'line-impedance, coil-dcr 01, coil-dcr 05'],
  ['bare pairs before all', '8', { pairs: 'every' }, 'leg-earth, pair-apart, line-impedance, pair-through 01, coil-dcr 01, sound 01'],
])('what is asked for: %s', (_, text, checks, expected) => expect(asks(text, checks)).toBe(expected))

test('where nobody has looked beyond one line, one alone is heard with nothing', () => {
  const kinds = (text: string) => asksOf(outputOf(jobOf(text)), ASKED_UNSAID).map(ask => ask.kinds[0])
  expect([kinds('8').includes('polarity'), kinds('8 || 8').includes('polarity')]).toEqual([false, true])
})

test('a battery is stopped by a transformer, a control and a capacitor, not by a coil in the way', () => {
  expect(['8 cap 100 uF', '8 coil 2 mH', '2 x 5 W on 70 V', '8 || 8 behind control 50 W'].map((text) => {
    const output = outputOf(jobOf(text))
    return blockedOn(output).size
  })).toEqual([1, 0, 2, 2])
})

describe('who is heard with whom', () => {
  const job = jobOf('8 || 8', '8')
  const [a, b] = nodeIds(outputOf(job))
  const [c] = nodeIds(outputOf(job, 1))
  const spot = (id: string, nodeId: string) => ({ id, xM: 1, yM: 1, heightM: null, aim: null, nodeId })
  const told = (j: Job) => heardTogether(j).map(g => `${g.by} ${g.nodeIds.join(' ')}`)
  test('by the line while nobody says; by the space over lines; by the zone where no space is; coils of a unit of two outputs together', () => {
    expect(told(job)).toEqual([`line ${a} ${b}`, `line ${c}`])
    const hall = { ...plainSpace('s', 'Hall'), spots: [spot('p', b!), spot('q', c!)] }
    const roomed = { ...job, spaces: [hall] }
    expect([told(roomed), asks('', {}, roomed)]).toEqual([[`line ${a}`, `space ${b} ${c}`], 'line-impedance, coil-dcr 01, sound 01, coil-dcr 02, sound 02, polarity 02'])
    const load = { kind: 'coil' as const, unit: 'Sub', of: 2, coil: { kind: 'nominal' as const, nominalOhm: 4 } }
    const outputs = job.amplifiers[0]!.outputs.map(o => ({
      ...o, wiring: { ...o.wiring, children: o.wiring.children.slice(0, 1).map(br => ({ ...br, node: { ...br.node, load } as never })) },
    }))
    expect(told({ ...job, amplifiers: [{ ...job.amplifiers[0]!, outputs }] })).toEqual([`unit ${a} ${c}`])
    expect(told({ ...emptyJob(''), amplifiers: [] })).toEqual([])
  })
})

const AT = (minute: number) => `2026-05-04T09:${String(minute).padStart(2, '0')}:00Z`
const read = (kind: Reading['kind'], nodeId: string | null, value: ReadingValue, minute = 10): Reading => ({
  id: `${kind}${nodeId}${minute}`, at: AT(minute), kind, outputId: 'out1', nodeId, value, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false,
})
const turned = (is: 'right-way' | 'reversed' | 'cannot-tell', how: 'battery-run' | 'battery-driver' | 'pulse' | 'ear', against: string | null = null): ReadingValue => ({ is, how, against })

describe('which way round is proved by either kind, and by nothing that could not have refuted it', () => {
  const job = jobOf('8 || 8')
  const [a, b] = nodeIds(outputOf(job))
  const proofOf = (readings: Reading[], leavings: Leaving[] = []) =>
    proveLine({ ...job, readings: Records.of(readings), leavings: Records.of(leavings) }, outputOf(job))
  const left = (minute: number, more: Partial<Leaving> = {}): Leaving => ({ id: 'l', at: AT(minute), outputId: 'out1', nodeId: a!, kind: 'polarity', reason: 'the pair next door', who: null, withdrawn: false, ...more })
  const bad = read('polarity', a!, turned('reversed', 'battery-run'))
  test.each<[string, Reading[], Leaving[], string, number[]]>([
    // The state of its polarity; proved, left, wrong.
    ['nothing read', [], [], 'none', [0, 0, 0]],
    ['by battery from the rack', [read('polarity', a!, turned('right-way', 'battery-run'))], [], 'good', [1, 0, 0]],
    ['by ear beside the other', [read('polarity-heard', a!, turned('right-way', 'ear', b!))], [], 'good', [1, 0, 0]],
    ['at the driver: the unit alone', [read('polarity', a!, turned('right-way', 'battery-driver'))], [], 'read', [0, 0, 0]],
    ['nobody could tell', [read('polarity', a!, turned('cannot-tell', 'battery-run'))], [], 'read', [0, 0, 0]],
    ['reversed', [bad], [], 'wrong', [0, 0, 1]],
    ['right by one way, reversed by the other', [bad, read('polarity-heard', a!, turned('right-way', 'pulse'), 20)], [], 'wrong', [0, 0, 1]],
    ['reversed, and left so', [bad], [left(20)], 'left', [1, 1, 0]],
    ['left before it was read so', [bad], [left(9)], 'wrong', [0, 0, 1]],
    ['left, and taken back', [bad], [left(20, { withdrawn: true })], 'wrong', [0, 0, 1]],
    ['another reading left', [bad], [left(20, { kind: 'sound' })], 'wrong', [0, 0, 1]],
  ])('%s', (_, readings, leavings, state, counts) => {
    const proof = proofOf(readings, leavings)
    const ask = proof.asksAt.get(a!)!.find(({ kinds }) => kinds.length === 2)!
    expect([stateOf(proof.standing, ask), [proof.proved, proof.left, proof.wrong], marksAt(proof, a!).length]).toEqual([state, counts, 3])
  })
  test('a mark says what it is of', () => {
    const proof = proofOf([bad], [left(20)])
    expect([marksAt(proof, a!).map(m => `${m.mark} ${m.says}`), proof.standing.get(checkKey('polarity', a!))!.left!.reason])
      .toEqual([['· coil DCR not read', '· sound not read', '– polarity found and left'], 'the pair next door'])
  })
  test('what is open, and what was left, in a sentence each', () => {
    const plays = [a!, b!].map(id => read('sound', id, { is: 'plays' }))
    expect([openWords(proofOf([])), openWords(proofOf([bad, ...plays], [left(20)])), leftWords(proofOf([bad], [left(20)]), id => id === a ? '01' : '')]).toEqual([
      'Not proved yet: line impedance; coil DCR of 01 and 02; sound of 01 and 02; polarity of 01 and 02.', 'Not proved yet: line impedance; coil DCR of 01 and 02; polarity of 02.',
      ['01 polarity, found and left: the pair next door'],
    ])
    const many = jobOf('8 || 8 || 8 || 8 || 8 || 8')
    const six = proveLine({ ...many, readings: Records.of([read('sound', nodeIds(outputOf(many))[5]!, { is: 'plays' })]) }, outputOf(many))
    expect(openWords(six)).toBe('Not proved yet: line impedance; coil DCR of all; sound of 01, 02, 03 and 2 more; polarity of all.')
  })
  test('words of each verdict', () => expect([turned('right-way', 'battery-run'), turned('right-way', 'battery-driver'), turned('reversed', 'pulse'), turned('cannot-tell', 'ear', b!)].map(v => VERDICT_TAGS[judge(v, null).code]))
    .toEqual(['Right way round', 'The unit alone is right', 'Turned round', 'Read: cannot tell']))
  test.each<[string, Reading['kind'], ReadingValue, RegExp]>([
    ['a battery is not heard', 'polarity-heard', turned('right-way', 'battery-run'), /not taken by battery-run/],
    ['by ear, beside nothing', 'polarity-heard', turned('right-way', 'ear'), /beside which/],
    ['a pulse, beside another', 'polarity-heard', turned('right-way', 'pulse', 'x'), /by itself/],
    ['ohms', 'polarity', { is: 'ohm', ohm: 8 }, /cannot be “ohm”/],
    ['a coil that is turned', 'coil-dcr', turned('right-way', 'battery-run'), /cannot be “right-way”/],
  ])('what does not go together is refused: %s', (_, kind, value, says) => expect(() => checkValue({ kind, value, nodeId: 'x', frequencyHz: null }, 'reading')).toThrow(says))
})

test('a walk: bare pairs, each speaker as it hangs, the line closed, the amplifier on; and all with it off before it is switched', () => {
  const job = jobOf('8 || 8')
  const stops = walkOf(asksOf(outputOf(job), askedOf({ ...job, checks: { ...DEFAULT_CHECKS, pairs: 'every' } })))
  const text = (stop: (typeof stops)[number] | null) => stop && `${stop.kind} ${stop.speaker?.label ?? ''}`.trim()
  expect(stops.map(s => `${phaseOf(s)}: ${text(s)}`)).toEqual([
    'bare: leg-earth', 'bare: pair-apart', 'bare: pair-through 01', 'bare: pair-through 02',
    'hang: coil-dcr 01', 'hang: polarity 01', 'hang: coil-dcr 02', 'hang: polarity 02',
    'closed: line-impedance', 'on: sound 01', 'on: sound 02',
  ])
  expect(stops.map(s => amplifierFor(s.kind))).toEqual([...Array.from({ length: 9 }, () => 'off'), 'on', 'on'])
  const proved = (...at: number[]) => (stop: (typeof stops)[number]) => at.includes(stops.indexOf(stop))
  expect([
    // From the head on: what is open with the amplifier off comes round before it is switched.
    nextOpen(stops, 8, proved(0, 1, 2, 3, 8)), nextOpen(stops, 0, proved(0)), nextOpen(stops, 9, proved(9)), nextOpen(stops, 10, proved(9, 10)),
    nextOpen(stops, 8, proved(0, 1, 2, 3, 4, 5, 6, 7, 8)),
    nextOpen(stops, 1, () => true), nextOpen(stops, -1, proved()), nextOpen([], -1, proved()),
  ].map(text)).toEqual(['coil-dcr 01', 'pair-apart', 'sound 02', 'leg-earth', 'sound 01', 'pair-through 01', 'leg-earth', null])
})

test('over a whole job a phase at a time, and by rooms as they stand in it', () => {
  const job = jobOf('8 || 8', '8')
  const [a, b] = nodeIds(outputOf(job))
  const [c] = nodeIds(outputOf(job, 1))
  const spot = (id: string, nodeId: string) => ({ id, xM: 1, yM: 1, heightM: null, aim: null, nodeId })
  const roomed: Job = { ...job, checks: { ...DEFAULT_CHECKS, polarity: 'none' }, spaces: [{ ...plainSpace('s', 'Bar'), spots: [spot('p', c!)] }, { ...plainSpace('t', 'Hall'), spots: [spot('q', b!)] }] }
  expect(roomsOf(roomed, walkOfJob(roomed, 'room')).map(r => [r.name, r.stops.length])).toEqual([['at the rack', 2], ['Bar', 2], ['Hall', 2], ['in no room', 2]])
  const said = (by: 'line' | 'room') => walkOfJob(roomed, by).map(({ output: { label }, stop }) => `${stop.kind} ${label} ${stop.speaker?.label ?? ''}`.trim()).join(', ')
  expect([said('line'), said('room')]).toEqual([
    'coil-dcr A1 01, coil-dcr A1 02, coil-dcr A2 01, line-impedance A1, line-impedance A2, sound A1 01, sound A1 02, sound A2 01',
    'coil-dcr A2 01, coil-dcr A1 02, coil-dcr A1 01, line-impedance A1, line-impedance A2, sound A2 01, sound A1 02, sound A1 01',
  ])
  expect(a).not.toBe(b)
})

test('what a battery puts into a coil: V²/Re by Ohm’s law; the handbook’s 9 V in 4 Ω is up to 20 W and more at its lowest Re', () => {
  const unit = (nominalOhm: number, continuousW: number | null) => batteriesFor({ load: { kind: 'nominal', nominalOhm }, driverOhm: null, continuousW })
  expect(unit(4, 60).map(b => [b.volts, b.powerW!.toFixed(1), b.is])).toEqual([[1.5, '0.8', 'enough'], [9, '28.9', 'enough'], [12, '51.4', 'enough'], [18, '115.7', 'too-much']])
  expect([unit(32, 100), unit(8, null), batteriesFor({ load: { kind: 'tap', tapW: 5, ratedV: 70.71, tapsW: [], insertionDb: null, tapMeans: null }, driverOhm: null, continuousW: 30 })]
    .map(all => all.map(b => b.is[0]).join(''))).toEqual(['ettt', 'ettt', 'ettt'])
})

describe('bare pairs', () => {
  const job = cabled(jobOf('8 || 8 || 8'), { cable: { awg: 16 }, lengthM: 10 })
  const ids = nodeIds(outputOf(job))
  const proof = proveLine(job, outputOf(job))
  // ASTM B258: 13.17 Ω/km a conductor, out and back.
  test('the copper to the far end, a twentieth and the meter about it', () => {
    expect(ids.map(id => wayOhm(outputOf(job).wiring, id)!.toFixed(3))).toEqual(['0.263', '0.527', '0.790'])
    const { low, expected, high } = proof.foretold('pair-through', ids[2]!)!
    expect([low, expected, high].map(v => v!.toFixed(3))).toEqual(['0.651', '0.790', '0.930'])
    expect([wayOhm(outputOf(jobOf('8 || 8 || 8')).wiring, nodeIds(outputOf(jobOf('8 || 8 || 8')))[0]!), wayOhm(outputOf(job).wiring, 'gone')]).toEqual([null, null])
  })
  test.each<[Reading['kind'], ReadingValue, string]>([
    ['leg-earth', { is: 'open' }, 'As it should be'], ['leg-earth', { is: 'ohm', ohm: 5e6 }, 'As it should be'], ['leg-earth', { is: 'ohm', ohm: 2000 }, 'Reads wrong: far too low'],
    ['pair-apart', { is: 'open' }, 'As it should be'], ['pair-apart', { is: 'ohm', ohm: 0.4 }, 'Reads wrong: short'], ['pair-apart', { is: 'ohm', ohm: 9e5 }, 'Reads wrong: too low'],
    ['pair-through', { is: 'open' }, 'Reads wrong: open'], ['pair-through', { is: 'ohm', ohm: 0.8 }, 'As it should be'], ['pair-through', { is: 'ohm', ohm: 4 }, 'Reads wrong: far too high'],
  ])('%s %j', (kind, value, says) => expect(VERDICT_TAGS[judge(value, proof.foretold(kind, kind === 'pair-through' ? ids[2]! : null)).code]).toBe(says))
})

describe('what is read besides', () => {
  const job = cabled(jobOf('4 x 10 W on 70 V 100 W'), { cable: { awg: 16 }, lengthM: 10 })
  const ids = nodeIds(outputOf(job))
  const proof = proveLine(job, outputOf(job))
  const verdict = (kind: Reading['kind'], value: ReadingValue, k: number | null, hz: number | null = null) =>
    VERDICT_TAGS[judge(value, proof.foretold(kind, k === null ? null : ids[k]!, hz)).code]
  test.each<[string, Reading['kind'], ReadingValue, number | null, string]>([
    ['the tap that is drawn', 'tap-found', { is: 'tap', tapW: 10, ratedV: 70.71 }, 0, 'As it should be'],
    ['70 V is 70.71 V', 'tap-found', { is: 'tap', tapW: 10, ratedV: 70 }, 0, 'As it should be'],
    ['another tap', 'tap-found', { is: 'tap', tapW: 5, ratedV: 70.71 }, 0, 'Another tap than drawn'],
    ['the same watts on the other scale', 'tap-found', { is: 'tap', tapW: 10, ratedV: 100 }, 0, 'On another scale'],
    ['off', 'tap-found', { is: 'tap', tapW: 0, ratedV: 100 }, 0, 'Another tap than drawn'],
    ['alike', 'beside', { is: 'alike', besideId: 'x' }, 0, 'As loud as its neighbour'], ['quieter', 'beside', { is: 'quieter', besideId: 'x' }, 0, 'Quieter than its neighbour'],
    // 4 × 10 W at 70.71 V: 125 Ω; two of them from the third place on 250 Ω.
    ['volts by amperes: |Z| of the line', 'head-volts-amps', { is: 'volts-amps', volts: 10, amps: 0.08 }, null, 'As it should be'],
    ['half of it', 'head-volts-amps', { is: 'volts-amps', volts: 10, amps: 0.2 }, null, 'Reads wrong: too low'],
    ['from the third outward two are left', 'outward-impedance', { is: 'ohm', ohm: 250 }, 2, 'As it should be'],
    ['and not four', 'outward-impedance', { is: 'ohm', ohm: 125 }, 2, 'Reads wrong: too low'],
  ])('%s', (_, kind, value, k, says) => expect(verdict(kind, value, k)).toBe(says))
  test('a tone is asked of the line as it is; a plain speaker has no tap to find; a member of a series no outward', () => {
    const plain = jobOf('8 + 8')
    const [a] = nodeIds(outputOf(plain)).slice(-1)
    const of = proveLine(plain, outputOf(plain))
    expect([of.foretold('tap-found', a!)!.tap, of.foretold('outward-impedance', a!), judge({ is: 'tap', tapW: 5, ratedV: 70 }, of.foretold('tap-found', a!)).code]).toEqual([null, null, 'nothing-to-compare'])
    expect([proof.foretold('head-volts-amps', null, 330)!.frequencyHz, proof.foretold('outward-impedance', ids[1]!, 330)!.frequencyHz]).toEqual([330, 330])
  })
  test('off is off on any scale; outward the way to the place is not in it', () => {
    const off = { ...proof.foretold('tap-found', ids[0]!)!, tap: { tapW: 0, ratedV: 70.71 } }
    expect(judge({ is: 'tap', tapW: 0, ratedV: 100 }, off).code).toBe('as-planned')
    expect(outwardFrom(outputOf(job).wiring, ids[2]!)!.children.map(c => c.lead?.lengthM ?? null)).toEqual([null, 10])
  })
  test('values as they are written', () => expect([{ is: 'tap' as const, tapW: 0, ratedV: 70.71 }, { is: 'tap' as const, tapW: 2.5, ratedV: 70.71 }, { is: 'volts-amps' as const, volts: 10, amps: 0.08 }].map(valueWords))
    .toEqual(['off', '2.5 W on 70 V', '10 V at 0.08 A']))
})

describe('what proves that a pair was turned round, or a coil', () => {
  const job = jobOf('8 || (8 + 8) || 8', 'dvc 4 series')
  const output = outputOf(job)
  const group = output.wiring.children[1]!.node.id
  const [first, second, last] = [speakersOf(output.wiring)[0]!.id, speakersOf(output.wiring)[1]!.id, speakersOf(output.wiring)[3]!.id]
  const fix = (nodeId: string | null, fault: 'turned-round' | 'coil-opposed' = 'turned-round', outputId = 'out1') => ({ id: 'fix', at: AT(15), outputId, nodeId, fault, note: '', who: null, withdrawn: false })
  const open = (repair: ReturnType<typeof fix>, reading: Reading, k = 0) =>
    proveLine({ ...job, readings: Records.of([reading]), repairs: Records.of([repair]) }, outputOf(job, k)).unproved.length
  test.each<[string, string | null, string, ReadingValue, number]>([
    ['the speaker itself', first, first, turned('right-way', 'battery-run'), 0],
    ['one inside the group', group, second, turned('right-way', 'battery-run'), 0],
    ['one behind it on the run', group, last, turned('right-way', 'battery-run'), 0],
    ['one before it says nothing', group, first, turned('right-way', 'battery-run'), 1],
    ['reversed still', group, last, turned('reversed', 'battery-run'), 1],
    ['the unit alone', group, last, turned('right-way', 'battery-driver'), 1],
    ['a line turned as a whole', null, first, turned('right-way', 'battery-run'), 0],
  ])('%s', (_, nodeId, at, value, unproved) => expect(open(fix(nodeId), read('polarity', at, value, 20))).toBe(unproved))
  test('a coil: it plays; right ohms prove nothing of it', () => {
    const sub = speakersOf(outputOf(job, 1).wiring)[0]!.id
    const of = (kind: 'sound' | 'coil-dcr', value: ReadingValue) => open(fix(sub, 'coil-opposed', 'out2'), { ...read(kind, sub, value, 20), outputId: 'out2' }, 1)
    expect([of('sound', { is: 'plays' }), of('sound', { is: 'silent' }), of('coil-dcr', { is: 'ohm', ohm: 6.4 })]).toEqual([0, 1, 1])
  })
})
