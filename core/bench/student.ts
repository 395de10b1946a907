import { normalAt } from '#core/trace/chances'

/**
 * Where Student's t of so many degrees of freedom has this share below it (share over a half). Exact for one and two; beyond, the expansion in
 * powers of 1/degrees. Source: Abramowitz and Stegun 26.7.5.
 */
export function studentAt(share: number, degrees: number): number {
  if (degrees === 1) return Math.tan(Math.PI * (share - 0.5))
  if (degrees === 2) return (2 * share - 1) * Math.sqrt(2 / (1 - (2 * share - 1) ** 2))
  const x = normalAt(share)
  const [x2, n] = [x * x, degrees]
  return x + x * (x2 + 1) / (4 * n) + x * (5 * x2 ** 2 + 16 * x2 + 3) / (96 * n ** 2)
    + x * (3 * x2 ** 3 + 19 * x2 ** 2 + 17 * x2 - 15) / (384 * n ** 3)
    + x * (79 * x2 ** 4 + 776 * x2 ** 3 + 1482 * x2 ** 2 - 1920 * x2 - 945) / (92160 * n ** 4)
}
