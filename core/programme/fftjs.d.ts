declare module 'fft.js' {
  /** A Fourier transform of a length that is a power of two; complex values stand as pairs. */
  export default class FFT {
    constructor(size: number)
    createComplexArray(): number[]
    realTransform(output: number[], input: number[]): void
    /** What realTransform leaves out: the other half. */
    completeSpectrum(output: number[]): void
    inverseTransform(output: number[], input: number[]): void
  }
}
