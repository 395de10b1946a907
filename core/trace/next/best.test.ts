import { expect, test } from '@jest/globals'
import { proveLine } from '#core/check/proof'
import { Records } from '#core/job/records'
import type { Reading, ReadingValue, Sound } from '#core/job/schema'
import { SOUNDS } from '#core/job/sections/readings/schema'
import { speakersOf } from '#core/job/tree'
import { cabled, jobOf, outputOf } from '#core/testing/jobs'
import { ANY_SOUND, cutOutChance, heardOf, offDb, soundChance } from '../ears'
import { givenBy } from '../given'
import { SLIP } from '../ohms'
import { outcomeOf } from '../outcome'
import { finish, isSomethingElse, rankOfSingles, trySingles } from '../rank'
import { nextTests, testKey } from './best'
import { AT_THE_RACK, minutesOf, type Standing } from './minutes'

const reading = (kind: Reading['kind'], value: ReadingValue, nodeId: string | null = null): Reading =>
  ({ id: `r${kind}${nodeId}`, at: '2026-05-04T09:00:00Z', kind, outputId: 'out1', nodeId, value, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false })
const output = outputOf(cabled(jobOf('4 x 20 W + 5 W on 70 V 150 W'), { cable: { awg: 16 }, lengthM: 9 }))
const ids = speakersOf(output.wiring).map(s => s.id)
const asked = (readings: Reading[], standing: Standing = AT_THE_RACK, more: { mayBeOn?: boolean, cannot?: string[] } = {}) => {
  const given = givenBy(output, proveLine({ readings: Records.of(readings), repairs: Records.of() }, output))
  const tried = finish(trySingles(given))
  const ranking = rankOfSingles(tried)
  return { tried, ranking, next: nextTests(tried, ranking, { standing, mayBeOn: more.mayBeOn ?? true, cannot: new Set(more.cannot) }, given.readings) }
}
const wrong = [reading('line-impedance', { is: 'ohm', ohm: 82 })]

test('what listening at a place tells, against a direct enumeration of every suspect and every sound (Shannon, mutual information)', () => {
  const { tried: { weigher: { plan } }, ranking, next } = asked(wrong)
  const told = next.tests.filter(t => t.kind === 'sound')
  expect(told.length).toBeGreaterThan(0)
  const likely = ranking.suspects
  const total = likely.reduce((sum, s) => sum + s.probability, 0)
  for (const { nodeId, bits } of told) {
    const of = likely.map(({ faults }) => {
      if (isSomethingElse(faults)) return SOUNDS.map(s => ANY_SOUND[s])
      const outcome = outcomeOf(plan, faults)
      const cut = cutOutChance(outcome.solved.head, plan.drawn.solved.head)
      const raw = SOUNDS.map((s: Sound) => (1 - cut) * soundChance(s, offDb(nodeId!, outcome, plan), heardOf(nodeId!, outcome, plan)) + (s === 'silent' ? cut : 0))
      return raw.map(p => p / raw.reduce((a, b) => a + b))
    }).map(chances => chances.map(p => (1 - SLIP) * p + SLIP / SOUNDS.length))
    let direct = 0
    SOUNDS.forEach((_, a) => {
      const mixed = likely.reduce((sum, s, h) => sum + s.probability / total * of[h]![a]!, 0)
      likely.forEach((s, h) => { direct += s.probability / total * of[h]![a]! * Math.log2(of[h]![a]! / mixed) })
    })
    expect([nodeId, bits]).toEqual([nodeId, expect.closeTo(direct, 6)])
  }
})

test('of all that could be read the first saves most; answers are certain together; what was read is not asked again', () => {
  const { next } = asked(wrong)
  expect(next.tests.length).toBeGreaterThan(3)
  expect(next.tests.map(t => t.kind)).not.toContain('line-impedance')
  for (const t of next.tests) {
    expect(t.answers.reduce((sum, a) => sum + a.chance, 0)).toBeCloseTo(1, 6)
    expect([t.kind, t.minutes > 0, t.bits > 0, t.saves <= next.tests[0]!.saves + 1e-9]).toEqual([t.kind, true, true, true])
    for (const a of t.answers) expect(a.leaves.length).toBeGreaterThan(0)
  }
  const [first] = next.tests
  expect(asked(wrong, AT_THE_RACK, { cannot: [testKey(first!)] }).next.tests[0]).not.toMatchObject({ kind: first!.kind, nodeId: first!.nodeId })
})

test('never with the amplifier on where that must not be, never without its tool, never up without a ladder', () => {
  const on = new Set<string>(['sound', 'beside', 'polarity-heard', 'walk', 'swapped'])
  expect(asked(wrong, AT_THE_RACK, { mayBeOn: false }).next.tests.filter(t => on.has(t.kind))).toEqual([])
  expect(asked(wrong, { ...AT_THE_RACK, without: ['ladder'] }).next.tests.filter(t => ['tap-found', 'coil-dcr', 'outward-impedance'].includes(t.kind))).toEqual([])
  expect(asked(wrong, { ...AT_THE_RACK, without: ['ohmmeter', 'impedance-meter', 'battery', 'ladder'] }).next.tests.filter(t => !['sound', 'beside', 'walk'].includes(t.kind)).every(t => t.kind === 'looked' && t.nodeId === null)).toBe(true)
})

test.each<[string, Parameters<typeof minutesOf>[0], Standing, number]>([
  // By hand, from the table: what it takes, three for a ladder, one for the switch, two to the rack and 0.4 a place.
  ['the dial where one stands', { kind: 'tap-found', nodeId: ids[2]!, besideId: null }, { atId: ids[2]!, isOn: false, without: [] }, 1],
  ['the dial of the next', { kind: 'tap-found', nodeId: ids[3]!, besideId: null }, { atId: ids[2]!, isOn: false, without: [] }, 1 + 3 + 0.4],
  ['listening, from the rack, off', { kind: 'sound', nodeId: ids[0]!, besideId: null }, AT_THE_RACK, 0.5 + 1 + 2 + 0.4],
  ['listening on, already on', { kind: 'sound', nodeId: ids[1]!, besideId: null }, { atId: ids[0]!, isOn: true, without: [] }, 0.5 + 0.4],
  ['back to the rack', { kind: 'line-impedance', nodeId: null, besideId: null }, { atId: ids[1]!, isOn: true, without: [] }, 1.5 + 1 + 2 + 0.8],
])('minutes of %s', (_, what, standing, wanted) => expect(minutesOf(what, standing, new Map(ids.map((id, k) => [id, k])))).toBeCloseTo(wanted, 9))

test('a dial that stands wrong settles it: looked at, its tap is what it is', () => {
  const quiet = [reading('line-impedance', { is: 'ohm', ohm: 66 }), reading('beside', { is: 'quieter', besideId: ids[1]! }, ids[2]!), reading('sound', { is: 'plays' }, ids[2]!)]
  const { next } = asked(quiet, { atId: ids[2]!, isOn: false, without: ['impedance-meter', 'ohmmeter'] }, { mayBeOn: false })
  const dial = next.tests.find(t => t.kind === 'tap-found' && t.nodeId === ids[2])!
  const ten = dial.answers.find(a => 'value' in a.answer && a.answer.value.is === 'tap' && a.answer.value.tapW === 10)!
  expect(ten.leaves[0]!.faults[0]).toMatchObject({ kind: 'wrong-tap', nodeId: ids[2], tapW: 10 })
  expect(ten.leaves[0]!.probability).toBeGreaterThan(0.8)
})
