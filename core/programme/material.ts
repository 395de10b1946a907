import type { Chance } from '#core/quantity/seeded'
import { signalFrom } from './spectrum'

// Taken once: the loops here go over some hundred thousand samples.
const { PI, abs, cos, log10, log2, max, min, round, sin, sqrt } = Math

/** What is played, as a synthetic signal: its spectrum and how far its peaks stand above its average. */

export const MATERIAL_IDS = ['sine', 'pink', 'speech', 'open', 'dense'] as const
export type MaterialId = typeof MATERIAL_IDS[number]
export interface Material {
  id: MaterialId
  name: string
  says: string
  /** Peak over the root of the mean square, dB. */
  crestDb: number
  /** Power in an equal band of hertz, in parts of anything. */
  densityAt: (hz: number) => number
  /** Swells and ebbs as syllables do, four times a second; without it a noise has no peaks so far above its average. */
  isSyllabic?: true
}

/** Falls by so many decibels an octave above a corner, on top of equal power in each octave. */
const pinkAbove = (cornerHz: number, dbPerOctave: number) => (hz: number) => 1 / hz * (hz > cornerHz ? 10 ** (-dbPerOctave * log2(hz / cornerHz) / 10) : 1)
const within = (fromHz: number, toHz: number, density: (hz: number) => number) => (hz: number) => hz < fromHz || hz > toHz ? 0 : density(hz)

/**
 * Crest of pink noise: 6 dB, as AES2 and IEC 60268-5 have their noise. Average music is 1/8 to 1/3 of its peak power, crest 9 to 5 dB (handbook of the trade).
 * Spectra beside pink: common practice, no source; speech falls off above 500 Hz and has nothing under 100 Hz.
 */
export const MATERIALS: readonly Material[] = [
  { id: 'sine', name: 'a tone', says: 'a sine of 1 kHz', crestDb: 10 * log10(2), densityAt: () => 0 },
  { id: 'pink', name: 'pink noise', says: 'equal power in every octave, the noise that ratings are made with', crestDb: 6, densityAt: within(20, 20_000, pinkAbove(20_000, 0)) },
  { id: 'speech', name: 'speech', says: 'high peaks over a low average, little above 4 kHz', crestDb: 12, densityAt: within(100, 10_000, pinkAbove(500, 6)), isSyllabic: true },
  { id: 'open', name: 'open music', says: 'its average is about an eighth of its peak', crestDb: 9, densityAt: within(30, 18_000, pinkAbove(1000, 3)) },
  { id: 'dense', name: 'dense music', says: 'compressed: its average is about a third of its peak', crestDb: 5, densityAt: within(30, 18_000, pinkAbove(1000, 2)) },
]

/** Well above what is heard, so that what clipping makes does not fold back into it. */
export const RATE_HZ = 192_000
export const SAMPLES = 2 ** 16
export const SINE_HZ = 1000
/** The nearest band that has whole periods, so that a tone is one band. */
export const SINE_BAND = round(SINE_HZ * SAMPLES / RATE_HZ)

/** Whole syllables in the stretch, so that it has no seam. */
const SYLLABLES = round(4 * SAMPLES / RATE_HZ)

/** A stretch of a material with a peak of one. Noise is limited to its crest, as the noise of ratings is made. */
export function signalOf({ id, crestDb, densityAt, isSyllabic }: Material, chance: Chance): Float64Array {
  if (id === 'sine') return Float64Array.from({ length: SAMPLES }, (_, k) => sin(2 * PI * SINE_BAND * k / SAMPLES))
  const amplitudes = Float64Array.from({ length: SAMPLES / 2 }, (_, k) => sqrt(densityAt((k + 1) * RATE_HZ / SAMPLES)))
  const phases = Float64Array.from({ length: SAMPLES / 2 }, () => chance())
  const samples = signalFrom(amplitudes, phases)
  if (isSyllabic) for (let k = 0; k < SAMPLES; k++) samples[k]! *= (1 + cos(2 * PI * SYLLABLES * k / SAMPLES)) ** 2
  return limited(samples, crestDb)
}

/** Cut at the height at which peak over average is the crest; what has less keeps it. */
function limited(samples: Float64Array, crestDb: number): Float64Array {
  const wanted = 10 ** (crestDb / 20)
  let peak = 0
  for (const s of samples) peak = max(peak, abs(s))
  const crestAt = (limit: number) => {
    let sum = 0
    for (let k = 0; k < samples.length; k++) {
      const s = min(abs(samples[k]!), limit)
      sum += s * s
    }
    return limit / sqrt(sum / samples.length)
  }
  let low = 0
  if (crestAt(peak) > wanted) {
    for (let k = 0; k < 18; k++) {
      const middle = (low + peak) / 2
      if (crestAt(middle) > wanted) peak = middle
      else low = middle
    }
  }
  return samples.map(s => max(-peak, min(peak, s)) / peak)
}
