import { METER_HZ } from '#core/check/readingBands'
import { SOUNDS, SWAPPED, type Sound } from '#core/job/sections/readings/schema'
import type { ReadingValue, Speaker } from '#core/job/schema'
import { OTHER_SCALE } from '#core/faults/wrongTap'
import { logSum, normalBelow, numbersBy } from '../chances'
import { AT_A_COIL } from '../coils'
import { coilLabelOhm } from '../deviations'
import { ANY_TURNED, besideChance, besideDb, turnedThrough } from '../ears'
import { lookAnything, lookChance, swapChance } from '../eyes'
import { LIKE } from '../evidence'
import { ELSE_OPEN, METER_OHM, offsets, ohmAbove, scaled, sigmasAbove } from '../ohms'
import type { Plan } from '../outcome'
import { sampledWalks } from './sampled'
import { slipped, type AnswerOf, type Hypothesis, type Predictive, type TestAt, type WalkKind } from './test'
import { passedBy, soundsWith, walked } from './walk'

/** What a test may find, by what may be there. */

/** Where a meter is read, from here to here, Ω. */
const LEAST_OHM = 0.1
const MOST_OHM = 30_000
/** Steps of what a meter tells apart. */
const STEPS = 40

/**
 * `passed`: of a walk, the speakers that it reads; `heardBefore`: what was noted of this one; `weights`: of what may be there, where what a walk tells is to
 * be judged.
 */
export function predictive(
  test: TestAt, hypotheses: readonly Hypothesis[], plan: Plan, speaker: Speaker | null, passed: readonly string[] = [], heardBefore: readonly Sound[] = [],
  weights: readonly number[] | null = null,
): Predictive | null {
  switch (test.kind) {
    case 'sound': return byWays(SOUNDS.map((is): ReadingValue => ({ is })), hypotheses, (h) => {
      const chance = soundsWith(test.nodeId!, h, plan, heardBefore)
      return value => chance(value.is as Sound)
    })
    case 'beside': return byWays((['louder', 'alike', 'quieter'] as const).map((is): ReadingValue => ({ is, besideId: test.besideId! })), hypotheses, ({ outcome }) => {
      const db = outcome === null ? null : besideDb(test.nodeId!, test.besideId!, outcome, plan)
      return value => db === null ? 1 / 3 : besideChance(value.is as 'alike', db)
    })
    case 'polarity': case 'polarity-heard': {
      const how = test.kind === 'polarity' ? 'battery-run' : 'pulse'
      return byChoice((['right-way', 'reversed', 'cannot-tell'] as const).map(is => ({ is, how, against: null } as const)), hypotheses,
        (value, h) => h.outcome === null ? ANY_TURNED[value.is] : turnedThrough(value, test.nodeId!, h.outcome, plan))
    }
    case 'leg-earth': return { answers: [{ lowOhm: LEG_OHM, highOhm: null }, { lowOhm: null, highOhm: LEG_OHM }], chances: hypotheses.map(({ outcome }) => {
      const low = outcome === null ? 0.1 : outcome.definitions.some(d => d.isToEarth) ? 0.95 : 0.01
      return slipped(Float64Array.of(1 - low, low))
    }) }
    case 'walk': case 'level-walk': case 'pulse-walk': return ofWalk(test.kind, passed, hypotheses, plan, weights)
    case 'looked': return byChoice(seenAt(test.nodeId, hypotheses), hypotheses, (value, h) => {
      const found = value.is === 'seen' ? value.fault : null
      return h.outcome === null ? lookAnything(found) : lookChance(found, test.nodeId, h.outcome)
    })
    case 'swapped': return byChoice(SWAPPED.map((is): ReadingValue => ({ is, withId: test.besideId })), hypotheses,
      (value, h) => h.outcome === null || !('withId' in value) ? 0.5 : swapChance(value.is, test.nodeId!, h.outcome))
    case 'tap-found': return speaker?.load.kind === 'tap' ? dials(test, hypotheses, plan, speaker.load) : null
    case 'line-impedance': return ofOhms(hypotheses, h => sightSpread(h, plan, null, METER_HZ))
    case 'outward-impedance': return ofOhms(hypotheses, h => sightSpread(h, plan, test.nodeId, METER_HZ))
    case 'coil-dcr': return speaker ? coils(hypotheses, plan, speaker) : null
    default: return null
  }
}
/** A leg that lies on earth reads less, Ω. Common practice, no source. */
const LEG_OHM = 1e6

