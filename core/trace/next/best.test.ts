import { describe, expect, test } from '@jest/globals'
import { proveLine } from '#core/check/proof'
import { Records } from '#core/job/records'
import type { FaultKind, Reading, ReadingValue, Sound } from '#core/job/schema'
import { SOUNDS } from '#core/job/sections/readings/schema'
import { speakersOf } from '#core/job/tree'
import { cabled, jobOf, outputOf } from '#core/testing/jobs'
import { ANY_SOUND, anySounds, cutOutChance, heardOf, offDb, soundChance, silentChance, soundsChance, turnedThrough } from '../ears'
import { anyLevelDensity, levelAt, levelBy, levelChance, levelDensity, levelOffDb, silenceOf } from '../levels'
import { givenBy } from '../given'
import { SLIP } from '../ohms'
import { outcomeOf } from '../outcome'
import { drained } from '#core/quantity/steps'
import { isSomethingElse, rankOfSingles, trySingles } from '../rank'
import { definitionOf } from '#core/faults/index'
import { faultAt, type Fault } from '#core/faults/fault'
import { lookChance, swapChance } from '../eyes'
import { reasonsOf } from '../reasons'
import { isTurnedAgain, nextTests, testKey, weighedOf } from './best'
import { AT_THE_RACK, laddersOf, minutesOf, standingAfter, standingBy, type Standing } from './minutes'
import { judgeTest } from './policy'
import { notedOn, sampledWalks } from './sampled'
import { passesOf } from './passes'
import { WALK_KINDS, type WalkKind } from './test'
import { passedBy, soundsWith, walked, WALKS } from './walk'
import { testTitle } from '../words'

const reading = (kind: Reading['kind'], value: ReadingValue, nodeId: string | null = null): Reading =>
  ({ id: `r${kind}${nodeId}`, at: '2026-05-04T09:00:00Z', kind, outputId: 'out1', nodeId, value, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false })
const output = outputOf(cabled(jobOf('4 x 20 W + 5 W on 70 V 150 W'), { cable: { awg: 16 }, lengthM: 9 }))
const ids = speakersOf(output.wiring).map(s => s.id)
const asked = (readings: Reading[], standing: Standing = AT_THE_RACK, more: { mayBeOn?: boolean, cannot?: string[] } = {}) => {
  const given = givenBy(output, proveLine({ readings: Records.of(readings), repairs: Records.of() }, output))
  const tried = drained(trySingles(given))
  const ranking = rankOfSingles(tried)
  return { tried, ranking, next: nextTests(tried, ranking, { standing, mayBeOn: more.mayBeOn ?? true, cannot: new Set(more.cannot) }, given.readings) }
}
const wrong = [reading('line-impedance', { is: 'ohm', ohm: 82 })]

