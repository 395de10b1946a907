import type { ReadingValue } from '#core/job/schema'
import type { Seen } from '#core/network/solver'
import { SHORT_OHM } from '#core/quantity/tolerance'
import { bell } from './chances'
import type { Deviations } from './deviations'
import type { OhmPlace, Sight } from './outcome'

/** How well what is seen explains what a meter showed. Densities are per unit of `scaled`: the logarithm of the ohms and a tenth. */

/** A meter is right within 2 %, and within a tenth of an ohm: one sigma each. Common practice, no source. */
const METER = 0.02
export const METER_OHM = 0.1
export const scaled = (ohm: number): number => Math.log(ohm + METER_OHM)

/**
 * How many sigma what is shown lies above what is there. Few ohms are out by the meter's tenth, many by a part of themselves (`variance`: of their
 * logarithm, the meter's own not counted): in the inverse hyperbolic sine both are one width. What lost: the logarithm of the ohms and a tenth. By it 0 Ω lay
 * three sigma below 0.2 Ω, and 2 Ω no more above nothing: shorts that were said with 0.29 were so at 0.41.
 */
export const sigmasAbove = (shownOhm: number, ohm: number, variance: number): number => aboveOf(shownOhm, variance)(ohm)
/** The same of one reading for many that may be there: what hangs on the reading alone is worked out once, a third of the time. */
function aboveOf(shownOhm: number, variance: number): (ohm: number) => number {
  const sigma = Math.sqrt(variance + METER ** 2)
  const by = sigma / METER_OHM
  const shown = shownOhm * by + Math.sqrt((shownOhm * by) ** 2 + 1)
  return (ohm) => {
    const there = ohm * by
    return Math.log(shown / (there + Math.sqrt(there * there + 1))) / sigma
  }
}
/** What lies so many sigma above. */
export function ohmAbove(ohm: number, sigmas: number, variance: number): number {
  const sigma = Math.sqrt(variance + METER ** 2)
  return Math.sinh(Math.asinh(ohm * sigma / METER_OHM) + sigmas * sigma) * METER_OHM / sigma
}
/** Density of what a meter shows, by what is there. */
export const likeShown = (shownOhm: number, ohm: number, variance: number): number => densityOf(shownOhm, variance)(ohm)
function densityOf(shownOhm: number, variance: number): (ohm: number) => number {
  const above = aboveOf(shownOhm, variance)
  const top = mostShown(shownOhm, variance)
  return ohm => bell(above(ohm), 1) * top
}
/** `scaled` by sigmas: so much steeper where ohms are many. */
const mostShown = (shownOhm: number, variance: number): number =>
  (shownOhm + METER_OHM) / Math.sqrt((variance + METER ** 2) * shownOhm * shownOhm + METER_OHM ** 2)

/**
 * A reading noted wrong, at the wrong place, with a lead that hung on something: of all readings one in a thousand: it is judged
 * while it is written down. Common practice, no source.
 */
export const SLIP = 0.001
export const orSlip = (likelihood: number, ofAnything: number): number => (1 - SLIP) * likelihood + SLIP * ofAnything

/** Beyond this an impedance meter shows no figure any more, Ω, more or less. Common practice, no source. */
const OVER_RANGE_OHM = 30_000
/** A smooth step by the logarithm, half of that soft. */
const overRange = (ohm: number): number => 1 / (1 + (OVER_RANGE_OHM / ohm) ** 2)

/** Capacitance of a pair, F a metre. From memory; cables differ by as much. */
const PAIR_F_PER_M = [50e-12, 150e-12] as const
/** Of a cable of which no length is stated, m. */
const ANY_LENGTH_M = [5, 300] as const

/** What a broken line reads: not open, but the capacitance of the cable that is left. */
export function brokenLine({ frequencyHz }: OhmPlace, lengthM: number | null): { leastOhm: number, mostOhm: number } | null {
  if (frequencyHz === 0) return null
  const [shortM, longM] = lengthM === null || lengthM <= 0 ? ANY_LENGTH_M : [lengthM * 0.8, lengthM * 1.25]
  return { leastOhm: 1 / (2 * Math.PI * frequencyHz * PAIR_F_PER_M[1] * longM), mostOhm: 1 / (2 * Math.PI * frequencyHz * PAIR_F_PER_M[0] * shortM) }
}

