import { SHORT_OHM } from '#core/quantity/tolerance'
import type { Loudness, ReadingValue, Sound } from '#core/job/schema'
import { factsOf, type ReadingKind } from '#core/job/sections/readings/kinds'
import { howFacts, type Turned } from '#core/job/sections/readings/hows'
import { LEVEL_OFF_DB, type LevelPlan } from './levels'
import { LEAST_UNRATED } from './overload'
import type { Predicted } from './predict'

export type Grade = 'good' | 'tight' | 'stop' | 'unknown'

/** What a reading says of its place. Data; the sentence is made in words.ts. */
export type VerdictCode
  = | 'as-planned' | 'just-high' | 'just-low' | 'high' | 'low' | 'far-high' | 'far-low' | 'open' | 'short'
    | Sound | Turned | 'unit-right' | Loudness | 'other-tap' | 'other-scale' | 'plays-though-off' | 'not-open' | 'nothing-to-compare' | 'next-to-nothing' | 'under-direct' | 'over-direct'
    | 'seen-wrong' | 'goes-with-it' | 'stays'

export interface Verdict { code: VerdictCode, grade: Grade }

/** A reading that is not as planned: what a trace begins with. Not known is not wrong. */
export function isWrong({ grade }: Verdict): boolean {
  return grade === 'stop' || grade === 'tight'
}

/** Outside the band by no more than this share of its edge: measure again before anything is opened. Common practice, no source. */
const JUST_OUTSIDE = 0.05
/** Twice the upper edge and more: not spread, a fault. Common practice, no source. */
const FAR_HIGH = 2
/** A coil under 0.6 of nominal has shorted turns or a twin across it. Common practice, no source: 0.6 of nominal is 6/7 of the 0.70 edge. */
const FAR_LOW = 0.6 / 0.7

const is = (code: VerdictCode, grade: Grade): Verdict => ({ code, grade })

/** Judges a reading against what was foretold. */
export function judge(value: ReadingValue, predicted: Predicted | null): Verdict {
  switch (value.is) {
    case 'plays': return predicted?.isOpen ? is('plays-though-off', 'stop') : is('plays', 'good')
    // Where it is drawn off silent is right.
    case 'silent': return predicted?.isOpen ? is('as-planned', 'good') : is('silent', 'stop')
    // It is reached and it sounds, but not as it should.
    case 'scratchy': case 'thin': case 'quiet': case 'hum': case 'comes-and-goes': return is(value.is, 'tight')
    // What is foretold open and reads open is right.
    case 'open': return predicted?.isOpen ? is('as-planned', 'good') : is('open', 'stop')
    case 'tap': return judgeTap(value, predicted)
    case 'volts-amps': return judgeOhm(value.volts / value.amps, predicted)
    case 'level': return judgeLevel(value.db, predicted?.level ?? null)
    case 'alike': return is('alike', 'good')
    case 'louder': case 'quieter': return is(value.is, 'tight')
    // Of the unit alone it says nothing of the run to it.
    case 'right-way': return howFacts(value.how).proves === 'unit' ? is('unit-right', 'unknown') : is('right-way', 'good')
    case 'reversed': return is('reversed', 'stop')
    case 'as-it-should': return is('as-planned', 'good')
    case 'seen': return is('seen-wrong', 'stop')
    // Where a fault is, not that there is one.
    case 'goes-with-it': case 'stays': return is(value.is, 'unknown')
    case 'cannot-tell': return is('cannot-tell', 'unknown')
    case 'ohm': return judgeOhm(value.ohm, predicted)
  }
}

/** A dial or a lead as it was found, against the tap that is drawn (`predicted.tap`). */
function judgeTap({ tapW, ratedV }: { tapW: number, ratedV: number }, predicted: Predicted | null): Verdict {
  const tap = predicted?.tap ?? null
  if (tap === null) return is('nothing-to-compare', 'unknown')
  if (Math.abs(tapW - tap.tapW) > 1e-6 * Math.max(1, tap.tapW)) return is('other-tap', 'stop')
  // The same watts on another scale are other watts on this line; off is off on any.
  return tapW !== 0 && Math.abs(ratedV / tap.ratedV - 1) > SCALE_OFF ? is('other-scale', 'stop') : is('as-planned', 'good')
}
/** Less than its direct sound alone must bring is wrong whatever its neighbours read: they may be as wrong. More is no proof, since rooms add. */
function judgeLevel(db: number, plan: LevelPlan | null): Verdict {
  if (plan !== null && plan.atLeastDb !== null && db < plan.atLeastDb) return is('under-direct', 'tight')
  if (plan === null || plan.besideDb === null) return is(plan !== null && plan.atLeastDb !== null ? 'over-direct' : 'nothing-to-compare', 'unknown')
  const offDb = db - plan.besideDb
  return Math.abs(offDb) <= LEVEL_OFF_DB ? is('alike', 'good') : is(offDb > 0 ? 'louder' : 'quieter', 'tight')
}
/** 70 and 70.71 V are one scale. */
const SCALE_OFF = 0.02

/** Copper at the head of a line without a band: that there is a way round is all that an ohmmeter says of it. */
function saysNotOpen(kind: ReadingKind): boolean {
  const { at, isCopper } = factsOf(kind)
  return at === 'head' && isCopper
}

/**
 * Of a line it is far too low where its output would be overloaded, as far as anybody knows (by the lower edge: half of it is no single tap or speaker); of
 * copper where it is no coil of that label any more.
 */
function farLowOhm({ kind, overloadOhm }: Predicted, low: number): number {
  return factsOf(kind).isCopper ? FAR_LOW * low : overloadOhm ?? LEAST_UNRATED * low
}

function judgeOhm(ohm: number, predicted: Predicted | null): Verdict {
  const low = predicted?.low ?? null
  const high = predicted?.high ?? null
  const isNothing = ohm < Math.min(SHORT_OHM, (low ?? Infinity) / 2)
  // Through windings, whose copper is not known, next to nothing may be right: a second look, not a short.
  if (isNothing && low === null && predicted !== null && saysNotOpen(predicted.kind)) return is('next-to-nothing', 'unknown')
  if (isNothing) return is('short', 'stop')
  if (low === null || high === null) return is(predicted !== null && saysNotOpen(predicted.kind) ? 'not-open' : 'nothing-to-compare', 'unknown')
  if (ohm >= low && ohm <= high) return is('as-planned', 'good')
  if (ohm > high) {
    if (ohm <= high * (1 + JUST_OUTSIDE)) return is('just-high', 'tight')
    return is(ohm > FAR_HIGH * high ? 'far-high' : 'high', 'stop')
  }
  if (ohm >= low * (1 - JUST_OUTSIDE)) return is('just-low', 'tight')
  return is(ohm < farLowOhm(predicted!, low) ? 'far-low' : 'low', 'stop')
}
