import type { JudgedReading } from '#core/check/proof'
import type { LineSpread } from '#core/check/spread'
import type { ReadingValue } from '#core/job/schema'
import type { Seen } from '#core/network/solver'
import { SHORT_OHM } from '#core/quantity/tolerance'
import type { CoilOutcome } from '#core/faults/fault'

/** How well outcomes explain readings. Densities are per unit of the logarithm of a ratio; all pure arithmetic. */

/** A reading noted wrong, or at the wrong place: what any outcome is worth at the least. */
const SLIP = 1e-4
export function withSlip(likelihood: number): number {
  return SLIP + (1 - SLIP) * likelihood
}

/** Spread of the logarithm of a reading about `factor` times what is computed, to either side: one sigma. */
export interface Spread { factor: number, low: number, high: number }

/** The line's own (check/spread.ts), as the verdict has it: bands are two sigma wide to each side. */
export const spreadOf = ({ factor, low, high }: LineSpread): Spread => ({ factor, low: low / 2, high: high / 2 })

/** Density of an ohm reading where `seen` is expected: two halves of a bell, each as wide as the band on its side. */
export function likeOhm(value: ReadingValue, seen: Seen, spread: Spread): number {
  if (value.is === 'open') return seen.state === 'open' ? 1 : 0
  if (value.is !== 'ohm') return 0
  if (seen.state === 'short') return value.ohm < SHORT_OHM ? 1 : 0
  if (seen.state === 'open') return 0
  // A meter shows its own leads and cannot tell small values apart: never surer than 0.1 Ω.
  const off = Math.log((value.ohm + 0.1) / (seen.ohm * spread.factor + 0.1))
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
