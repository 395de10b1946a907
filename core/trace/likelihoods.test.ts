import { describe, expect, test } from '@jest/globals'
import type { ReadingValue, Sound } from '#core/job/schema'
import { SOUNDS } from '#core/job/sections/readings/schema'
import { faultAt } from '#core/faults/fault'
import { speakersOf } from '#core/job/tree'
import type { Seen } from '#core/network/solver'
import { cabled, jobOf, outputOf } from '#core/testing/jobs'
import { SEED } from '#core/testing/runs'
import { seeded } from '#core/testing/trees'
import { entropy, logSum, normalAt, normalBelow } from './chances'
import { likeAnyCoil, likeCoil } from './coils'
import { deviationsOf } from './deviations'
import { ANY_SOUND, besideChance, cutOutChance, NOT_CUT_FROM, silentChance, soundChance } from './ears'
import { LIKE, likeAnything } from './evidence'
import { anyLevelDensity, levelGroups, levelled, levelsLog, lineMute, muteAt } from './levels'
import { middleInOrder, middleOf, middleWith, middleWithOne } from './middle'
import { outcomeOf, planOf } from './outcome'
import { brokenLine, likeAnyOhm, likeElseOhm, likeOhm, likeShown, mostOfOhm, ohmAbove, orSlip, scaled, sigmasAbove } from './ohms'

const ohm = (value: number): ReadingValue => ({ is: 'ohm', ohm: value })
const open: ReadingValue = { is: 'open' }
const seen = (value: number): Seen => ({ state: 'finite', re: value, im: 0, ohm: value })
const HEAD = { nodeId: null, frequencyHz: 1000 }
const read = (value: ReadingValue, lengthM: number | null = 100) => ({ value, place: HEAD, lengthM })
/** Height of a bell at its middle (NIST handbook of mathematical functions, 26.2). */
const TOP = 1 / Math.sqrt(2 * Math.PI)

test.each<[string, number, number]>([
  // Of many ohms a meter's sigma is 2 %, densities being by the logarithm; of few a tenth of an ohm, which there is one of those.
  ['just as computed', likeOhm(read(ohm(1000)), seen(1000), 0)(0) * 0.02, TOP], ['one sigma above', likeOhm(read(ohm(1020.2)), seen(1000), 0)(0) * 0.02, 0.24197],
  ['units of 5 % each, one sigma of both above', likeOhm(read(ohm(1055.3)), seen(1000), 0.0025)(0) * 0.05385, 0.24197],
  ['units that lie higher', likeOhm(read(ohm(300 * Math.exp(0.2))), seen(300), 0)(0.2) * 0.02, TOP],
  ['no ohms at all', likeOhm(read({ is: 'plays' }), seen(8), 0)(0), 0],
  // A tenth either way of a fifth of an ohm is nothing to be sure of, and nothing at all two tenths: a normal of 0.1 Ω.
  ...([['a tenth more', 0.31, 0.24197], ['a tenth less', 0.11, 0.24197], ['nothing', 0.01, 0.05399], ['four tenths more', 0.61, 0.00013]] as const)
    .map(([name, shown, wanted]): [string, number, number] => [`a short at the first drop, ${name}`, likeOhm(read(ohm(shown)), seen(0.21), 0)(0) * 0.1 / (shown + 0.1), wanted]),
  ['a dead short reads nothing', likeOhm(read(ohm(0)), { state: 'short' }, 0)(0), TOP],
  ['a broken line, written as open', likeOhm(read(open), { state: 'open' }, 0)(0), 0.6],
  ['what is there is not open', likeOhm(read(open), seen(80), 0)(0), 1 / (1 + Math.exp((Math.log(30_000) - Math.log(80)) / 0.5))],
  ['a copper reading of a break is open and nothing else', likeOhm({ ...read(ohm(9000)), place: { nodeId: null, frequencyHz: 0 } }, { state: 'open' }, 0)(0), 0],
  // 0.75 over the logarithms of an eighth to eight; a short; far away.
  ['anything: near the plan', likeAnyOhm({ value: ohm(30), plannedOhm: 20 }), 0.75 / (2 * Math.log(8))], ['anything: far from it', likeAnyOhm({ value: ohm(200), plannedOhm: 20 }), 0.1 / (2 * Math.log(1000))],
  ['anything: a short', likeAnyOhm({ value: ohm(0.2), plannedOhm: 20 }), 0.04 / (scaled(0.5) - scaled(0))], ['anything: open', likeAnyOhm({ value: open, plannedOhm: 20 }), 0.08],
  // 0.85 over an exponential of 0.7 either way, and a tenth over the logarithms of a thousandth to a thousand.
  ['something else: as planned', likeElseOhm({ value: ohm(20), plannedOhm: 20 }), 0.61438], ['half, or twice', likeElseOhm({ value: ohm(40), plannedOhm: 20 }), 0.23279],
  ['far from it', likeElseOhm({ value: ohm(2000), plannedOhm: 20 }), 0.00808], ['a short', likeElseOhm({ value: ohm(0.2), plannedOhm: 20 }), 0.005 / Math.log(6)], ['open', likeElseOhm({ value: open, plannedOhm: 20 }), 0.03],
  ['of no plan', likeElseOhm({ value: ohm(20), plannedOhm: null }), 0.61438],
  ['a slip of the pen', orSlip(0, 0.5), 0.0005], ['and not', orSlip(0.8, 0.5), 0.999 * 0.8 + 0.001 * 0.5],
])('how well it fits: %s', (_, likelihood, wanted) => expect(likelihood).toBeCloseTo(wanted, 3))