/** As a person tells it, and as it is. */
function ofWalk(kind: WalkKind, ids: readonly string[], hypotheses: readonly Hypothesis[], plan: Plan, weights: readonly number[] | null): Predictive | null {
  const passed = hypotheses.map(h => passedBy(kind, ids, h, plan))
  const found = walked(kind, ids, passed)
  return found && weights ? { ...found, finer: sampledWalks(kind, ids, hypotheses, weights, passed, plan) } : found
}

/** What is seen at a place by any of what may be there, and that nothing is. */
function seenAt(nodeId: string | null, hypotheses: readonly Hypothesis[]): ReadingValue[] {
  const seen = ({ outcome }: Hypothesis) => outcome?.definitions.filter((d, k) => d.looks !== undefined && outcome.faults[k]!.nodeId === nodeId) ?? []
  const kinds = new Set(hypotheses.flatMap(seen).map(d => d.kind))
  return [{ is: 'as-it-should' }, ...[...kinds].map((fault): ReadingValue => ({ is: 'seen', fault }))]
}

function byChoice<V extends ReadingValue>(values: V[], hypotheses: readonly Hypothesis[], chance: (value: V, h: Hypothesis) => number): Predictive {
  return byWays(values, hypotheses, h => value => chance(value, h))
}
/** The same, where what is there is worked out once for all that may be found. */
function byWays<V extends ReadingValue>(values: V[], hypotheses: readonly Hypothesis[], chanceOf: (h: Hypothesis) => (value: V) => number): Predictive {
  return {
    answers: values.map(value => ({ value })),
    chances: hypotheses.map((h) => {
      const chance = chanceOf(h)
      return slipped(numbersBy(values.length, k => chance(values[k]!)))
    }),
  }
}

/** A dial as it may stand: its taps, and what is planned on the other scale. */
function dials(test: TestAt, hypotheses: readonly Hypothesis[], plan: Plan, load: Extract<Speaker['load'], { kind: 'tap' }>): Predictive {
  const taps = load.tapsW.includes(load.tapW) ? load.tapsW : [load.tapW, ...load.tapsW]
  const scales = load.ratedV > 65 && load.ratedV < 105 ? [OTHER_SCALE, 1 / OTHER_SCALE] : []
  const values: ReadingValue[] = [
    ...taps.map((tapW): ReadingValue => ({ is: 'tap', tapW, ratedV: load.ratedV })),
    // The same number by the scale of another voltage.
    ...scales.map((times): ReadingValue => ({ is: 'tap', tapW: load.tapW, ratedV: load.ratedV / Math.sqrt(times) })),
  ]
  const judged = (value: ReadingValue) => ({ reading: { value, nodeId: test.nodeId }, predicted: { tap: { tapW: load.tapW, ratedV: load.ratedV } } }) as never
  const isPlanned = (value: ReadingValue) => value.is === 'tap' && value.tapW === load.tapW && value.ratedV === load.ratedV
  return byChoice(values, hypotheses, (value, h) => h.outcome === null ? isPlanned(value) ? 0.99 : 0.01 / values.length : LIKE['tap-found']!(judged(value), h.outcome, plan))
}

/** What a meter may show, by what is there: about so many ohms, or open (null). No spread: anything. */
type Spread = { ohm: number | null, variance: number } | null

function sightSpread({ outcome, sampleWeight }: Hypothesis, plan: Plan, nodeId: string | null, frequencyHz: number): Spread {
  if (outcome === null) return null
  const sight = outcome.sight({ nodeId, frequencyHz })
  if (sight === null) return null
  if (sight.seen.state !== 'finite') return { ohm: sight.seen.state === 'open' ? null : 0, variance: 0 }
  const { mean, variance } = momentsOf(offsets(plan.deviations, sight, frequencyHz), sampleWeight)
  return { ohm: sight.seen.ohm * Math.exp(mean), variance: sight.variance + variance }
}