export interface OhmReading {
  place: OhmPlace
  value: ReadingValue
  /** Cable that lies there, m; null: not stated. */
  lengthM: number | null
  plannedOhm: number | null
}

/** Likelihood of a reading with each sample of what the units may be: `off` is the logarithm of what the head is then, against what was computed. */
export function likeOhm({ value, place, lengthM }: Pick<OhmReading, 'value' | 'place' | 'lengthM'>, seen: Seen, variance: number): (off: number) => number {
  if (seen.state === 'open') {
    const like = likeBroken({ value, place, lengthM })
    return () => like
  }
  const seenOhm = seen.state === 'short' ? 0 : seen.ohm
  if (value.is === 'open') return off => overRange(seenOhm * Math.exp(off))
  if (value.is !== 'ohm') return () => 0
  const density = densityOf(value.ohm, variance)
  return (off) => {
    const ohm = seenOhm * Math.exp(off)
    return (1 - overRange(ohm)) * density(ohm)
  }
}
function likeBroken({ value, place, lengthM }: Pick<OhmReading, 'value' | 'place' | 'lengthM'>): number {
  if (value.is === 'open') return OPEN_READS_OPEN
  const broken = brokenLine(place, lengthM)
  if (value.is !== 'ohm' || broken === null) return 0
  const [least, most] = [scaled(broken.leastOhm), scaled(broken.mostOhm)]
  const here = scaled(value.ohm)
  return here >= least && here <= most ? (1 - OPEN_READS_OPEN) / (most - least) : 0
}
/** No head explains a reading better than this, of that variance or more. */
export function mostOfOhm({ value, place, lengthM }: Pick<OhmReading, 'value' | 'place' | 'lengthM'>, variance: number): number {
  if (value.is === 'open') return 1
  if (value.is !== 'ohm') return 0
  return Math.max(bell(0, 1) * mostShown(value.ohm, variance), likeBroken({ value, place, lengthM }))
}
/** A broken line is written down as open as often as this; else by what the meter shows of its cable. Common practice, no source. */
const OPEN_READS_OPEN = 0.6

/** Of a slip: anything from an eighth to eight times of what is planned, a short, open. */
export function likeAnyOhm({ value, plannedOhm }: Pick<OhmReading, 'value' | 'plannedOhm'>): number {
  if (value.is !== 'ohm') return 0.08
  if (value.ohm < SHORT_OHM) return 0.04 / (scaled(SHORT_OHM) - scaled(0))
  const away = plannedOhm === null ? 0 : Math.abs(Math.log(value.ohm / plannedOhm))
  return away < Math.log(8) ? 0.75 / (2 * Math.log(8)) : 0.1 / (2 * Math.log(1000))
}

/**
 * Of something that is not in the list: what nobody thought of makes twice or half of the ohms likelier than eight times; what opens or shorts a line is in
 * the list, nearly all of it. Common practice, no source; checked against rigs with what no list has. What lost: as a slip. Of 113
 * simulated lines that were said to have something else with a quarter 23 had, and 63 were broken.
 */
export function likeElseOhm({ value, plannedOhm }: Pick<OhmReading, 'value' | 'plannedOhm'>): number {
  if (value.is !== 'ohm') return ELSE_OPEN
  if (value.ohm < SHORT_OHM) return ELSE_SHORT / (scaled(SHORT_OHM) - scaled(0))
  const away = plannedOhm === null ? 0 : Math.abs(Math.log(value.ohm / plannedOhm))
  return 0.85 / (2 * ELSE_AWAY) * Math.exp(-away / ELSE_AWAY) + 0.1 / (2 * Math.log(1000))
}
const ELSE_AWAY = 0.7
export const ELSE_OPEN = 0.03
const ELSE_SHORT = 0.005

/** The logarithm of what each sample makes of the head, against what was computed. */
export function offsets({ impedance, copper, samples, models }: Deviations, { follows }: Pick<Sight, 'follows'>, frequencyHz: number): Float64Array {
  const of = frequencyHz === 0 ? copper : impedance(frequencyHz)
  const off = new Float64Array(samples)
  for (let m = 0; m < models; m++) {
    const part = follows[m]!
    if (part !== 0) for (let s = 0; s < samples; s++) off[s]! += part * of[m]![s]!
  }
  return off
}