test('whatever is there, what a meter may show is one in all: what lies under nothing is not shown; so many sigma above is as many above', () => {
  for (const there of [0, 0.05, 0.3, 2, 8, 180]) for (const variance of [0, 0.0025, 0.1, 0.6]) {
    let shown = 0
    const step = 1e-3
    for (let x = scaled(0) + step / 2; x < 14; x += step) shown += likeShown(Math.exp(x) - 0.1, there, variance) * step
    expect([there, variance, shown]).toEqual([there, variance, expect.closeTo(normalBelow(-sigmasAbove(0, there, variance)), 3)])
    for (const sigmas of there < 0.3 ? [0, 1.7] : [-0.5, 0, 1.7]) expect(sigmasAbove(ohmAbove(there, sigmas, variance), there, variance)).toBeCloseTo(sigmas, 8)
  }
})

test('no head explains a reading better than the most that is said, and some come near: every head from 10 mΩ to 100 kΩ', () => {
  const heads: Seen[] = [{ state: 'open' }, { state: 'short' }, ...Array.from({ length: 1611 }, (_, k) => seen(Math.exp(k / 100 - 4.6)))]
  for (const value of [ohm(0), ohm(0.3), ohm(2), ohm(8), ohm(180), ohm(2400), ohm(12_000), open]) for (const variance of [0, 0.0004, 0.02]) {
    const most = mostOfOhm(read(value), variance)
    const likes = heads.flatMap(h => [variance, variance + 0.1].map(v => likeOhm(read(value), h, v)(0)))
    const name = `${JSON.stringify(value)}, variance ${variance}`
    expect([name, Math.max(...likes) <= most]).toEqual([name, true])
    // What reads over range may be it at half.
    expect([name, Math.max(...likes) > 0.6 * most]).toEqual([name, true])
  }
})