function momentsOf(off: Float64Array, weights: Float64Array): { mean: number, variance: number } {
  let mean = 0
  let square = 0
  for (let s = 0; s < off.length; s++) {
    mean += weights[s]! * off[s]!
    square += weights[s]! * off[s]! ** 2
  }
  return { mean, variance: Math.max(0, square - mean * mean) }
}

function ofOhms(hypotheses: readonly Hypothesis[], spreadOf: (h: Hypothesis) => Spread): Predictive {
  const spreads = hypotheses.map(spreadOf)
  const known = spreads.flatMap(s => s && s.ohm !== null ? [{ ohm: s.ohm, variance: s.variance }] : [])
  if (known.length === 0) return { answers: [{ isOpen: true }], chances: hypotheses.map(() => Float64Array.of(1)) }
  const ends = (sigmas: number) => known.map(s => scaled(Math.max(0, Math.min(MOST_OHM, ohmAbove(s.ohm, sigmas, s.variance)))))
  const [from, to] = [Math.min(...ends(-3)), Math.max(...ends(3))]
  const edges = Array.from({ length: STEPS - 1 }, (_, k) => from + (to - from) * (k + 1) / STEPS)
  const ohmAt = (edge: number) => Math.max(LEAST_OHM, Math.exp(edge) - METER_OHM)
  const answers: AnswerOf[] = [
    ...Array.from({ length: STEPS }, (_, k): AnswerOf => ({ lowOhm: k === 0 ? null : ohmAt(edges[k - 1]!), highOhm: k === STEPS - 1
      ? null
      : ohmAt(edges[k]!) })),
    { isOpen: true },
  ]
  return {
    answers,
    chances: spreads.map((spread) => {
      if (spread === null) return slipped(numbersBy(answers.length, k => k === STEPS ? ELSE_OPEN : (1 - ELSE_OPEN) / STEPS))
      let below = 0
      return slipped(numbersBy(answers.length, (k) => {
        if (k === STEPS) return Number(spread.ohm === null)
        if (spread.ohm === null) return 0
        const upTo = k === STEPS - 1 ? 1 : normalBelow(sigmasAbove(Math.exp(edges[k]!) - METER_OHM, spread.ohm, spread.variance))
        const share = upTo - below
        below = upTo
        return share
      }))
    }),
  }
}

/** What a coil is found to be: open, far above, right, under, nothing. */
function coils(hypotheses: readonly Hypothesis[], plan: Plan, speaker: Speaker): Predictive | null {
  const label = coilLabelOhm(speaker)
  const nominal = label === null ? null : { low: label * 0.6, high: label * 1.1 }
  const answers: AnswerOf[] = nominal === null
    ? [{ isOpen: true }, { lowOhm: 30, highOhm: null }, { lowOhm: 2, highOhm: 30 }, { lowOhm: 0.5, highOhm: 2 }, { lowOhm: null, highOhm: 0.5 }]
    : [{ isOpen: true }, { lowOhm: nominal.high, highOhm: null }, { lowOhm: nominal.low, highOhm: nominal.high }, { lowOhm: 0.5, highOhm: nominal.low },
        { lowOhm: null, highOhm: 0.5 }]
  const order = ['open', 'high', 'right', 'low', 'short'] as const
  const odd = AT_A_COIL / Math.max(1, plan.speakers.length)
  return {
    answers,
    chances: hypotheses.map(({ outcome }) => {
      const at = outcome?.definitions.filter((_, k) => outcome.faults[k]!.nodeId === speaker.id) ?? []
      const worst = at.find(d => d.coil.right !== 1) ?? at[0]
      return slipped(numbersBy(order.length, (k) => {
        const is = order[k]!
        return outcome === null ? is === 'right' ? 1 - odd : odd / 4 : worst ? worst.coil[is] ?? 0 : is === 'right' ? 1 : 0
      }))
    }),
  }
}

/** The samples of the units as they are under what may be there: what was read in ohms weighs them. */
export function weighedSamples(logs: Float64Array): Float64Array {
  const total = logSum(logs)
  return logs.map(log => Math.exp(log - total))
}
