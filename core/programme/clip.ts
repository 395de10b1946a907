import { byId } from '#core/quantity/known'
import { z } from 'zod'
import type { Chance } from '#core/quantity/seeded'
import { MATERIALS, RATE_HZ, signalOf, type MaterialId } from './material'
import { powerSpectrum } from './spectrum'

// Taken once: the loops here go over some hundred thousand samples.
const { floor, max, min } = Math

/**
 * An amplifier driven into clipping: what it then gives, what of it lies above a crossover, what of it was not in the signal. Found by clipping a synthetic
 * signal; the crossover is taken as a sharp one. At 0 dB the peaks just reach the volts that the rated power of a sine has.
 */
export const clipReportSchema = z.strictObject({
  totalW: z.number().describe('what the amplifier gives on average, W'),
  highW: z.number().describe('of it, above the crossover, W'),
  cleanHighW: z.number().describe('above the crossover without clipping: the peaks just reach it, W'),
  harmonicShare: z.number().describe('part of the total that was not in the signal, 0 to 1'),
})
export type ClipReport = z.infer<typeof clipReportSchema>
export interface ClipAsked { ratedW: number, overdriveDb: number, crossoverHz: number, material: MaterialId }

export function clipReport({ ratedW, overdriveDb, crossoverHz, material }: ClipAsked, chance: Chance): ClipReport {
  const signal = signalOf(byId(MATERIALS, material), chance)
  const gain = 10 ** (overdriveDb / 20)
  const clipped = signal.map(s => max(-1, min(1, gain * s)))
  // A sine of one volt peak has a mean square of a half: that is the rated power.
  const perSquareW = 2 * ratedW
  return {
    totalW: perSquareW * meanSquare(clipped), highW: perSquareW * above(clipped, crossoverHz), cleanHighW: perSquareW * above(signal, crossoverHz),
    harmonicShare: strangeShare(signal, clipped),
  }
}

function meanSquare(samples: Float64Array): number {
  let sum = 0
  for (const s of samples) sum += s * s
  return sum / samples.length
}

/** Power above a frequency, as a mean square. */
function above(samples: Float64Array, hz: number): number {
  const bands = powerSpectrum(samples)
  let sum = 0
  for (let k = floor(hz * samples.length / RATE_HZ) + 1; k < bands.length; k++) sum += bands[k]!
  return sum
}

/** What is left of `out` once as much of `signal` is taken out of it as is in it: of a tone, its harmonics. */
function strangeShare(signal: Float64Array, out: Float64Array): number {
  let [both, of, all] = [0, 0, 0]
  for (let k = 0; k < signal.length; k++) {
    both += signal[k]! * out[k]!
    of += signal[k]! ** 2
    all += out[k]! ** 2
  }
  return all === 0 ? 0 : max(0, 1 - both ** 2 / (of * all))
}
