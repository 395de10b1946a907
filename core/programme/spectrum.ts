import FFT from 'fft.js'

// Taken once: the loops here go over some hundred thousand samples.
const { PI, cos, sin } = Math

/** Between samples and their spectrum. Lengths are powers of two. */

/**
 * Power in each band of `rate / n` from zero up, one-sided: together they are the mean square of the samples (Parseval).
 * @returns n / 2 + 1 values
 */
export function powerSpectrum(samples: Float64Array): Float64Array {
  const n = samples.length
  const fft = new FFT(n)
  const out = fft.createComplexArray() as number[]
  fft.realTransform(out, samples as unknown as number[])
  return Float64Array.from({ length: n / 2 + 1 }, (_, k) => {
    const power = (out[2 * k]! ** 2 + out[2 * k + 1]! ** 2) / n ** 2
    // What stands once in a real signal: nothing at all, and the highest band.
    return k === 0 || k === n / 2 ? power : 2 * power
  })
}

/** A signal of such a spectrum: `amplitudes` of n / 2 bands above zero, `phases` in turns. Scaled to nothing in particular. */
export function signalFrom(amplitudes: Float64Array, phases: Float64Array): Float64Array {
  const n = 2 * amplitudes.length
  const fft = new FFT(n)
  const bands = fft.createComplexArray() as number[]
  amplitudes.forEach((a, at) => {
    const k = at + 1
    const [re, im] = [a * cos(2 * PI * phases[at]!), a * sin(2 * PI * phases[at]!)]
    bands[2 * k] = re
    bands[2 * k + 1] = k === n / 2 ? 0 : im
    if (k === n / 2) return
    bands[2 * (n - k)] = re
    bands[2 * (n - k) + 1] = -im
  })
  const out = fft.createComplexArray() as number[]
  fft.inverseTransform(out, bands)
  return Float64Array.from({ length: n }, (_, k) => out[2 * k]!)
}