test('a broken line of 160 m reads some ten kilohms at 1 kHz, not open (a pair of 50 to 150 pF a metre, from memory); half a watt that is there reads as much', () => {
  const { leastOhm, mostOhm } = brokenLine(HEAD, 160)!
  expect([leastOhm < 1 / (2 * Math.PI * 1000 * 150e-12 * 160), leastOhm > 4000, mostOhm > 20_000, mostOhm < 30_000]).toEqual([true, true, true, true])
  const at = (value: number, state: Seen) => likeOhm(read(ohm(value), 160), state, 0)(0)
  expect([at(10_000, { state: 'open' }) > 0.1, at(1000, { state: 'open' }), at(10_000, seen(10_000)) > 5]).toEqual([true, 0, true])
  // Of no stated length it may be any.
  expect(brokenLine(HEAD, null)!.mostOhm).toBeGreaterThan(mostOhm)
})

describe('what a coil of 8 Ω says, its model’s copper in the middle', () => {
  const at = (value: ReadingValue, is: 'right' | 'high' | 'low' | 'short' | 'open') => likeCoil(value, is, 6.4, 0)
  test.each<[string, ReadingValue, string]>([['as it should be', ohm(6.4), 'right'], ['ten times', ohm(64), 'high'], ['half', ohm(3.2), 'low'], ['nothing', ohm(0), 'short'], ['open', open, 'open']])('%s', (_, value, wanted) => {
    const all = (['right', 'high', 'low', 'short', 'open'] as const).map(is => [is, at(value, is)] as const)
    expect(all.reduce((a, b) => b[1] > a[1] ? b : a)[0]).toBe(wanted)
  })
  test('of no known label ohms of a coil are right; nothing and hundreds are not; a slip may be anything', () => {
    expect([likeCoil(ohm(6), 'right', null, 0) > 0, likeCoil(ohm(300), 'right', null, 0), likeCoil(ohm(300), 'high', null, 0) > 0, likeCoil({ is: 'plays' }, 'right', null, 0)]).toEqual([true, 0, true, 0])
    expect([open, ohm(0.1), ohm(7)].map(likeAnyCoil)).toEqual([0.1, 0.06, 0.25])
  })
})

test('a dial stands somewhere: all its positions together are certain, whatever is wrong with it; one it does not stand at is as likely as any other', () => {
  const output = outputOf(cabled(jobOf('4 x 5 W on 70 V'), { cable: { awg: 16 }, lengthM: 8 }))
  const plan = planOf(output, deviationsOf(output, new Map(), new Set()))
  const [speaker] = speakersOf(output.wiring)
  const { tapsW, tapW } = speaker!.load as Extract<typeof speaker, object>['load'] & { kind: 'tap' }
  const like = (found: number, faults: Parameters<typeof outcomeOf>[1]) => LIKE['tap-found']!({ reading: { value: { is: 'tap', tapW: found, ratedV: 70.71 }, nodeId: speaker!.id },
    predicted: { tap: { tapW, ratedV: 70.71 } } } as never, outcomeOf(plan, faults), plan)
  const other = tapsW.find(w => w !== tapW)!
  for (const [stands, faults] of [[tapW, []], [other, [faultAt('wrong-tap', speaker!.id, { tapW: other })]], [tapW, [faultAt('coil-open', speaker!.id)]]] as const) {
    const all = tapsW.map(w => like(w, faults))
    expect([stands, all.reduce((a, b) => a + b)]).toEqual([stands, expect.closeTo(1, 9)])
    expect(tapsW.map((w, k) => w === stands ? all[k]! > 0.98 : all[k]! < 0.01 && all[k] === Math.min(...all))).toEqual(tapsW.map(() => true))
  }
})

