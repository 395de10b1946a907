import { describe, expect, test } from '@jest/globals'
import { seeded } from '#core/quantity/seeded'
import { clipReport } from './clip'
import { MATERIAL_IDS, MATERIALS, RATE_HZ, signalOf, SINE_BAND } from './material'
import { powerSpectrum, signalFrom } from './spectrum'

const clip = (over: Partial<Parameters<typeof clipReport>[0]>, seed = 1) => clipReport({ ratedW: 100, overdriveDb: 0, crossoverHz: 2500, material: 'sine', ...over }, seeded(seed))

describe('a sine against its Fourier series', () => {
  // Clipped at one, of amplitude a: mean square and first harmonic in closed form, any text on Fourier series.
  const series = (db: number) => {
    const a = 10 ** (db / 20)
    const t = Math.asin(1 / a)
    const square = a * a / Math.PI * (t - Math.sin(t) * Math.cos(t)) + 1 - 2 * t / Math.PI
    const first = 2 / Math.PI * (a * t + Math.cos(t))
    const slope = (n: number) => Math.sin((n - 1) * t) / (2 * (n - 1)) - Math.sin((n + 1) * t) / (2 * (n + 1))
    return { total: 2 * square, share: 1 - first ** 2 / 2 / square, harmonic: (n: number) => 4 * a / Math.PI * slope(n) + 4 / Math.PI * Math.cos(n * t) / n }
  }
  // The handbook's figures: 0, 3, 6, 10 dB.
  test.each([[0, 1, 0], [3, 1.36, 0.018], [6, 1.56, 0.051], [10, 1.73, 0.094]])('%i dB over: %f times the rated power, %f in harmonics', (overdriveDb, total, share) => {
    const { totalW, harmonicShare, highW } = clip({ overdriveDb })
    expect([totalW / 100, harmonicShare]).toEqual([expect.closeTo(total, 2), expect.closeTo(share, 3)])
    if (overdriveDb === 0) return expect(highW).toBeLessThan(1e-9)
    const exact = series(overdriveDb)
    expect([totalW / 100, harmonicShare]).toEqual([expect.closeTo(exact.total, 4), expect.closeTo(exact.share, 4)])
    // Above 2.5 kHz of a tone of 1 kHz: every harmonic but itself, from the third on.
    expect(highW / 100).toBeCloseTo(exact.total - 2 * (1 - exact.share) * exact.total / 2, 4)
    const spectrum = powerSpectrum(signalOf(MATERIALS[0]!, seeded(1)).map(s => Math.max(-1, Math.min(1, 10 ** (overdriveDb / 20) * s))))
    for (const n of [3, 5, 7]) expect(Math.sqrt(2 * spectrum[n * SINE_BAND]!)).toBeCloseTo(Math.abs(exact.harmonic(n)), 4)
  })
  test('driven without end it is a square: twice the power, 1 − 8/π² in harmonics', () => {
    const { totalW, harmonicShare } = clip({ overdriveDb: 80 })
    expect([totalW / 100, harmonicShare]).toEqual([expect.closeTo(2, 3), expect.closeTo(1 - 8 / Math.PI ** 2, 3)])
  })
})

test('Parseval: bands together are the mean square; a signal comes back as the spectrum that it was made of', () => {
  const chance = seeded(3)
  for (const n of [8, 64, 4096]) {
    const samples = Float64Array.from({ length: n }, () => 2 * chance() - 1)
    expect(powerSpectrum(samples).reduce((a, b) => a + b)).toBeCloseTo(samples.reduce((sum, s) => sum + s * s, 0) / n, 12)
    const amplitudes = Float64Array.from({ length: n / 2 }, () => chance())
    const back = powerSpectrum(signalFrom(amplitudes, Float64Array.from({ length: n / 2 }, () => chance())))
    // As often as the transform is divided by n: each band has twice the square of its amplitude.
    for (let k = 1; k < n / 2; k++) expect(back[k]! * n ** 2).toBeCloseTo(2 * amplitudes[k - 1]! ** 2, 9)
  }
})

describe('materials', () => {
  test.each(MATERIAL_IDS.map(id => [id]))('%s: a peak of one, its crest, its slope', (id) => {
    const material = MATERIALS.find(m => m.id === id)!
    const signal = signalOf(material, seeded(7))
    const square = signal.reduce((sum, s) => sum + s * s, 0) / signal.length
    expect(signal.reduce((most, s) => Math.max(most, Math.abs(s)), 0)).toBeCloseTo(1, 9)
    expect(-10 * Math.log10(square)).toBeCloseTo(material.crestDb, 1)
    if (id === 'sine') return
    const power = powerSpectrum(signal)
    const octave = (hz: number) => {
      const at = (edge: number) => Math.round(edge * signal.length / RATE_HZ)
      return power.slice(at(hz / Math.SQRT2), at(hz * Math.SQRT2)).reduce((a, b) => a + b)
    }
    // From 1 kHz to 4 kHz, two octaves: pink stays, music falls, speech falls faster. Limiting fills in a little.
    const fallDb = 10 * Math.log10(octave(1000) / octave(4000))
    expect(fallDb).toBeGreaterThan({ pink: -0.6, open: 3.5, dense: 2, speech: 9 }[id] ?? NaN)
    expect(fallDb).toBeLessThan({ pink: 0.6, open: 7, dense: 5, speech: 13 }[id] ?? NaN)
  })
  test('without overdrive nothing is strange, and the average is what the crest says; overdriven, the high unit gets more each time', () => {
    for (const material of ['pink', 'speech', 'dense'] as const) {
      const { crestDb } = MATERIALS.find(m => m.id === material)!
      const clean = clip({ material })
      expect([clean.totalW / 200, clean.harmonicShare, clean.highW]).toEqual([expect.closeTo(10 ** (-crestDb / 10), 2), expect.closeTo(0, 9), clean.cleanHighW])
      const highs = [clean, ...[3, 10].map(overdriveDb => clip({ material, overdriveDb }))]
      for (let k = 1; k < 3; k++) {
        expect(highs[k]!.highW).toBeGreaterThan(highs[k - 1]!.highW)
        expect(highs[k]!.harmonicShare).toBeGreaterThan(highs[k - 1]!.harmonicShare)
        expect(highs[k]!.cleanHighW).toBe(clean.cleanHighW)
      }
    }
    const [a, again, b] = [1, 1, 2].map(seed => clip({ material: 'open', overdriveDb: 6 }, seed))
    expect([again, a!.totalW === b!.totalW, Math.abs(a!.totalW / b!.totalW - 1) < 0.02]).toEqual([a, false, true])
    expect(clip({ crossoverHz: 96_000 }).highW).toBe(0)
  }, 60_000)
})
