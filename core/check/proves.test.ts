import { describe, expect, test } from '@jest/globals'
import { Records } from '#core/job/records'
import type { FaultKind, Job, Reading, ReadingKind, ReadingValue, Repair } from '#core/job/schema'
import { headOf } from '#core/network/line'
import { cabled, counter, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { putBefore, setThrough, unknownControl } from '#core/hands/throughs'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import { speakersOf, throughsOf, withBranch } from '#core/job/tree'
import { predictLine, predictLineImpedance } from './predict'
import { proveLine } from './proof'
import { asCurve } from '#core/network/element'
import { dcrAt, METER_HZ } from './readingBands'
import { judge } from './verdict'
import { verdictWords } from './signs'

/** A reading proves only what it could have refuted. Common practice, no source; the figures by Kirchhoff. */

const read = (at: number, kind: ReadingKind, value: ReadingValue, nodeId: string | null = null): Reading =>
  ({ id: `r${at}${kind}`, at: `2026-01-01T10:${String(at).padStart(2, '0')}:00Z`, outputId: 'out1', nodeId, kind, value, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false })
const ohm = (value: number): ReadingValue => ({ is: 'ohm', ohm: value })
const plays: ReadingValue = { is: 'plays' }
const repaired = (fault: FaultKind, nodeId: string | null): Repair => ({ id: 'fix', at: '2026-01-01T10:30:00Z', outputId: 'out1', nodeId, fault, note: '', who: null, withdrawn: false })
const unproved = (job: Job, repair: Repair, ...readings: Reading[]) => {
  const all = { ...job, readings: Records.of(readings), repairs: Records.of([repair]) }
  return proveLine(all, outputOf(all)).unproved.length
}

const few = jobOf('5 x 10 W on 70.71 V 100 W')
const many = jobOf('20 x 10 W on 70.71 V 400 W')
const [f, m] = [few, many].map(job => nodeIds(outputOf(job))) as [string[], string[]]
/** Two of 8 Ω behind 100 µF: 1.6 Ω at 1 kHz, 80 Ω at 20 Hz, where a dead one hardly shows. */
const hidden = jobOf('(8 || 8) cap 100 uF on 100 W at 4')
const right = (job: Job) => ohm(predictLine(outputOf(job))[0]!.expected!)
test.each<[string, Job, Repair, Reading[], 'proved' | 'not']>([
  ['read at another tone: there the capacitor hides one of two, and it proves nothing', hidden, repaired('open-at-drop', nodeIds(outputOf(hidden))[2]!), [{ ...read(40, 'line-impedance', ohm(predictLineImpedance(outputOf(hidden), 20).expected!)), frequencyHz: 20 }], 'not'],
  ['at its usual tone it does', hidden, repaired('open-at-drop', nodeIds(outputOf(hidden))[2]!), [read(40, 'line-impedance', ohm(predictLineImpedance(outputOf(hidden)).expected!))], 'proved'],
  ['one of five dead is outside the band: the line proves it', few, repaired('open-at-drop', f[1]!), [read(40, 'line-impedance', right(few))], 'proved'],
  ['one of twenty is inside it: it proves nothing', many, repaired('open-at-drop', m[1]!), [read(40, 'line-impedance', right(many))], 'not'],
  ['unless it read wrong before', many, repaired('open-at-drop', m[1]!), [read(10, 'line-impedance', ohm(40)), read(40, 'line-impedance', right(many))], 'proved'],
  ['it plays', many, repaired('open-at-drop', m[1]!), [read(40, 'sound', plays, m[1]!)], 'proved'],
  ['another one plays', many, repaired('open-at-drop', m[1]!), [read(40, 'sound', plays, m[2]!)], 'not'],
  ['it plays while its open coil stands', many, repaired('open-at-drop', m[1]!), [read(10, 'coil-dcr', { is: 'open' }, m[1]!), read(40, 'sound', plays, m[1]!)], 'not'],
  ['a coil says nothing of a tap', many, repaired('wrong-tap', m[1]!), [read(40, 'coil-dcr', ohm(6), m[1]!)], 'not'],
  ['nor does that it plays', many, repaired('wrong-tap', m[1]!), [read(40, 'sound', plays, m[1]!)], 'not'],
  ['its dial as it should be', many, repaired('wrong-tap', m[1]!), [read(40, 'tap-found', { is: 'tap', tapW: 10, ratedV: 70.71 }, m[1]!)], 'proved'],
  ['that of another one', many, repaired('wrong-tap', m[1]!), [read(40, 'tap-found', { is: 'tap', tapW: 10, ratedV: 70.71 }, m[2]!)], 'not'],
  ['a short would silence all: any that plays proves it', many, repaired('short-at-drop', m[1]!), [read(40, 'sound', plays, m[9]!)], 'proved'],
  ['behind a break nothing plays', many, repaired('break-in-reach', m[5]!), [read(40, 'sound', plays, m[9]!)], 'proved'],
  ['before it all did', many, repaired('break-in-reach', m[5]!), [read(40, 'sound', plays, m[2]!)], 'not'],
  ['looked at: nothing amiss where it was on its 8 Ω position', many, repaired('low-impedance-position', m[1]!), [read(40, 'looked', { is: 'as-it-should' }, m[1]!)], 'proved'],
  ['of a joint, which is not always seen, that is no proof', many, repaired('open-at-drop', m[1]!), [read(40, 'looked', { is: 'as-it-should' }, m[1]!)], 'not'],
  ['nor at another place', many, repaired('low-impedance-position', m[1]!), [read(40, 'looked', { is: 'as-it-should' }, m[2]!)], 'not'],
  ['what is still seen', many, repaired('low-impedance-position', m[1]!), [read(40, 'looked', { is: 'seen', fault: 'low-impedance-position' }, m[1]!)], 'not'],
  ['where a fault is proves nothing of it', many, repaired('coil-open', m[1]!), [read(40, 'swapped', { is: 'goes-with-it', withId: null }, m[1]!)], 'not'],
  ['8 Ω at one place is never inside', many, repaired('low-impedance-position', m[1]!), [read(40, 'line-impedance', right(many))], 'proved'],
  ['what nobody named is proved at its place', many, repaired('something-else', m[1]!), [read(40, 'sound', plays, m[1]!)], 'proved'],
  ['read before it was mended', few, repaired('open-at-drop', f[1]!), [read(20, 'line-impedance', right(few))], 'not'],
])('%s', (_, job, repair, readings, is) => expect(unproved(job, repair, ...readings)).toBe(is === 'proved' ? 0 : 1))

describe('what a reading cannot tell is said', () => {
  test.each([[2, false], [5, false], [8, false], [12, true], [20, true], [40, true]])('of %i alike one dead lies inside the band: %s', (count, isBlind) => {
    const [line] = predictLine(outputOf(jobOf(`${count} x 10 W on 70.71 V 1000 W`)))
    expect(line!.cannotTell === null ? null : Number(line!.cannotTell.ohm.toFixed(4))).toBe(isBlind ? Number((70.71 ** 2 / 10 / (count - 1)).toFixed(4)) : null)
    if (isBlind) expect(verdictWords('line-impedance', 'as-planned', line!)).toMatch(new RegExp(`of these ${count} dead it would read .* this reading cannot tell`))
  })
})

describe('what is drawn off: silent is right, playing is wrong', () => {
  const zero = jobOf('2 x 5 W on 70.71 V 30 W')
  const behind = (setDb: number | 'off') =>
    applyEdit(zero, (putBefore(zero, nodeIds(outputOf(zero)), { ...unknownControl('C1'), stepsDb: [12], setDb }, counter('g')) as { edit: Edit }).edit).job
  const plain = jobOf('8 behind transformer 20 W on 70.71 V 30 W')
  const [group] = throughsOf(plain)
  const transformerOff = applyEdit(plain, setThrough(plain, group!.group.id, { tapW: 0 })!).job
  const tapOff = withBranch(zero, nodeIds(outputOf(zero))[0]!, b => b.node.kind === 'speaker' && b.node.load.kind === 'tap' ? { ...b, node: { ...b.node, load: { ...b.node.load, tapW: 0 } } } : b)
  test.each<[string, Job, number, string, string]>([
    ['behind a control drawn off', behind('off'), 0, 'as-planned', 'plays-though-off'], ['on a tap drawn off', tapOff, 0, 'as-planned', 'plays-though-off'], ['behind a transformer drawn off', transformerOff, 0, 'as-planned', 'plays-though-off'],
    ['its neighbour is not off', tapOff, 1, 'silent', 'plays'], ['with the control turned down only', behind(12), 0, 'silent', 'plays'],
  ])('%s', (_, job, index, silent, plays) => {
    const output = outputOf(job)
    const plan = predictLine(output).find(p => p.kind === 'sound' && p.nodeId === speakersOf(output.wiring)[index]!.id) ?? null
    expect([judge({ is: 'silent' }, plan).code, judge({ is: 'plays' }, plan).code]).toEqual([silent, plays])
    expect([judge({ is: 'silent' }, plan).grade, judge({ is: 'plays' }, plan).grade]).toEqual(silent === 'silent' ? ['stop', 'good'] : ['good', 'stop'])
  })
})

test('cable that is not stated is named before leads and joints, where it reads high', () => {
  const line = jobOf('4 x 5 W on 70.71 V')
  const [bare, known] = [line, cabled(line, { cable: { awg: 16 }, lengthM: 5 })].map(job => predictLine(outputOf(job))[0]!)
  for (const code of ['just-high', 'high'] as const) {
    expect(verdictWords('line-impedance', code, bare!)).toMatch(/ Ω\. Cable that is not stated adds to it: enter its size and length first\. /)
    expect(verdictWords('line-impedance', code, known!)).not.toMatch(/not stated/)
  }
  expect(verdictWords('line-impedance', 'just-low', bare!)).not.toMatch(/not stated/)
})

describe('what is foretold open and reads open is right', () => {
  test.each<[string, string, ReadingKind, 'open' | 'band']>([
    ['a series capacitor', '8 cap 100 uF on 100 W at 8', 'line-dcr', 'open'], ['beside one without', '8 || (8 cap 100 uF) on 100 W at 4', 'line-dcr', 'band'], ['by its impedance', '8 cap 100 uF on 100 W at 8', 'line-impedance', 'band'],
  ])('%s', (_, text, kind, is) => {
    const line = predictLine(outputOf(jobOf(text))).find(p => p.kind === kind)!
    expect([line.isOpen, line.expected !== null, judge({ is: 'open' }, line).grade]).toEqual(is === 'open' ? [true, false, 'good'] : [false, true, 'stop'])
    if (kind === 'line-dcr' && is === 'band') expect(line.expected).toBeCloseTo(6.4, 9)
  })
  test('no direct current is a number, not one that is none', () => {
    const { wiring } = outputOf(jobOf('8 || (4 cap 10 uF) on 100 W at 4'))
    expect(headOf({ lead: null, node: wiring }, dcrAt('expected'), 0)).toEqual({ state: 'finite', re: expect.closeTo(6.4, 9), im: 0, ohm: expect.closeTo(6.4, 9) })
    expect(headOf({ lead: null, node: outputOf(jobOf('8 cap 1 uF')).wiring }, asCurve, 0).state).toBe('open')
    expect(headOf({ lead: null, node: wiring }, asCurve, METER_HZ).state).toBe('finite')
  })
})
