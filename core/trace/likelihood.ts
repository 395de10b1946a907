import { bandAt, IMPEDANCE_BANDS } from '#core/check/readingBands'
import type { JudgedReading } from '#core/check/proof'
import type { Output, ReadingValue } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import type { LineSolution } from '#core/network/line'
import { singleLoads } from '#core/network/tree'
import type { Seen } from '#core/network/solver'
import { SHORT_OHM } from '#core/quantity/tolerance'
import type { CoilOutcome } from '#core/faults/fault'

/** How well outcomes explain readings. Densities are per unit of the logarithm of a ratio; all pure arithmetic. */

/** A reading noted wrong, or at the wrong place: what any outcome is worth at the least. */
const SLIP = 1e-4
export function withSlip(likelihood: number): number {
  return SLIP + (1 - SLIP) * likelihood
}

/** Spread of the logarithm of a reading about what is expected, to either side. */
export interface Spread { low: number, high: number }

/** Bands are two sigma wide to each side. A meter's own error stays, however many units average out behind it. Common practice, no source. */
const METER = 0.02
const { tap, motional, curve, nominal } = IMPEDANCE_BANDS
/** Of one unit: those of transformers and known curves are each its own; what a label leaves open is the same for all units of the model. */
const OWN = { tap: Math.log(tap.high) / 2, motional: Math.log(motional.high) / 2, curve: Math.log(curve.high) / 2 }
const LABEL = { low: -Math.log(nominal.low) / 2, high: Math.log(nominal.high) / 2 }

/**
 * Spread of a line's impedance: each drop counts by its part of the power, which is how far the head follows it (Tellegen), and
 * what is each drop's own averages out over many. What a label leaves open does not: it lies to one side for all, wider upwards.
 */
export function spreadOf(output: Output, solved: LineSolution): Spread {
  const watts = new Map(solved.drops.map(d => [d.id, d.powerW]))
  let own = METER ** 2
  let labelled = 0
  for (const { id, load } of speakersOf(output.wiring)) {
    const part = solved.headPowerW > 0 ? (watts.get(id) ?? 0) / solved.headPowerW : 0
    const singles = singleLoads(load)
    for (const single of singles) {
      const band = bandAt(single)
      if (band === 'nominal') labelled += part / singles.length
      else own += (part / singles.length * OWN[band]) ** 2
    }
  }
  return { low: Math.hypot(Math.sqrt(own), labelled * LABEL.low), high: Math.hypot(Math.sqrt(own), labelled * LABEL.high) }
}

/** Density of an ohm reading where `seen` is expected: two halves of a bell, each as wide as the band on its side. */
export function likeOhm(value: ReadingValue, seen: Seen, spread: Spread): number {
  if (value.is === 'open') return seen.state === 'open' ? 1 : 0
  if (value.is !== 'ohm') return 0
  if (seen.state === 'short') return value.ohm < SHORT_OHM ? 1 : 0
  if (seen.state === 'open') return 0
  // A meter shows its own leads and cannot tell small values apart: never surer than 0.1 Ω.
  const off = Math.log((value.ohm + 0.1) / (seen.ohm + 0.1))
  const sigma = off < 0 ? spread.low : spread.high
  return 2 / (Math.sqrt(2 * Math.PI) * (spread.low + spread.high)) * Math.exp(-((off / sigma) ** 2) / 2)
}

/** Of something that is not in the list an ohm reading may be anything from an eighth to eight times of what is planned. */
export function likeAnyOhm(value: ReadingValue): number {
  return value.is === 'ohm' && value.ohm >= SHORT_OHM ? 0.8 / (2 * Math.log(8)) : 0.1
}

/** What an ohmmeter through transformers may show of something that is not in the list: a way round, open, or a short. */
export function likeAnyWay(value: ReadingValue): number {
  return value.is === 'ohm' && value.ohm >= SHORT_OHM ? 0.8 : 0.1
}

/** A reading that a way round, or a short, hardly gives. */
const HARDLY = 0.02

/**
 * Through transformers an ohmmeter tells whether there is a way round (`way`: every winding some copper), and whether one goes round
 * the windings (`bare`: windings open), which reads as its own copper alone.
 */
export function likeNotOpen(value: ReadingValue, way: Seen, bare: Seen): number {
  if (value.is === 'open') return way.state === 'open' ? 1 : 0
  if (value.is !== 'ohm' || way.state === 'open') return 0
  if (bare.state === 'open') return value.ohm < SHORT_OHM ? HARDLY : 1
  const bareOhm = bare.state === 'short' ? 0 : bare.ohm
  return value.ohm >= bareOhm / 2 - SHORT_OHM && value.ohm <= 2 * bareOhm + SHORT_OHM ? 1 : HARDLY
}

/** What a coil reading comes to; null where there is nothing to compare it with. */
export function coilOutcome(value: ReadingValue, predicted: JudgedReading['predicted']): CoilOutcome | null {
  if (value.is === 'open') return 'open'
  if (value.is !== 'ohm') return null
  if (value.ohm < SHORT_OHM) return 'short'
  if (predicted?.low == null || predicted.high == null) return null
  return value.ohm > predicted.high * 1.05 ? 'high' : value.ohm < predicted.low * 0.95 ? 'low' : 'right'
}

const step = (x: number) => 1 / (1 + Math.exp(-x))

/** A speaker this many dB under its plan is as likely as not noted as silent; a few dB to either side decide. Common practice, no source. */
const SILENT_DB = -25
const SILENT_SOFT_DB = 4
/** Chance that a speaker that gets `now` in place of `then` is heard as silent. */
export function silentChance(nowW: number, thenW: number): number {
  return nowW <= 0 || thenW <= 0 ? 1 : step((SILENT_DB - 10 * Math.log10(nowW / thenW)) / SILENT_SOFT_DB)
}

/** An amplifier that sees this part of the planned load protects itself as likely as not. Common practice, no source. */
const CUTS_OUT = 0.4
const CUTS_OUT_SOFT = 0.07
/** Chance that the amplifier goes into protection, and the whole line is silent. */
export function cutOutChance(head: Seen, planned: Seen): number {
  if (head.state !== 'finite') return head.state === 'short' ? 1 : 0
  return planned.state === 'finite' ? step((CUTS_OUT - head.ohm / planned.ohm) / CUTS_OUT_SOFT) : 0
}
