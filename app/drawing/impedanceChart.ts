import { scaleLinear, scaleLog, type ScaleLinear, type ScaleLogarithmic } from 'd3-scale'
import { line as d3line } from 'd3-shape'
import type { ImpedanceCurve } from '#core/advice/low/impedance'

/** Where the marks of an impedance chart stand. Pure: from figures and a size to places. */

export const EDGE = { left: 50, right: 46, top: 12, bottom: 30 }
/** Frequencies that are named along the foot, as far as there is room. */
const NAMED_HZ = [20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000]
const NAMED = [0.5, 1, 2, 3, 4, 6, 8, 12, 16, 24, 32, 50, 100, 200, 500, 1000, 2000, 5000]

export interface ChartScales {
  x: ScaleLogarithmic<number, number>
  y: ScaleLogarithmic<number, number>
  phase: ScaleLinear<number, number>
  width: number
  height: number
}

/** `values`: all that has to be in sight, Ω or W. */
export function impedanceScales(values: readonly number[], width: number, height: number): ChartScales {
  const seen = values.filter(v => v > 0 && Number.isFinite(v))
  const [least, most] = seen.length === 0 ? [1, 10] : [Math.min(...seen), Math.max(...seen)]
  return {
    x: scaleLog().domain([20, 20_000]).range([EDGE.left, width - EDGE.right]),
    y: scaleLog().domain([least / 1.25, most * 1.25]).range([height - EDGE.bottom, EDGE.top]),
    phase: scaleLinear().domain([-90, 90]).range([height - EDGE.bottom, EDGE.top]),
    width, height,
  }
}

/** A curve as a path; a null breaks it. */
export function pathOf({ x, y }: ChartScales, hz: ArrayLike<number>, values: ArrayLike<number | null>): string {
  return d3line<number>().defined(k => values[k] !== null).x(k => x(hz[k]!)).y(k => y(values[k]!))(Array.from({ length: hz.length }, (_, k) => k)) ?? ''
}
export function phasePath({ x, phase }: ChartScales, { hz, deg }: ImpedanceCurve): string {
  return d3line<number>().x(k => x(hz[k]!)).y(k => phase(deg[k]!))(Array.from({ length: hz.length }, (_, k) => k)) ?? ''
}

/** Names along an axis, no two closer than `gap`. */
export function spread(all: readonly number[], at: (value: number) => number, from: number, to: number, gap: number): number[] {
  const kept: number[] = []
  for (const value of all) {
    const place = at(value)
    if (place < Math.min(from, to) - 0.5 || place > Math.max(from, to) + 0.5) continue
    if (kept.every(k => Math.abs(at(k) - place) >= gap)) kept.push(value)
  }
  return kept
}
export const hertzTicks = ({ x, width }: ChartScales): number[] => spread(NAMED_HZ, x, EDGE.left, width - EDGE.right, 46)
export const valueTicks = ({ y, height }: ChartScales): number[] => spread(NAMED, y, EDGE.top, height - EDGE.bottom, 26)

/** Words on a chart: the heights that they may stand at, best first; they begin near a place, or have it in their middle. */
export interface ChartLabel { says: string, ys: readonly number[], nearX?: number, midX?: number }
interface DrawnCurve { hz: ArrayLike<number>, values: ArrayLike<number>, at: (value: number) => number }
/** Of the chart's type of 12.5 px: a letter, a line over its foot and under it. */
const LETTER_PX = 6.5
const [OVER_FOOT_PX, UNDER_FOOT_PX] = [13, 5]
/** How far aside words go at a time. */
const ASIDE_PX = 12

/**
 * Places words where no curve strikes them through and no other words lie, as near to what they are of as can be. Where there is no such
 * place they stand clear of other words at least.
 */
export function placeLabels(
  { x, width, height }: ChartScales, curves: readonly DrawnCurve[], wanted: readonly ChartLabel[],
): { says: string, x: number, y: number }[] {
  const points = curves.map(({ hz, values, at }) => Array.from({ length: hz.length }, (_, k) => ({ x: x(hz[k]!), y: at(values[k]!) })))
  const placed: { says: string, x: number, y: number, right: number }[] = []
  const isFree = (left: number, right: number, y: number) =>
    !placed.some(p => p.x < right && p.right > left && Math.abs(p.y - y) < OVER_FOOT_PX + UNDER_FOOT_PX)
  const isClear = (left: number, right: number, y: number) => {
    const [top, foot] = [y - OVER_FOOT_PX, y + UNDER_FOOT_PX]
    // A curve crosses a box where a piece of it over the box has an end in it, or one over and one under it.
    return points.every(curve => curve.every((p, k) => {
      const before = curve[Math.max(0, k - 1)]!
      if (p.x < left || before.x > right) return true
      return Math.max(p.y, before.y) < top || Math.min(p.y, before.y) > foot
    }))
  }
  for (const { says, ys, nearX, midX } of wanted) {
    const px = LETTER_PX * says.length
    const [least, most] = [EDGE.left + 6, width - EDGE.right - px - 4]
    const from = Math.max(least, Math.min(most, midX === undefined ? (nearX ?? EDGE.left) + 6 : midX - px / 2))
    const inside = ys.filter(y => y - OVER_FOOT_PX >= EDGE.top && y + UNDER_FOOT_PX <= height - EDGE.bottom)
    const asides = Array.from({ length: Math.ceil(width / ASIDE_PX) }, (_, k) => k * ASIDE_PX).flatMap(by => by === 0 ? [0] : [by, -by])
    const spots = asides.flatMap(by => inside.map(y => ({ x: from + by, y }))).filter(spot => spot.x >= least && spot.x <= most)
    const free = spots.filter(s => isFree(s.x, s.x + px, s.y))
    const spot = free.find(s => isClear(s.x, s.x + px, s.y)) ?? free[0] ?? { x: from, y: ys[0]! }
    placed.push({ says, ...spot, right: spot.x + px })
  }
  return placed.map(({ says, x: left, y }) => ({ says, x: left, y }))
}

/** The sample nearest to a place, and the next one for a step of a key. */
export function sampleAt({ x }: ChartScales, hz: ArrayLike<number>, px: number): number {
  const wanted = Math.log(x.invert(px))
  let best = 0
  for (let k = 1; k < hz.length; k++) if (Math.abs(Math.log(hz[k]!) - wanted) < Math.abs(Math.log(hz[best]!) - wanted)) best = k
  return best
}
export function stepped(at: number, key: string, count: number, isFar: boolean): number | null {
  const step = isFar ? 10 : 1
  const to = { ArrowRight: at + step, ArrowUp: at + step, ArrowLeft: at - step, ArrowDown: at - step, Home: 0, End: count - 1, PageUp: at + 20,
    PageDown: at - 20 }[key]
  return to === undefined ? null : Math.max(0, Math.min(count - 1, to))
}
