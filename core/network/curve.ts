import type { CurvePoint } from './tree'

/** A measured curve laid out for looking up. */
export interface Curve {
  /** Natural logarithm of the frequencies, rising. */
  lnHz: Float64Array
  ohm: Float64Array
  /** Radians. Where no phase was measured it is taken between those that were, and as none where none was. */
  phase: Float64Array
}

const prepared = new WeakMap<readonly CurvePoint[], Curve>()

/** The curve of these points; made once for one list. */
export function curveOf(points: readonly CurvePoint[]): Curve {
  const known = prepared.get(points)
  if (known) return known
  const curve = {
    lnHz: Float64Array.from(points, p => Math.log(p[0])),
    ohm: Float64Array.from(points, p => p[1]),
    phase: Float64Array.from(phasesOf(points), deg => deg * Math.PI / 180),
  }
  prepared.set(points, curve)
  return curve
}

function phasesOf(points: readonly CurvePoint[]): number[] {
  const measured = points.filter((p): p is [number, number, number] => p[2] !== null)
  if (measured.length === points.length) return measured.map(p => p[2])
  if (measured.length === 0) return points.map(() => 0)
  return points.map(([hz, , deg]) => {
    if (deg !== null) return deg
    const above = measured.find(p => p[0] > hz)
    const below = measured.findLast(p => p[0] < hz)
    if (!above || !below) return (above ?? below)![2]
    return below[2] + (above[2] - below[2]) * Math.log(hz / below[0]) / Math.log(above[0] / below[0])
  })
}

/** Whether two curves say the same. */
export function isSameCurve(a: Curve, b: Curve): boolean {
  if (a === b) return true
  if (a.lnHz.length !== b.lnHz.length) return false
  return a.lnHz.every((x, k) => x === b.lnHz[k] && a.ohm[k] === b.ohm[k] && a.phase[k] === b.phase[k])
}

/** How far beyond an end still is that end: a file's last digit. */
const END = 1e-9

/**
 * Magnitude and phase at a frequency, straight lines over its logarithm between two points; null beyond the ends: nothing is known
 * there. Source: common practice, no source (how curves of impedance are read between their points).
 */
export function lookUp({ lnHz, ohm, phase }: Curve, atLnHz: number): { ohm: number, phase: number } | null {
  const last = lnHz.length - 1
  if (atLnHz < lnHz[0]! - END || atLnHz > lnHz[last]! + END) return null
  let [low, high] = [0, last]
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (lnHz[middle]! <= atLnHz) low = middle
    else high = middle
  }
  const t = Math.min(1, Math.max(0, (atLnHz - lnHz[low]!) / (lnHz[high]! - lnHz[low]!)))
  return { ohm: ohm[low]! + t * (ohm[high]! - ohm[low]!), phase: phase[low]! + t * (phase[high]! - phase[low]!) }
}