test('a dial stands as it stood where its speaker is shorted, or behind a break; on the other scale the same watts are another dial', () => {
  const output = outputOf(cabled(jobOf('4 x 5 W on 70 V'), { cable: { awg: 16 }, lengthM: 8 }))
  const plan = planOf(output, deviationsOf(output, new Map(), new Set()))
  const speakers = speakersOf(output.wiring)
  const dial = (k: number, ratedV: number) => ({ reading: { kind: 'tap-found', value: { is: 'tap', tapW: 5, ratedV },
    nodeId: speakers[k]!.id }, predicted: { tap: { tapW: 5, ratedV: 70.71 } } }) as never
  const isFound = (k: number, ratedV: number, faults: Parameters<typeof outcomeOf>[1]) => LIKE['tap-found']!(dial(k, ratedV), outcomeOf(plan, faults), plan) > 0.9
  const at = (kind: Parameters<typeof faultAt>[0], k: number) => faultAt(kind, speakers[k]!.id)
  // Half the ohms: 50 V on the dial.
  const scale = faultAt('taps-on-other-scale', null, { way: 'up' })
  const stands = outcomeOf(plan, [scale]).solved.head
  expect(stands.state === 'finite' && plan.drawn.solved.head.state === 'finite' && stands.ohm < plan.drawn.solved.head.ohm).toBe(true)
  const beside = [[[], 0], [[at('short-at-drop', 0)], 0], [[at('short-at-drop', 0)], 2], [[at('short-in-run', 1)], 2], [[at('break-in-reach', 1)], 3], [[at('coil-open', 2)], 2]] as const
  for (const [faults, k] of beside) {
    const found = [[50, [scale, ...faults]], [70.71, [scale, ...faults]], [50, faults], [70.71, faults]] as const
    expect([faults, ...found.map(([ratedV, all]) => isFound(k, ratedV, [...all]))]).toEqual([faults, true, false, false, true])
  }
  expect([likeAnything(dial(0, 50)) < 0.01, likeAnything(dial(0, 70.71)) > 0.9]).toEqual([true, true])
})

