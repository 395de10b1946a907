import { describe, expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import { Records } from '#core/job/records'
import type { Job, Output, Reading } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { predictLine, predictLineImpedance } from './predict'
import { makeProver } from './proveJob'
import { verdictWords } from './signs'

/** What one reading tells of other units of its model, and the tone of a reading. By hand: square root of the sum of squares; Z = R + jωL, R − j/ωC. */

const KIND = { what: 'speaker' as const, id: 'kind-a', from: null, model: { kind: 'speaker', name: 'Ceiling 165' } as never }
/** Lines of taps on 8 Ω drivers, all of one kind, or of none. */
const lines = (kindId: string | null, ...texts: string[]): Job => {
  const start: Job = { ...jobOf(...texts), kinds: kindId ? [KIND] : [] }
  const speakers = outputsOf(start).flatMap(o => speakersOf(o.wiring))
  const edits = speakers.map(s => ({ kind: 'speaker.set' as const, nodeId: s.id, was: { driverOhm: s.driverOhm, kindId: s.kindId }, to: { driverOhm: 8, kindId } }))
  return applyEdit(start, { kind: 'batch', edits }).job
}
let count = 0
type Kind = 'line-impedance' | 'coil-dcr'
const read = (kind: Kind, outputId: string, ohm: number, nodeId: string | null = null, frequencyHz: number | null = null): Reading => ({
  id: `r${++count}`, at: `2026-01-01T10:00:${String(count % 60).padStart(2, '0')}Z`, outputId, nodeId, kind, value: { is: 'ohm', ohm },
  note: '', frequencyHz, supersedes: null, taken: null, who: null, withdrawn: false,
})
const proofs = (job: Job, ...readings: Reading[]) => makeProver()(
  { ...job, readings: Records.of(readings) },
  outputsOf(job).map(output => ({ output, predicted: predictLine(output) })),
)
const own10 = Math.log(1.1) / Math.sqrt(10)
const lineOf = (job: Job, outputId: string, readings: Reading[], hz?: number) => proofs(job, ...readings).get(outputId)!.foretold('line-impedance', null, hz)!

describe('a reading of one unit, or of one line, narrows what is right for all of its model', () => {
  const two = lines('kind-a', '10 x 5 W on 70.71 V', '10 x 5 W on 70.71 V', '10 x 5 W on 70.71 V')
  const one = nodeIds(outputOf(two))[2]!
  const meter = Math.hypot(0.04, 0.001)
  // By its coil of 6 Ω: 0.1 to 0.8 mH beside it lie between these; units by a tenth.
  const [least, most] = [0.1e-3, 0.8e-3].map(henry => Math.hypot(6, 2 * Math.PI * 1000 * henry) / 8) as [number, number]
  const byCoil = { at: Math.sqrt(least * most), off: Math.hypot(Math.log(most / least) / 2, 0.1, own10, meter) }
  // By another line read at 80 Ω of 100: both lines' own spread and meters, and the one dead in ten that it could hide.
  const own = Math.hypot(meter, own10)
  const off = Math.hypot(own, own)
  test.each<[string, Reading[], { at: number, low: number, high: number, from: string } | null]>([
    ['nothing is read', [], null],
    ['a coil on another line', [read('coil-dcr', 'out1', 6, one)], { at: byCoil.at, low: byCoil.off, high: byCoil.off, from: 'A1 03' }],
    ['a coil that reads wrong teaches nothing', [read('coil-dcr', 'out1', 9, one)], null],
    ['another line', [read('line-impedance', 'out1', 80)], { at: 0.8, low: Math.hypot(off, Math.log(10 / 9)), high: off, from: 'A1' }],
    ['a line before coils', [read('coil-dcr', 'out1', 6, one), read('line-impedance', 'out1', 80)], { at: 0.8, low: Math.hypot(off, Math.log(10 / 9)), high: off, from: 'A1' }],
    ['of two lines the one in the middle, that is the higher', [read('line-impedance', 'out1', 80), read('line-impedance', 'out3', 90)], { at: 0.9, low: Math.hypot(off, Math.log(10 / 9)), high: off, from: 'A1 and 1 more' }],
    ['a line that reads wrong teaches nothing', [read('line-impedance', 'out1', 130)], null],
    ['at another tone it teaches nothing', [read('line-impedance', 'out1', 80, null, 330)], null],
    ['a line does not teach itself', [read('line-impedance', 'out2', 80)], null],
    ['nor beside a coil of its own', [read('line-impedance', 'out2', 80), read('coil-dcr', 'out2', 6, nodeIds(outputOf(two, 1))[0])], { at: byCoil.at, low: byCoil.off, high: byCoil.off, from: 'A2 01' }],
    ['nor where something else does', [read('line-impedance', 'out2', 80), read('coil-dcr', 'out1', 6, one)], { at: byCoil.at, low: byCoil.off, high: byCoil.off, from: 'A1 03' }],
  ])('%s', (_, readings, wanted) => {
    const p = lineOf(two, 'out2', readings)
    if (wanted === null) return expect([p.learned, p.expected]).toEqual([null, expect.closeTo(100, 1)])
    expect([p.learned!.from, p.learned!.factor, p.expected! / 100, Math.log(p.expected! / p.low!), Math.log(p.high! / p.expected!)])
      .toEqual([[wanted.from], expect.closeTo(wanted.at, 2), expect.closeTo(wanted.at, 2), expect.closeTo(wanted.low, 2), expect.closeTo(wanted.high, 2)])
    expect([p.source.startsWith('learned from A'), verdictWords('line-impedance', 'high', p)]).toEqual([true, expect.stringContaining(`, learned from ${wanted.from}.`)])
  })
  test('what was read before a repair teaches nothing; nor does a line of two models', () => {
    const coil = read('coil-dcr', 'out1', 6, one)
    const repair = { id: 'fix', at: '2027-01-01T00:00:00Z', outputId: 'out1', nodeId: one, fault: 'open-at-drop' as const, note: '', who: null, withdrawn: false }
    const after = (on: Job, readings: Reading[], repairs: (typeof repair)[]) =>
      makeProver()({ readings: Records.of(readings), repairs: Records.of(repairs) }, outputsOf(on).map(output => ({ output, predicted: predictLine(output) })))
        .get('out2')!.foretold('line-impedance', null)!.learned
    expect([after(two, [coil], []) !== null, after(two, [coil], [repair])]).toEqual([true, null])
    // Half of the other line is of no kind: its impedance says nothing of one model alone.
    const halves = nodeIds(outputOf(two)).slice(5).reduce((job, nodeId) =>
      applyEdit(job, { kind: 'speaker.set', nodeId, was: { kindId: 'kind-a' }, to: { kindId: null } }).job, two)
    expect(after(halves, [read('line-impedance', 'out1', 80)], [])).toBeNull()
  })
  test('with what was learned, one dead reads as much higher; and a repair is proved by it', () => {
    const p = lineOf(two, 'out2', [read('coil-dcr', 'out1', 6, one)])
    expect(p.cannotTell!.ohm / p.expected!).toBeCloseTo(10 / 9, 3)
    // One dead of ten lies outside what another line taught; one of twenty would still read right: 50 Ω · 20/19 · 0.8.
    const proves = (text: string, ohms: number) => {
      const pair = lines('kind-a', text, text)
      const [dead] = nodeIds(outputOf(pair, 1))
      const fix = { id: 'fix', at: '2026-01-01T00:00:00Z', outputId: 'out2', nodeId: dead!, fault: 'open-at-drop' as const, note: '', who: null, withdrawn: false }
      const readings = ['out1', 'out2'].map(id => read('line-impedance', id, ohms))
      const kept = { readings: Records.of(readings), repairs: Records.of([fix]) }
      return makeProver()(kept, outputsOf(pair).map(output => ({ output, predicted: predictLine(output) }))).get('out2')!.unproved.length === 0
    }
    expect([proves('10 x 5 W on 70.71 V', 80), proves('20 x 5 W on 70.71 V', 40)]).toEqual([true, false])
  })
  test('a coil more that says the same makes no line judged anew; of many the first is named', () => {
    const prove = makeProver()
    const foretold = outputsOf(two).map(output => ({ output, predicted: predictLine(output) }))
    const coils = nodeIds(outputOf(two)).map((id, k) => read('coil-dcr', 'out1', 6 + (k % 2) / 50, id))
    const some = prove({ ...two, readings: Records.of(coils.slice(0, 8)) }, foretold).get('out2')!
    const more = prove({ ...two, readings: Records.of(coils) }, foretold).get('out2')!
    expect([more === some, some.foretold('line-impedance', null)!.learned!.from]).toEqual([true, ['A1 01 and others']])
  })
  test('under 800 Hz the cone still lifts it, and copper tells nothing', () => {
    const coil = [read('coil-dcr', 'out1', 6, one)]
    expect([799, 800].map(hz => lineOf(two, 'out2', coil, hz).learned !== null)).toEqual([false, true])
  })
  test('of no kind, those alike on the same line are one model, and no others; the coil of the line itself teaches it', () => {
    const loose = lines(null, '10 x 5 W on 70.71 V', '10 x 5 W on 70.71 V')
    const readings = [read('coil-dcr', 'out1', 6, nodeIds(outputOf(loose))[0])]
    expect([lineOf(loose, 'out1', readings).learned?.from, lineOf(loose, 'out2', readings).learned]).toEqual([['A1 01'], null])
  })
  test('a dead one of ten shows once another line was read; before, it does not', () => {
    const dead = read('line-impedance', 'out2', 80 * 10 / 8)
    const grade = (...readings: Reading[]) => proofs(two, ...readings, dead).get('out2')!.standing.values().next().value!.verdict.code
    expect([grade(), grade(read('line-impedance', 'out1', 80))]).toEqual(['as-planned', 'high'])
  })
  test('a proof keeps its identity while nothing that it hangs on changes: a lesson changes what is foretold of all of the model, and of no other', () => {
    const prove = makeProver()
    const other = outputOf(jobOf('8'))
    const foretold = [...outputsOf(two), { ...other, id: 'other' }].map(output => ({ output, predicted: predictLine(output) }))
    const readings = Records.of([read('line-impedance', 'out2', 80)])
    const [first, again] = [prove({ ...two, readings }, foretold), prove({ ...two, readings }, foretold)]
    const more = prove({ ...two, readings: readings.added(read('line-impedance', 'out1', 80)) }, foretold)
    expect(['out1', 'out2', 'out3', 'other'].map(id => [again.get(id) === first.get(id), more.get(id) === first.get(id)])).toEqual([[true, false], [true, false], [true, false], [true, true]])
  })
})

describe('the tone of a reading', () => {
  const behind = (text: string, hz: number): [number, Output] => [predictLineImpedance(outputOf(jobOf(text)), hz).expected!, outputOf(jobOf(text))]
  test.each([[330], [1000], [4000]])('8 Ω behind 10 µF at %d Hz', hz => expect(behind('8 cap 10 uF', hz)[0]).toBeCloseTo(Math.hypot(8, 1 / (2 * Math.PI * hz * 10e-6)), 6))
  test('a capacitor that holds most of the head holds most of its spread', () => {
    const p = predictLineImpedance(outputOf(jobOf('8 cap 1 uF')), 1000)
    expect([p.low! / p.expected! > 0.95, p.high! / p.expected! < 1.05]).toEqual([true, true])
  })
  test('each reading is judged at its own, and the words say which', () => {
    const job = jobOf('8 cap 10 uF')
    const at = (hz: number | null, ohm: number) => [...proofs(job, read('line-impedance', 'out1', ohm, null, hz)).get('out1')!.standing.values()][0]!
    expect([at(330, 48.9).verdict.code, at(null, 48.9).verdict.grade, at(null, 17.8).verdict.code]).toEqual(['as-planned', 'stop', 'as-planned'])
    expect(verdictWords('line-impedance', 'high', at(330, 48.9).predicted)).toMatch(/ at 330 Hz\./)
  })
})