test('what listening at a place tells, against a direct enumeration of every suspect and every sound (Shannon, mutual information)', () => {
  const { tried: { weigher: { plan } }, ranking, next } = asked(wrong, AT_THE_RACK, { cannot: [...WALK_KINDS] })
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

test('what a walk tells, against every way in which three speakers can sound: all of it, but for what chance leaves of 256 walks', () => {
  const three = outputOf(cabled(jobOf('3 x 20 W on 70 V 150 W'), { cable: { awg: 16 }, lengthM: 9 }))
  const of = speakersOf(three.wiring).map(s => s.id)
  const given = givenBy(three, proveLine({ readings: Records.of([reading('line-impedance', { is: 'ohm', ohm: 110 })]), repairs: Records.of() }, three))
  const tried = drained(trySingles(given))
  const { plan } = tried.weigher
  const { suspects } = rankOfSingles(tried)
  const walk = nextTests(tried, { suspects }, { standing: AT_THE_RACK, mayBeOn: true }, given.readings).tests.find(t => t.kind === 'walk')!
  const chances = suspects.map(({ faults }) => {
    const outcome = isSomethingElse(faults) ? null : outcomeOf(plan, faults)
    const cut = outcome ? cutOutChance(outcome.solved.head, plan.drawn.solved.head) : 0
    const each = of.map(id => SOUNDS.map(s => outcome ? soundChance(s, offDb(id, outcome, plan), heardOf(id, outcome, plan)) : ANY_SOUND[s]))
    return SOUNDS.flatMap((a, i) => SOUNDS.flatMap((b, j) => SOUNDS.map((c, k) => (1 - cut) * each[0]![i]! * each[1]![j]! * each[2]![k]! + (a === b && b === c && a === 'silent' ? cut : 0))))
      .map((p, _, all) => p / all.reduce((x, y) => x + y))
  })
  let direct = 0
  for (let a = 0; a < SOUNDS.length ** 3; a++) {
    const mixed = suspects.reduce((sum, s, h) => sum + s.probability * chances[h]![a]!, 0)
    suspects.forEach((s, h) => { if (chances[h]![a]! > 0) direct += s.probability * chances[h]![a]! * Math.log2(chances[h]![a]! / mixed) })
  }
  expect([Math.abs(walk.bits / direct - 1) < 0.05, direct > 1]).toEqual([true, true])
})

test('what a walk with the level meter tells, against an integral over what two of five may read; where nothing plays, that', () => {
  const { tried: { weigher: { plan } } } = asked([])
  const two = [ids[1]!, ids[2]!]
  const what: [Fault[] | null, number][] = [
    [[], 0.4], [[faultAt('wrong-tap', two[0]!, { tapW: 10 })], 0.2], [[faultAt('wrong-tap', two[1]!, { tapW: 5 })], 0.1], [[faultAt('open-at-drop', two[1]!)], 0.1],
    [[faultAt('amplifier-dead', null)], 0.1], [null, 0.1],
  ]
  const hypotheses = what.map(([faults]) => ({ outcome: faults && outcomeOf(plan, faults), sampleWeight: new Float64Array() }))
  const passed = hypotheses.map(h => passedBy('level-walk', two, h, plan))
  const weights = what.map(([, w]) => w)
  const chances = sampledWalks('level-walk', two, hypotheses, weights, passed, plan)
  // Silent is one answer; else two figures, a fifth of a decibel apart.
  const silent = passed.map(p => p.silent)
  expect([silent[0]! < 0.01, silent[4]!]).toEqual([true, expect.closeTo(1, 6)])
  const grid = Array.from({ length: 150 }, (_, k) => -18 + 0.2 * k)
  const density = (h: number, k: number, db: number) => {
    const { outcome } = hypotheses[h]!
    return outcome ? levelBy(db, levelAt(two[k]!, outcome, plan)) : anyLevelDensity(db)
  }
  const toOne = (all: number[]) => all.map(p => p / all.reduce((a, b) => a + b))
  const at = what.map((_, h) => two.map((_, k) => toOne(grid.map(db => density(h, k, db)))))
  const tells = (by: readonly number[]) => {
    const mixed = by.reduce((sum, p, h) => sum + weights[h]! * p, 0)
    return by.reduce((sum, p, h) => p > 0 ? sum + weights[h]! * p * Math.log2(p / mixed) : sum, 0)
  }
  // Nobody knows the setting: of two figures their difference tells, and nothing else.
  const apart = Array.from({ length: 2 * grid.length - 1 }, () => what.map(() => 0))
  what.forEach((_, h) => grid.forEach((_, i) => grid.forEach((_, j) => {
    apart[i - j + grid.length - 1]![h]! += (1 - silent[h]!) * at[h]![0]![i]! * at[h]![1]![j]!
  })))
  const direct = [silent, ...apart].reduce((sum, by) => sum + tells(by), 0)
  const { bits } = judgeTest(weights, [], { minutes: 0, chances })
  expect([Math.abs(bits / direct - 1) < 0.05, direct > 1]).toEqual([true, true])
  // Each walk is as likely as any other, and each of what may be there is met as often as it is likely.
  for (let a = 0; a < chances[0]!.length; a++) expect(chances.reduce((sum, c, h) => sum + weights[h]! * c[a]!, 0)).toBeCloseTo(1 / chances[0]!.length, 9)
  for (const [h, c] of chances.entries()) expect([h, Math.abs(c.reduce((a, b) => a + b) - 1) < 0.25]).toEqual([h, true])
})

test.each([...WALK_KINDS])('how likely what is noted on a %s is with each of what may be there: by each speaker by itself, and by silence of all', (kind) => {
  const { tried: { weigher: { plan } } } = asked([])
  const all: (Fault[] | null)[] = [[], [faultAt('wrong-tap', ids[0]!, { tapW: 5 })], [faultAt('turned-round', ids[3]!)], [faultAt('rubbing', ids[1]!), faultAt('open-at-drop', ids[2]!)],
    [faultAt('low-impedance-position', ids[1]!)], [faultAt('break-in-reach', ids[0]!)], [faultAt('amplifier-dead', null)], null]
  const hypotheses = all.map(faults => ({ outcome: faults && outcomeOf(plan, faults) }))
  const passed = hypotheses.map(h => passedBy(kind, ids, h, plan))
  const { ratios, silent, on, isSilence } = notedOn(kind, ids, hypotheses, passed, plan)
  // Ways by their number, levels in dB: with each figure of every speaker, another time.
  const figures = kind === 'level-walk' ? [0, -3, 1.5, -14] : WALKS[kind].ways.map((_, k) => k)
  const density = (h: number, k: number, x: number) => {
    return passed[h]!.at[k]![x]!
  }
  /** At the setting that makes the middle of all of them right. */
  const byLevels = (h: number, noted: number[]) => {
    const { outcome } = hypotheses[h]!
    const ats = ids.map(id => outcome ? levelAt(id, outcome, plan) : { offDb: 0, mute: 0 })
    // Of a few the setting may be any, a decibel apart.
    const each = noted.map((x, k) => x - ats[k]!.offDb)
    let total = 0
    for (let setting = Math.ceil(Math.min(...each) - 3); setting <= Math.max(...each) + 3; setting++) {
      total += noted.reduce((product, x, k) => product * (outcome ? levelBy(x - setting, ats[k]!) : anyLevelDensity(x - setting)), 1)
    }
    return Math.log(total)
  }
  for (const [n, x] of figures.entries()) {
    const noted = ids.map((_, k) => k === n % ids.length ? x : k === 4 ? figures.at(-1)! : figures[0]!)
    all.forEach((_, h) => {
      const direct = kind === 'level-walk'
        ? byLevels(h, noted) - byLevels(0, noted)
        : ids.reduce((sum, _, k) => sum + Math.log(density(h, k, noted[k]!) / density(0, k, noted[k]!)), 0)
      // What differs by less than is told apart is left out: a few hundredths of each.
      const ratio = ratios(noted)(h)
      expect([h, noted, direct === -Infinity ? ratio === 0 : Math.abs(Math.log(ratio) - direct) < 0.15]).toEqual([h, noted, true])
    })
  }
  // Nothing plays: with a dead channel, with nothing that arrives, and where the amplifier has cut out.
  const none = WALKS[kind].ways.indexOf(WALKS[kind].whenCut)
  const byItself = (h: number) => kind === 'level-walk' ? hypotheses[h]!.outcome ? silenceOf(ids, hypotheses[h]!.outcome!, plan) : 0 : passed[h]!.at.reduce((product, p) => product * p[none]!, 1)
  all.forEach((_, h) => {
    const { cut } = passed[h]!
    expect([h, silent(h), on(h)]).toEqual([h, expect.closeTo(cut + (1 - cut) * byItself(h), 9), expect.closeTo(kind === 'level-walk' ? 1 - silent(h) : 1 - cut, 9)])
  })
  expect([silent(0) < 0.01, silent(4) > 0.9, silent(5) > 0.9, isSilence(ids.map(() => none)), isSilence(ids.map((_, k) => k === 1 ? 0 : none))]).toEqual([true, true, true, kind !== 'level-walk', false])
})

test('along fifteen speakers the figures of a meter tell twice what their few answers do', () => {
  const many = outputOf(cabled(jobOf('15 x 10 W on 70 V 250 W'), { cable: { awg: 14 }, lengthM: 6 }))
  const of = speakersOf(many.wiring).map(s => s.id)
  const read = [reading('line-impedance', { is: 'ohm', ohm: 29 })]
  const given = givenBy(many, proveLine({ readings: Records.of(read), repairs: Records.of() }, many))
  const tried = drained(trySingles(given))
  const { suspects } = rankOfSingles(tried)
  const { tests } = nextTests(tried, { suspects }, { standing: AT_THE_RACK, mayBeOn: true }, given.readings)
  const { suspects: weighed, weights } = weighedOf(suspects)
  const passed = weighed.map(s => passedBy('level-walk', of, { outcome: isSomethingElse(s.faults) ? null : outcomeOf(tried.weigher.plan, s.faults) }, tried.weigher.plan))
  const few = judgeTest(weights, [], { minutes: 0, chances: walked('level-walk', of, passed)!.chances })
  expect(tests.find(t => t.kind === 'level-walk')!.bits).toBeGreaterThan(2 * few.bits)
})

test('a level was read: then something plays, and neither has the amplifier cut out nor is its channel dead', () => {
  const levels = ids.map((id, k) => reading('level', { is: 'level', db: [80, 80.4, 79.5, 80.2, 74][k]!, weighting: 'A', signal: 'pink-noise', headV: null }, id))
  const deadBy = (all: Reading[]) => asked(all).ranking.suspects.find(s => s.faults[0]?.kind === 'amplifier-dead')!.probability
  const [before, after] = [deadBy([]), deadBy(levels)]
  expect([before > 0.02, after < before / 100]).toEqual([true, true])
  // Of a line that is cut right behind the rack there is none, either.
  const cutAway = (all: Reading[]) => asked(all).ranking.suspects.find(s => s.faults[0]?.kind === 'break-in-reach' && s.faults[0].nodeId === ids[0])!.probability
  expect(cutAway(levels)).toBeLessThan(cutAway([]) / 100)
  // Of one that is cut behind the first, most say nothing and one plays: that is what it is.
  const first = ids.map((id, k) => reading('level', { is: 'level', db: [80, 64.5, 65.2, 64.8, 59][k]!, weighting: 'A', signal: 'pink-noise', headV: null }, id))
  expect(asked(first).ranking.suspects[0]!.faults[0]).toMatchObject({ kind: 'break-in-reach', nodeId: ids[1] })
  // What all were noted as silent by, cut out by a speaker on its low position, was one of a thousand with any of these.
  const silent = ids.map(id => reading('sound', { is: 'silent' }, id))
  const heardLog = (more: Reading[]) => {
    const { tried: { weigher } } = asked([...silent, ...more])
    const low = outcomeOf(weigher.plan, [faultAt('low-impedance-position', ids[1]!)])
    return weigher.fitOf(low) - weigher.seenBy(low)
  }
  const beside = (is: 'louder' | 'alike') => [reading('beside', { is, besideId: ids[2]! }, ids[3]!)]
  const told = (is: 'right-way' | 'cannot-tell') => [reading('polarity-heard', { is, how: 'pulse', against: null }, ids[3]!)]
  for (const [more, isPlaying] of [[levels, true], [beside('louder'), true], [beside('alike'), false], [told('right-way'), true], [told('cannot-tell'), false]] as const) {
    expect([more[0]!.value, heardLog([...more]) - heardLog([])]).toEqual([more[0]!.value, expect.closeTo(isPlaying ? Math.log(SLIP) : 0, 2)])
  }
})

test.each<[string, Fault[], string | null, Partial<Record<string, number>>]>([
  // From the table of what is seen, by hand.
  ['an open joint where one looks', [faultAt('open-at-drop', 'a')], 'a', { 'open-at-drop': 0.7, 'null': 0.3 * 0.99, 'dirty-contact': 0.3 * 0.01 / 8 }],
  ['the same from another place', [faultAt('open-at-drop', 'a')], 'b', { null: 0.99, 'open-at-drop': 0.01 / 8 }],
  ['two at one place', [faultAt('open-at-drop', 'a'), faultAt('rubbing', 'a')], 'a', { 'null': 0.3 * 0.2 * 0.99, 'rubbing': 0.94 * 0.8 / 1.5 }],
  ['a dead channel at the rack', [faultAt('amplifier-dead', null)], null, { 'amplifier-dead': 0.9 }],
])('what is seen: %s', (_, faults, nodeId, wanted) => {
  const outcome = { faults, definitions: faults.map(f => definitionOf(f.kind)!) }
  for (const [kind, chance] of Object.entries(wanted)) expect([kind, lookChance(kind === 'null' ? null : kind as FaultKind, nodeId, outcome)]).toEqual([kind, expect.closeTo(chance!, 9)])
})

test.each<[string, Fault[], number]>([
  ['a coil goes with its unit', [faultAt('coil-open', 'a')], 0.95], ['a joint stays', [faultAt('open-at-drop', 'a')], 0.05], ['a coil elsewhere stays', [faultAt('coil-open', 'b')], 0.05],
  ['a dial goes with it', [faultAt('wrong-tap', 'a')], 0.95], ['of nothing wrong nobody can say', [], 0.5],
])('another unit in its place: %s', (_, faults, goes) => {
  const outcome = { faults, definitions: faults.map(f => definitionOf(f.kind)!) }
  expect([swapChance('goes-with-it', 'a', outcome), swapChance('stays', 'a', outcome)]).toEqual([expect.closeTo(goes, 9), expect.closeTo(1 - goes, 9)])
})

test('of a long line all that may be there is weighed: beyond the likeliest a sample stands for the rest', () => {
  const many = Array.from({ length: 2000 }, (_, k) => ({ faults: [faultAt('rubbing', `${k}`)], probability: k < 20 ? 0.02 : k < 170 ? 0.1 / 150 : k === 170 ? 0.02 : 0.48 / 1829, fit: 0, lineOhm: null, isOverload: false }))
  const { suspects, weights } = weighedOf(many)
  expect([suspects.length <= 300, suspects.length > 250, new Set(suspects).size === suspects.length]).toEqual([true, true, true])
  expect(weights.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
  // Evenly: each half of the rest has half of its weight.
  const far = suspects.reduce((sum, s, k) => Number(s.faults[0]!.nodeId) >= 1085 ? sum + weights[k]! : sum, 0)
  expect(far).toBeCloseTo(0.24, 2)
  // One that is as likely as several steps stands for them.
  expect(weights[suspects.findIndex(s => s.faults[0]!.nodeId === '170')]! > 0.015).toBe(true)
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
  expect(next.isMendNext).toBe(false)
  // The best eight, and of each kind that tells anything the best.
  const all = new Set(next.tests.map(t => t.kind))
  expect([all.has('walk'), all.has('level-walk'), all.has('outward-impedance'), all.has('coil-dcr'), next.tests.length >= 8]).toEqual([true, true, true, true, true])
  // Found, and seen: there is nothing to ask any more before it is put right.
  const sure = asked([...wrong, ...ids.map((id, k) => reading('sound', { is: k === 2 ? 'silent' : 'plays' }, id)), reading('coil-dcr', { is: 'ohm', ohm: 6.4 }, ids[2]!), reading('looked', { is: 'seen', fault: 'open-at-drop' }, ids[2]!)])
  expect([sure.next.isMendNext, sure.ranking.suspects[0]!.faults[0]]).toMatchObject([true, { kind: 'open-at-drop', nodeId: ids[2] }])
  expect(asked(wrong, AT_THE_RACK, { cannot: [testKey(first!)] }).next.tests[0]).not.toMatchObject({ kind: first!.kind, nodeId: first!.nodeId })
})

test('never with the amplifier on where that must not be, never without its tool, never up without a ladder', () => {
  const on = new Set<string>(['sound', 'beside', 'polarity-heard', ...WALK_KINDS, 'swapped'])
  expect(asked(wrong, AT_THE_RACK, { mayBeOn: false }).next.tests.filter(t => on.has(t.kind))).toEqual([])
  expect(asked(wrong, { ...AT_THE_RACK, without: ['ladder'] }).next.tests.filter(t => ['tap-found', 'coil-dcr', 'outward-impedance'].includes(t.kind))).toEqual([])
  expect(asked(wrong, { ...AT_THE_RACK, without: ['ohmmeter', 'impedance-meter', 'battery', 'ladder'] }).next.tests.filter(t => !['sound', 'beside', 'walk', 'level-walk'].includes(t.kind)).every(t => t.kind === 'looked' && t.nodeId === null)).toBe(true)
})

const up: Standing = { atId: ids[2]!, isUp: true, isOn: true, without: [] }
test.each<[string, Parameters<typeof minutesOf>[0], Standing, number]>([
  // By hand, from the table: what it takes, three for a ladder, one for the switch, two to the rack and 0.4 a place.
  ['the dial where one stands', { kind: 'tap-found', nodeId: ids[2]!, besideId: null }, { ...up, isOn: false }, 1],
  ['the dial above where one listened', { kind: 'tap-found', nodeId: ids[2]!, besideId: null }, { ...up, isUp: false }, 1 + 1 + 3],
  ['two that change places, up at the first', { kind: 'swapped', nodeId: ids[2]!, besideId: ids[3]! }, up, 8 + 8 + 3],
  ['the dial of the next', { kind: 'tap-found', nodeId: ids[3]!, besideId: null }, { ...up, isOn: false }, 1 + 3 + 0.4],
  ['listening, from the rack, off', { kind: 'sound', nodeId: ids[0]!, besideId: null }, AT_THE_RACK, 0.5 + 1 + 2 + 0.4],
  ['listening on, already on', { kind: 'sound', nodeId: ids[1]!, besideId: null }, { ...up, atId: ids[0]! }, 0.5 + 0.4],
  ['back to the rack', { kind: 'line-impedance', nodeId: null, besideId: null }, { ...up, atId: ids[1]! }, 1.5 + 1 + 2 + 0.8],
  ['a look at a knob on the wall, from the rack', { kind: 'looked', nodeId: 'knob', besideId: null }, AT_THE_RACK, 1.5 + 2 + 0.4],
])('minutes of %s', (_, what, standing, wanted) => expect(minutesOf(what, standing, new Map(ids.map((id, k) => [id, k])))).toBeCloseTo(wanted, 9))

test.each<[string, [Parameters<typeof standingBy>[0][number]['kind'], number | null][], Partial<Standing>]>([
  ['nothing read', [], { atId: null, isUp: false, isOn: false }],
  ['listened under one', [['sound', 2]], { atId: ids[2]!, isUp: false, isOn: true }],
  ['its coil read, then listened', [['coil-dcr', 2], ['sound', 2]], { atId: ids[2]!, isUp: true, isOn: true }],
  ['its coil read, then listened under the next', [['coil-dcr', 2], ['sound', 3]], { atId: ids[3]!, isUp: false, isOn: true }],
  ['a dial, then back to the rack', [['tap-found', 1], ['line-impedance', null]], { atId: null, isUp: false, isOn: false }],
])('where somebody stands: %s', (_, readings, wanted) => {
  const order = new Map(ids.map((id, k) => [id, k]))
  expect(standingBy(readings.map(([kind, k]) => ({ kind, nodeId: k === null ? null : ids[k]! })), order, ['ladder'])).toEqual({ ...wanted, without: ['ladder'] })
  // A walk ends under the last that was passed.
  expect(standingAfter({ kind: 'walk', nodeId: null }, { ...up, atId: ids[4]! }, order, ids[3]!)).toEqual({ atId: ids[3], isUp: false, isOn: true, without: [] })
})

test.each<[string, Parameters<typeof laddersOf>[0], Standing, number]>([
  ['a coil from the floor', { kind: 'coil-dcr', nodeId: ids[2]!, besideId: null }, AT_THE_RACK, 1], ['where one is up', { kind: 'coil-dcr', nodeId: ids[2]!, besideId: null }, up, 0],
  ['two that change places', { kind: 'swapped', nodeId: ids[2]!, besideId: ids[3]! }, AT_THE_RACK, 2], ['a known-good one', { kind: 'swapped', nodeId: ids[2]!, besideId: null }, AT_THE_RACK, 1],
  ['the rack', { kind: 'looked', nodeId: null, besideId: null }, AT_THE_RACK, 0],
])('ladders of %s', (_, what, standing, wanted) => expect(laddersOf(what, standing, new Map(ids.map((id, k) => [id, k])))).toBe(wanted))

test('what is looked at is named: a place, and the rack by what is to be seen there', () =>
  expect(['a', null].map(nodeId => testTitle({ kind: 'looked', nodeId, besideId: null }, id => id === null ? 'the whole line' : '03'))).toEqual(['Look at 03', 'Look at the rack: lights, knobs, plugs']))

test('a walk along the line takes its way and a moment at each; what takes two, or all, is told apart', () => {
  const order = new Map(ids.map((id, k) => [id, k]))
  // By hand: one for the switch, two from the rack and 0.4 to the first; 0.2 at each of five and 0.4 from one to the next.
  for (const [kind, minutes] of [['walk', 5 * 0.2], ['level-walk', 1 + 5 * 0.35], ['pulse-walk', 1 + 5 * 0.25]] as const) {
    expect([kind, minutesOf({ kind, nodeId: null, besideId: null }, AT_THE_RACK, order, ids)]).toEqual([kind, expect.closeTo(1 + 2 + 0.4 + minutes + 4 * 0.4,
      9)])
  }
  const { tried: { weigher: { plan } } } = asked([])
  const of = (...faults: Fault[]) => ({ outcome: outcomeOf(plan, faults), sampleWeight: new Float64Array() })
  const two = of(faultAt('coil-open', ids[1]!), faultAt('rubbing', ids[3]!))
  const found = walked('walk', ids, [two, of(faultAt('short-at-drop', ids[0]!)), of(faultAt('break-in-reach', ids[2]!))].map(h => passedBy('walk', ids, h, plan)))!
  const chanceOf = (h: number, heard: [number, string][]) => {
    const at = found.answers.findIndex(a => 'heard' in a && a.heard !== null && a.heard.length === heard.length && heard.every(([k, is]) => a.heard!.some(x => x.nodeId === ids[k] && x.is === is)))
    return at < 0 ? 0 : found.chances[h]![at]!
  }
  const plays = soundChance('plays', 0, null)
  expect(chanceOf(0, [[1, 'silent'], [3, 'scratchy']])).toBeCloseTo(plays ** 3 * soundChance('scratchy', 0, definitionOf('rubbing')!.heard!), 2)
  expect(chanceOf(1, ids.map((_, k) => [k, 'silent']))).toBeCloseTo(1, 2)
  expect(chanceOf(2, [2, 3, 4].map(k => [k, 'silent']))).toBeCloseTo(plays ** 2, 2)
  for (const chances of found.chances) expect(chances.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
})

test('a dial that stands wrong settles it: looked at, its tap is what it is', () => {
  const quiet = [reading('line-impedance', { is: 'ohm', ohm: 66 }), reading('beside', { is: 'quieter', besideId: ids[1]! }, ids[2]!), reading('sound', { is: 'plays' }, ids[2]!)]
  const { next } = asked(quiet, { ...up, isOn: false, without: ['impedance-meter', 'ohmmeter'] }, { mayBeOn: false })
  const dial = next.tests.find(t => t.kind === 'tap-found' && t.nodeId === ids[2])!
  const ten = dial.answers.find(a => 'value' in a.answer && a.answer.value.is === 'tap' && a.answer.value.tapW === 10)!
  expect(ten.leaves[0]!.faults[0]).toMatchObject({ kind: 'wrong-tap', nodeId: ids[2], tapW: 10 })
  expect(ten.leaves[0]!.probability).toBeGreaterThan(0.8)
})

test('who listens again: all that may be noted is one together, what is there is mostly heard once more, and a slip hardly', () => {
  const { tried: { weigher: { plan } } } = asked([])
  const of = (...faults: Fault[]) => ({ outcome: outcomeOf(plan, faults), sampleWeight: new Float64Array() })
  const heardOfIt: [string, ReturnType<typeof of>][] = [['right', of()], ['rubbing', of(faultAt('rubbing', ids[1]!))], ['open', of(faultAt('coil-open', ids[1]!))], ['not in the list', { outcome: null as never, sampleWeight: new Float64Array() }]]
  for (const [name, h] of heardOfIt) for (const before of SOUNDS) {
    const all = SOUNDS.reduce((sum, is) => sum + soundsWith(ids[1]!, h, plan, [before])(is), 0)
    expect([name, before, Math.abs(all - 1) < 0.1]).toEqual([name, before, true])
  }
  const again = (h: ReturnType<typeof of>, before: Sound, is: Sound) => soundsWith(ids[1]!, h, plan, [before])(is)
  // Of one that is right a slip is not heard twice; of one that rubs it is, and oftener than the first time.
  expect([again(of(), 'scratchy', 'scratchy') < 0.02, again(of(), 'scratchy', 'plays') > 0.95, again(heardOfIt[1]![1], 'scratchy', 'scratchy') > 0.85]).toEqual([true, true, true])
  // By hand, of what is in no list: 0.6 of how it sounds in truth, 0.4 of twice anew.
  const [plays, stray] = [0.966, 0.006]
  expect(anySounds(['hum', 'hum'])).toBeCloseTo(0.4 * 0.03 ** 2 + 0.6 * (0.62 * 0.005 ** 2 + 0.03 * (1 - 6 * stray) ** 2 + 0.35 * stray ** 2), 9)
  // Of one that is right at its watts hardly anything is quiet: 0.85 of one in a hundred.
  expect(soundsChance(['plays', 'plays'], 0, null)).toBeCloseTo(plays ** 2, 1)
})

test.each<[string, Reading[], string[]]>([
  ['nobody listened', [], []], ['one plays', [reading('sound', { is: 'plays' }, ids[1]!)], []], ['one was noted as thin', [reading('sound', { is: 'thin' }, ids[1]!)], [ids[1]!]],
  ['twice', [reading('sound', { is: 'thin' }, ids[1]!), { ...reading('sound', { is: 'plays' }, ids[1]!), id: 'r2', at: '2026-05-04T09:05:00Z' }], []],
])('asked to be listened at once more: %s', (_, readings, wanted) => {
  const { next } = asked([...wrong, ...readings], AT_THE_RACK, { cannot: [...WALK_KINDS, ...ids.flatMap(nodeId => ['beside', 'looked', 'swapped', 'coil-dcr', 'tap-found', 'polarity-heard', 'outward-impedance'].map(kind => testKey({ kind: kind as 'sound', nodeId })))] })
  expect(next.tests.filter(t => t.isAgain).map(t => t.nodeId)).toEqual(wanted)
})

const PULSE = (is: 'right-way' | 'reversed' | 'cannot-tell', k: number) => ({ ...reading('polarity-heard', { is, how: 'pulse', against: null }, ids[1]!), id: `p${k}`, at: `2026-05-04T09:0${k}:00Z` })
describe('which way round, told more than once', () => {
  const others = ['sound', 'beside', 'looked', 'swapped', 'coil-dcr', 'tap-found', 'outward-impedance'] as const
  const onlyPulses = [...WALK_KINDS, ...ids.flatMap(nodeId => others.map(kind => testKey({ kind, nodeId })))]
  test.each<[string, Reading[], boolean]>([
    ['not yet', [], false], ['the right way', [PULSE('right-way', 0)], false], ['the other way', [PULSE('reversed', 0)], true], ['not told', [PULSE('cannot-tell', 0)], true],
    ['one says so, one not', [PULSE('reversed', 0), PULSE('right-way', 1)], true], ['two say so', [PULSE('reversed', 0), PULSE('reversed', 1)], false],
    ['three times', [PULSE('reversed', 0), PULSE('right-way', 1), PULSE('right-way', 2)], false],
  ])('asked for once more: %s', (_, readings, wanted) => {
    const { next } = asked([reading('line-impedance', { is: 'ohm', ohm: 58 }), ...readings], AT_THE_RACK, { cannot: onlyPulses })
    expect(next.tests.some(t => t.isAgain && t.nodeId === ids[1])).toBe(wanted)
  })
  test.each<[string, Sound[], boolean]>([
    ['silent at first, then it plays', ['silent', 'plays'], true], ['plays at first, then says nothing', ['plays', 'silent'], false],
  ])('a pulse, and a walk with it, is asked for where something comes out, the first time and once more: %s', (_, sounds, isAsked) => {
    const noted = sounds.map((is, k) => ({ ...reading('sound', { is }, ids[1]!), id: `s${k}`, at: `2026-05-04T08:0${k}:00Z` }))
    const isAskedAfter = (more: Reading[]) => asked([...noted, ...more], AT_THE_RACK, { cannot: onlyPulses }).next.tests.some(t => t.kind === 'polarity-heard' && t.nodeId === ids[1])
    expect([isAskedAfter([]), isAskedAfter([PULSE('cannot-tell', 0)])]).toEqual([isAsked, isAsked])
    const { next } = asked(ids.map(id => reading('sound', { is: sounds.at(-1)! }, id)), AT_THE_RACK, { cannot: ['walk', 'level-walk'] })
    expect(next.tests.some(t => t.kind === 'pulse-walk')).toBe(isAsked)
  })
  test.each<[WalkKind, number[]]>([['walk', [0, 4]], ['level-walk', [0, 1, 2, 3]], ['pulse-walk', [0, 2]]])('what a %s has before it: what was not read so yet, with a pulse where something comes out', (kind, wanted) => {
    const readings = [reading('sound', { is: 'silent' }, ids[2]!), ...[1, 2, 3].map(k => reading('sound', { is: k === 3 ? 'silent' : 'plays' }, ids[k]!))]
    const more = [reading('level', { is: 'level', db: 80, weighting: 'A', signal: 'pink-noise', headV: null }, ids[4]!), PULSE('right-way', 0), { ...PULSE('reversed', 1), nodeId: ids[4]! }]
    expect(passesOf(kind, ids, [...readings, ...more])).toEqual(wanted.map(k => ids[k]))
  })
  test.each<[string[], boolean]>([
    [[], false], [['right-way'], false], [['right-way', 'right-way'], false], [['reversed'], true], [['right-way', 'reversed'], true], [['cannot-tell', 'cannot-tell'], true],
    [['reversed', 'reversed'], false], [['reversed', 'right-way', 'reversed'], false], [['cannot-tell', 'cannot-tell', 'cannot-tell'], false],
  ])('told %j: once more %s', (told, isAgain) => expect(isTurnedAgain(told)).toBe(isAgain))
  test('each reading tells, in any order, and what speaks for it says all of it', () => {
    const shareOf = (...all: Reading[]) => asked(all).ranking.suspects.find(s => s.faults[0]?.kind === 'turned-round' && s.faults[0].nodeId === ids[1])!
    const { tried: { weigher: { plan } } } = asked([])
    const of = [[], ['reversed'], ['reversed', 'reversed'], ['reversed', 'right-way']]
    const [none, once, twice, torn] = of.map(ways => shareOf(...ways.map((is, k) => PULSE(is as 'reversed', k))))
    // By itself each is told otherwise in three of a hundred, and a quarter is not told: 0.97 for 0.03, each time anew.
    const odds = (more: typeof none, less: typeof none) => more!.fit - less!.fit
    const slipped = (p: number, any = 0.03) => Math.log(0.999 * 0.75 * (1 - silentChance(0)) * p + 0.001 * any)
    // What is told at all was told with the amplifier on: it may cut out of itself, a little.
    const on = Math.log(1 - cutOutChance(outcomeOf(plan, []).solved.head, outcomeOf(plan, []).solved.head))
    const wanted = [slipped(0.97), 2 * slipped(0.97), slipped(0.97) + slipped(0.03, 0.72)].map(log => log + on)
    expect([odds(once, none), odds(twice, none), odds(torn, none)]).toEqual(wanted.map(v => expect.closeTo(v, 6)))
    expect(shareOf(PULSE('right-way', 0), PULSE('reversed', 1)).fit).toBeCloseTo(torn!.fit, 9)
    const { tried: { weigher } } = asked([PULSE('reversed', 0), PULSE('reversed', 1)])
    const told = weigher.tellings(outcomeOf(weigher.plan, [faultAt('turned-round', ids[1]!)]))
    expect(told.map(t => t.log)).toEqual([expect.closeTo(2 * slipped(0.97), 6)])
    // Of something that is in no list both are as they are of anything: three of a hundred each.
    const { tried, ranking: { suspects } } = asked([PULSE('reversed', 0), PULSE('reversed', 1)])
    const times = reasonsOf(tried, suspects)
    const [is, other] = [(s: Fault) => s.kind === 'turned-round' && s.nodeId === ids[1], (s: Fault) => s.kind === 'something-else'].map(of => times[suspects.findIndex(s => s.faults.length === 1 && of(s.faults[0]!))]![0]!.times)
    expect(Math.log(is! / other!)).toBeCloseTo(2 * slipped(0.97) - 2 * Math.log(0.03), 6)
  })
})

test('by the level meter: what is foretold of louder and quieter is what the figures come to, against an integral; a pulse through silence tells nothing', () => {
  const { tried: { weigher: { plan } } } = asked([])
  const step = 0.01
  const share = (off: number, from: number, to: number) => Array.from({ length: Math.round((to - from) / step) }, (_,
    k) => levelDensity(from + (k + 0.5) * step, off) * step).reduce((a, b) => a + b)
  for (const off of [-15, -3, -1, 0, 2, 3]) {
    const [quieter, alike, louder] = [share(off, -12.5 + Math.min(0, off), -2), share(off, -2, 2), share(off, 2, 12.5)]
    expect([off, levelChance('quieter', off), levelChance('alike', off), levelChance('louder', off)]).toEqual([off, expect.closeTo(quieter, 1), expect.closeTo(alike, 1), expect.closeTo(louder, 1)])
  }
  expect([levelChance('quieter', -3) > 0.75, anyLevelDensity(0) > anyLevelDensity(3), anyLevelDensity(9)]).toEqual([true, true, expect.closeTo(0.05 / 25, 6)])
  // A tap of half the watts is three decibels under its like; where all are silent, all are read alike.
  const [half, dead] = [outcomeOf(plan, [faultAt('wrong-tap', ids[1]!, { tapW: 10 })]), outcomeOf(plan, [faultAt('break-in-reach', ids[0]!)])]
  expect([levelOffDb(ids[1]!, half, plan), levelOffDb(ids[0]!, half, plan), levelOffDb(ids[2]!, dead, plan)]).toEqual([expect.closeTo(-3, 0),
    expect.closeTo(0, 0), 0])
  // By hand: one in four cannot tell though it plays; of the rest 0.97 see what is.
  const turned = (is: 'right-way' | 'cannot-tell', outcome: typeof half) => turnedThrough({ is, against: null }, ids[1]!, outcome, plan)
  expect([turned('right-way', half), turned('cannot-tell', half), turned('cannot-tell', dead)]).toEqual([expect.closeTo(0.75 * 0.97, 2), expect.closeTo(0.25, 2), expect.closeTo(1, 6)])
  // Nor does a pulse come through an amplifier that is dead; through a source of one side for one of five.
  const [off, oneSide] = (['amplifier-dead', 'source-one-side'] as const).map(kind => outcomeOf(plan, [faultAt(kind, null)]))
  expect([turned('cannot-tell', off!), turned('right-way', oneSide!)]).toEqual([1, expect.closeTo(0.2 * 0.75 * 0.97, 2)])
})

test('forty that are right, read by the meter and the pulse, speak neither against the line as drawn nor for something that no list has', () => {
  const many = outputOf(cabled(jobOf('40 x 5 W on 70 V 250 W'), { cable: { awg: 14 }, lengthM: 4 }))
  const of = speakersOf(many.wiring).map(s => s.id)
  const first = (readings: Reading[]) => {
    const { suspects } = rankOfSingles(drained(trySingles(givenBy(many, proveLine({ readings: Records.of(readings), repairs: Records.of() }, many)))))
    return { drawn: suspects.find(s => s.faults.length === 0)!.probability, other: suspects.find(s => isSomethingElse(s.faults))!.probability }
  }
  const before = first([])
  const after = first(of.flatMap((id, k) => [
    reading('level', { is: 'level', db: 80 + [0.6, -0.8, 0.1, -0.2][k % 4]!, weighting: 'A', signal: 'pink-noise', headV: null }, id),
    reading('polarity-heard', { is: 'right-way', how: 'pulse', against: null }, id),
  ]))
  expect([after.drawn > before.drawn, after.other / after.drawn < before.other / before.drawn, after.other > before.other / 20]).toEqual([true, true, true])
})

test.each<[string, string, boolean, string[]]>([
  ['may be on', '8 || 8 || 8 || 8 on 200 W at 2', true, ['level-walk', 'polarity', 'pulse-walk', 'walk']], ['may be a short: nothing is switched on, and no battery laid across', '8 || 8 || 8 || 8 on 200 W at 2', false, []],
  ['three are too few to hold a level against', '8 || 8 || 8 on 200 W at 2', true, ['polarity', 'pulse-walk', 'walk']],
])('what may be asked of a plain line: %s', (_, design, mayBeOn, wanted) => {
  const plain = outputOf(cabled(jobOf(design), { cable: { awg: 14 }, lengthM: 4 }))
  const of = speakersOf(plain.wiring).map(s => s.id)
  const given = givenBy(plain, proveLine({ readings: Records.of([]), repairs: Records.of() }, plain))
  const tried = drained(trySingles(given))
  const others = ['looked', 'swapped', 'coil-dcr', 'outward-impedance', 'beside', 'sound'].flatMap(kind => [null, ...of].map(nodeId => testKey({ kind: kind as 'sound', nodeId })))
  const { tests } = nextTests(tried, rankOfSingles(tried), { standing: AT_THE_RACK, mayBeOn, cannot: new Set(others) }, given.readings)
  expect([...new Set(tests.map(t => t.kind))].filter(kind => kind === 'polarity' || kind.endsWith('walk')).sort()).toEqual(wanted)
})