describe('levels of one setting', () => {
  const output = outputOf(cabled(jobOf('3 x 5 W + 2 x 10 W on 70 V'), { cable: { awg: 14 }, lengthM: 4 }))
  const plan = planOf(output, deviationsOf(output, new Map(), new Set()))
  const ids = plan.speakers
  const at = (kind: Parameters<typeof faultAt>[0], k: number | null, more = {}) => outcomeOf(plan, [faultAt(kind, k === null ? null : ids[k]!, more)])
  const judged = (k: number, db: number, more = {}) => ({ reading: { id: `${k}`, at: '2026-05-04T09:00:00Z', kind: 'level', nodeId: ids[k]!,
    value: { is: 'level', db, weighting: 'A', signal: 'pink-noise', headV: null, ...more } } }) as never
  const log = (dbs: readonly number[], outcome: ReturnType<typeof outcomeOf>) => levelsLog(levelGroups(dbs.map((db, k) => judged(k, db)), plan), outcome, plan)
  // A density by itself: bells of 1.2 dB with a stray in 33 of anything over 25 dB, and a setting that is as likely anywhere (an integral over it).
  const direct = (dbs: readonly number[], offs: readonly number[]) => {
    let total = 0
    for (let setting = 40; setting < 120; setting += 0.01) {
      const bell = (off: number) => Math.exp(-((off / 1.2) ** 2) / 2) / (1.2 * Math.sqrt(2 * Math.PI))
      total += 0.01 * dbs.reduce((p, db, k) => p * (0.97 * bell(db - setting - offs[k]!) + 0.03 / 25), 1)
    }
    return Math.log(total)
  }
  // Ten watts are three decibels above five.
  const right = [80, 80.4, 79.7, 83.1, 82.8]
  test.each<[string, number[], ReturnType<typeof outcomeOf>, number[]]>([
    ['as drawn', right, plan.drawn, [0, 0, 0, 3, 3]], ['the last is silent, as it should be with a break before it', [80, 80.4, 79.7, 83.1, 67], at('break-in-reach', 4), [0, 0, 0, 3, -12]],
    ['two of two, one under half its tap', [80, 77], at('wrong-tap', 1, { tapW: 2.5 }), [0, -3]], ['two of two, and nothing is wrong', [80, 77], plan.drawn, [0, 0]],
    ['all louder: nobody knows the setting', right.map(db => db + 7), plan.drawn, [0, 0, 0, 3, 3]], ['one far out', [80, 80.4, 65, 83.1, 82.8], plan.drawn, [0, 0, 0, 3, 3]],
  ])('%s, against an integral over the setting', (_, dbs, outcome, offs) => expect(Math.abs(log(dbs, outcome) - direct(dbs, offs))).toBeLessThan(0.25))
  test('a break is told by what is silent behind it, and what plays before it is right', () => {
    const groups = levelGroups([80, 80.4, 65].map((db, k) => judged(k, db)), plan)
    expect(levelled(groups[0]!, at('break-in-reach', 2), plan).each.map(l => l > Math.log(0.1))).toEqual([true, true, true])
    expect(log([80, 80.4, 65], at('break-in-reach', 2)) - log([80, 80.4, 65], plan.drawn)).toBeGreaterThan(3)
  })
  test('at the rack all are silenced at once, or none; where nothing plays there is no level', () => {
    const none = 5 * Math.log(0.999 * 0.03 / 25 + 0.001 * anyLevelDensity(0))
    expect(log(right, at('amplifier-dead', null))).toBeCloseTo(none, 1)
    expect(log(right, at('break-in-reach', 0))).toBeCloseTo(none, 1)
    expect(log(right, at('source-one-side', null))).toBeCloseTo(Math.log(0.2) + log(right, plan.drawn), 1)
    expect([lineMute(at('source-one-side', null)), muteAt(ids[0]!, at('source-one-side', null), plan), lineMute(at('comes-and-goes', 0)), muteAt(ids[0]!, at('comes-and-goes', 0), plan), muteAt(ids[1]!, at('comes-and-goes', 0), plan)])
      .toEqual([0.8, 0, 0, 0.15, 0].map(p => expect.closeTo(p, 9)))
  })
  test('what is read otherwise, or of one alone, is held against nothing', () => {
    const groups = levelGroups([judged(0, 80), judged(1, 80), judged(2, 99, { weighting: 'C' }), judged(3, 60, { headV: 3 })], plan)
    expect(groups.map(g => g.reads.map(r => r.nodeId))).toEqual([[ids[0], ids[1]]])
  })
  test('the middle of figures, of an even number that between two, in whatever order they come, and with some of them others', () => {
    const sorted = (all: Iterable<number>) => Float64Array.from(all).sort()
    const middle = (all: Float64Array) => (all[(all.length - 1) >> 1]! + all[all.length >> 1]!) / 2
    const chance = seeded(SEED)
    for (let n = 0; n < 600; n++) {
      const all = Float64Array.from({ length: 1 + n % 13 }, () => Math.floor(9 * chance()))
      const count = Math.min(all.length, 1 + n % 5)
      const [was, is] = [all.slice(0, count), Float64Array.from({ length: count }, () => Math.floor(11 * chance()) - 1)]
      const name = `seed ${SEED}, case ${n}`
      const found = [middleWith(sorted(all), was.slice(), is.slice(), count), middleWithOne(sorted(all), was[0]!, is[0]!)]
      const [plain, ...withOthers] = [all, [...is, ...all.slice(count)], [is[0]!, ...all.slice(1)]].map(of => middle(sorted(of)))
      expect([name, middleOf(all.slice()), middleInOrder(sorted(all)), ...found]).toEqual([name, plain, plain, ...withOthers])
    }
  })
})

