import FFT from 'fft.js'
import type { Sound } from '#core/job/schema'
import { seeded } from '#core/quantity/seeded'

/**
 * What is heard at a speaker of a rig, as samples: an invented programme through the response of what hangs there, at the level that the solver gives it.
 * A loop without a seam.
 */

export const RATE_HZ = 24_000
/** Of one loop: 2.7 s. */
export const SAMPLES = 2 ** 16
/** No sample is larger, whatever is played: ears are behind it. Full scale is 1. */
export const MOST_SAMPLE = 0.25
const RMS = 0.05

/** What is heard of one speaker; or of two in the place between them. */
export interface Heard { is: Sound | 'hollow' | 'full', /** Off its plan, dB; nothing arrives: -Infinity. */ levelDb: number }

/** Quieter than this nothing is told apart from silence. */
const LEAST_DB = -40
/** Thin is without bass: two poles. Common practice, no source. */
const THIN_HZ = 600
/** Between two that are half a metre apart off the middle, one the other way round: bass is gone, and a comb above. */
const HOLLOW_S = 0.35 / 343

/** Gain at a frequency, as a factor. Real: phases of a loop are nobody's. */
export function gainAt({ is, levelDb }: Heard, hz: number): number {
  if (is === 'silent' || levelDb === -Infinity) return 0
  const level = 10 ** (Math.max(LEAST_DB, Math.min(6, levelDb)) / 20)
  if (is === 'thin') return level / Math.hypot(1, (THIN_HZ / Math.max(hz, 1)) ** 2)
  // Two of the same: |1 ± e^(−jωτ)|/2.
  if (is === 'hollow') return level * Math.abs(Math.sin(Math.PI * hz * HOLLOW_S))
  if (is === 'full') return level * Math.abs(Math.cos(Math.PI * hz * HOLLOW_S))
  return level
}

let made: Float64Array | null = null
/** Programme, made once: pink, in phrases and steps of a scale, so that level, bass and gaps are heard in it. Invented. */
export const programme = (): Float64Array => made ??= makeProgramme()

function makeProgramme(): Float64Array {
  const chance = seeded(0x50A6)
  const out = new Float64Array(SAMPLES)
  const steps = [0, 3, 5, 7, 10, 7, 5, 3]
  const note = SAMPLES / steps.length
  steps.forEach((step, k) => {
    const hz = 110 * 2 ** (step / 12)
    for (let n = 0; n < note; n++) {
      const t = n / RATE_HZ
      const fade = Math.min(1, n / 200, (note - n) / 400) * Math.exp(-2.2 * t)
      let sample = 0
      for (let h = 1; h <= 24 && h * hz < 0.45 * RATE_HZ; h++) sample += Math.sin(2 * Math.PI * h * hz * t) / h
      // A stroke of noise at each note: highs, for what lacks them.
      out[k * note + n] = fade * sample + 0.5 * Math.exp(-60 * t) * (2 * chance() - 1)
    }
  })
  return scaled(out, RMS)
}

function scaled(samples: Float64Array, rms: number): Float64Array {
  const is = Math.sqrt(samples.reduce((sum, s) => sum + s * s, 0) / samples.length)
  return is === 0 ? samples : samples.map(s => s * rms / is)
}

/** Through its response, by the Fourier transform of the whole loop. */
export function filtered(samples: Float64Array, gain: (hz: number) => number): Float64Array {
  const fft = new FFT(samples.length)
  const bands = fft.createComplexArray() as number[]
  fft.realTransform(bands, samples as unknown as number[])
  fft.completeSpectrum(bands)
  for (let k = 0; k < samples.length; k++) {
    const g = gain(Math.min(k, samples.length - k) * RATE_HZ / samples.length)
    bands[2 * k]! *= g
    bands[2 * k + 1]! *= g
  }
  const back = fft.createComplexArray() as number[]
  fft.inverseTransform(back, bands)
  return Float64Array.from({ length: samples.length }, (_, n) => back[2 * n]!)
}

/** Mains and its second: 50 Hz and 100 Hz with what follows. */
const HUM_HZ = [50, 100, 150, 200, 300]
const HUM = 0.03
const SCRATCH = 0.12
/** It goes and comes: parts of the loop in which it is there. */
const THERE = [[0, 0.22], [0.3, 0.36], [0.55, 0.9]] as const

export function samplesOf(heard: Heard): Float32Array {
  const { is } = heard
  const out = filtered(programme(), hz => gainAt(heard, hz))
  if (is === 'hum') for (let n = 0; n < SAMPLES; n++) for (const hz of HUM_HZ) out[n]! += HUM / (hz / 50) * Math.sin(2 * Math.PI * Math.round(hz * SAMPLES / RATE_HZ) * n / SAMPLES)
  if (is === 'scratchy') {
    const chance = seeded(0x5C4A)
    // A coil that rubs speaks where it moves: noise with the programme's own size.
    for (let n = 0; n < SAMPLES; n++) if (Math.abs(out[n]!) > RMS) out[n]! += SCRATCH * (2 * chance() - 1)
  }
  if (is === 'comes-and-goes') for (let n = 0; n < SAMPLES; n++) if (!THERE.some(([from, to]) => n >= from * SAMPLES && n < to * SAMPLES)) out[n] = 0
  return Float32Array.from(out, s => Math.max(-MOST_SAMPLE, Math.min(MOST_SAMPLE, s)))
}
