/** Small arithmetic of chances. */

/** Logarithm of a sum of what is given in logarithms. */
export function logSum(logs: ArrayLike<number>): number {
  let most = -Infinity
  for (let k = 0; k < logs.length; k++) if (logs[k]! > most) most = logs[k]!
  if (most === -Infinity) return most
  let sum = 0
  for (let k = 0; k < logs.length; k++) sum += Math.exp(logs[k]! - most)
  return most + Math.log(sum)
}

/** So many numbers, each by its place. `Float64Array.from` goes by iterators: of what to read next on forty speakers that was a fifth of the time. */
export function numbersBy(count: number, at: (k: number) => number): Float64Array {
  const numbers = new Float64Array(count)
  for (let k = 0; k < count; k++) numbers[k] = at(k)
  return numbers
}

/** A smooth step from 0 to 1. */
export const step = (x: number): number => 1 / (1 + Math.exp(-x))

const ROOT_TWO_PI = Math.sqrt(2 * Math.PI)
/** Normal density. */
export const bell = (off: number, sigma: number): number => Math.exp(-((off / sigma) ** 2) / 2) / (ROOT_TWO_PI * sigma)

/** Where a normal of sigma 1 has this share below it. Source: Abramowitz and Stegun 26.2.23, to 5 · 10⁻⁴. */
export function normalAt(share: number): number {
  const t = Math.sqrt(-2 * Math.log(Math.min(share, 1 - share)))
  const x = t - (2.515517 + 0.802853 * t + 0.010328 * t * t) / (1 + 1.432788 * t + 0.189269 * t * t + 0.001308 * t ** 3)
  return share < 0.5 ? -x : x
}

/** Share of a normal below so many sigma. Source: Abramowitz and Stegun 26.2.17, to 8 · 10⁻⁸. */
export function normalBelow(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x))
  const tail = Math.exp(-x * x / 2) / ROOT_TWO_PI * t * (0.319381530 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))))
  return x < 0 ? tail : 1 - tail
}

/** Bits that stay open: entropy. Source: Shannon. */
export function entropy(chances: Iterable<number>): number {
  let bits = 0
  for (const p of chances) if (p > 0) bits -= p * Math.log2(p)
  return bits
}