describe('what is heard', () => {
  test('all sounds together are certain, whatever the level and whatever acts', () => {
    const heards = [null, { silent: 1 }, { scratchy: 0.85, plays: 0.1, quiet: 0.05 }]
    for (const db of [-Infinity, -40, -6, 0, 3]) for (const heard of heards) expect(SOUNDS.reduce((sum, s) => sum + soundChance(s, db, heard),
      0)).toBeCloseTo(1, 2)
    expect(Object.values(ANY_SOUND).reduce((a, b) => a + b)).toBeCloseTo(1, 12)
  })
  test.each<[string, Sound, number]>([['at its level', 'plays', 0], ['eight decibels under: quiet', 'quiet', -8], ['nothing arrives', 'silent', -Infinity], ['thirty-five under', 'silent', -35]])('%s', (_, wanted, db) => {
    expect([...SOUNDS].sort((a, b) => soundChance(b, db, null) - soundChance(a, db, null))[0]).toBe(wanted)
  })
  test('scratchy speaks for what rubs, and is never counted as “plays”', () => {
    const rubs = { scratchy: 0.85, plays: 0.1, quiet: 0.05 }
    expect([soundChance('scratchy', 0, rubs) / soundChance('scratchy', 0, null) > 100, soundChance('plays', 0, rubs) / soundChance('plays', 0, null) < 0.12]).toEqual([true, true])
  })
  test('silence and cutting out come by degrees; three decibels beside another are plain, one is not', () => {
    expect([0, -15, -25, -35].map(db => silentChance(db).toFixed(2))).toEqual(['0.00', '0.08', '0.50', '0.92'])
    expect([100, 60, 40, 20].map(value => cutOutChance(seen(value), seen(100)).toFixed(2))).toEqual(['0.00', '0.05', '0.50', '0.95'])
    expect([NOT_CUT_FROM, 0.98 * NOT_CUT_FROM].map(part => cutOutChance(seen(100 * part), seen(100)) < 1.0001e-3)).toEqual([true, false])
    expect([cutOutChance({ state: 'short' }, seen(100)), cutOutChance({ state: 'open' }, seen(100)), cutOutChance(seen(1), { state: 'open' })]).toEqual([1, 0, 0])
    expect([besideChance('louder', 3) > 0.75, besideChance('alike', 1) > 0.75, besideChance('quieter', -3) > 0.75]).toEqual([true, true, true])
    for (const off of [-9, -2, 0, 2.5, 12]) expect(besideChance('louder', off) + besideChance('alike', off) + besideChance('quieter', off)).toBeCloseTo(1, 1)
  })
})

test('chances: sums in logarithms, the normal both ways (NIST handbook, table 26.1), entropy (Shannon)', () => {
  expect(logSum([Math.log(0.25), Math.log(0.5), -Infinity])).toBeCloseTo(Math.log(0.75), 12)
  expect(logSum([-Infinity])).toBe(-Infinity)
  expect([normalBelow(0), normalBelow(1), normalBelow(-1.96)]).toEqual([expect.closeTo(0.5, 6), expect.closeTo(0.8413447, 6), expect.closeTo(0.0249979, 6)])
  for (const share of [0.01, 0.2, 0.5, 0.9]) expect(normalBelow(normalAt(share))).toBeCloseTo(share, 3)
  expect(entropy([0.5, 0.25, 0.25, 0])).toBeCloseTo(1.5, 12)
})

test.each(['break-in-reach', 'short-in-run', 'joint-in-run'] as const)('%s before a place: read from the place on, and further, the line is as it hangs there; from before it, it is not', (kind) => {
  const output = outputOf(cabled(jobOf('5 x 20 W on 70 V 150 W'), { cable: { awg: 16 }, lengthM: 9 }))
  const ids = speakersOf(output.wiring).map(s => s.id)
  const plan = planOf(output, deviationsOf(output, new Map(), new Set()))
  const outcome = outcomeOf(plan, [faultAt(kind, ids[2]!, { amount: kind === 'joint-in-run' ? 1.5 : 0.5 })])
  const from = (k: number) => [outcome, plan.drawn].map(o => o.sight({ nodeId: ids[k]!, frequencyHz: 1000 })!.seen)
  for (const k of [2, 3, 4]) expect([k, from(k)[0]]).toEqual([k, from(k)[1]])
  expect(from(1)[0]).not.toEqual(from(1)[1])
})
