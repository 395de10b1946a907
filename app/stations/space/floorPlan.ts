import { ticks } from 'd3-array'
import { contours } from 'd3-contour'
import type { Cells } from '#core/room/level'
import { boxOf, type Outline, type Place } from '#core/room/outline'
import { FOOT_M, type Units } from '#core/quantity/units'

/** What the plan of a space decides about drawing: pure, so that it can be tested. */

/** Room about the plan for its rulers, px. */
export const EDGE = { left: 40, top: 14, right: 14, bottom: 30 } as const

/** Between metres on the floor and px on the screen, one scale for both ways. */
export interface PlanScale {
  pxPerM: number
  width: number
  height: number
  x: (xM: number) => number
  y: (yM: number) => number
  placeAt: (px: number, py: number) => Place
}

/** Above the plan where tags stand over its far wall, px. */
export const TAG_ROOM = 46
/** The largest that fits a box; never so small that nothing can be read, never larger than a speaker is worth. */
export function planScale(outline: Outline, width: number, height: number, top: number = EDGE.top): PlanScale {
  const box = boxOf(outline)
  const pxPerM = Math.max(4, Math.min((width - EDGE.left - EDGE.right) / box.lengthM, (height - top - EDGE.bottom) / box.widthM, 120))
  return {
    pxPerM, width: Math.ceil(box.lengthM * pxPerM + EDGE.left + EDGE.right), height: Math.ceil(box.widthM * pxPerM + top + EDGE.bottom),
    x: xM => EDGE.left + (xM - box.fromXM) * pxPerM,
    y: yM => top + (yM - box.fromYM) * pxPerM,
    placeAt: (px, py) => ({ xM: (px - EDGE.left) / pxPerM + box.fromXM, yM: (py - top) / pxPerM + box.fromYM }),
  }
}

/** Marks of a ruler along so many metres, at round figures of the person's units, no closer than can be read. */
export function rulerMarks(lengthM: number, pxPerM: number, units: Units): { m: number, text: string }[] {
  const unitM = units === 'metric' ? 1 : FOOT_M
  const count = Math.max(2, Math.floor(lengthM * pxPerM / 60))
  return ticks(0, lengthM / unitM, count).filter(v => v >= 0).map(v => ({ m: v * unitM, text: String(Number(v.toFixed(2))) }))
}

/** Levels between which the shades run, dB: at `fromDb` paper, at `toDb` the darkest. */
export interface ShadeRange { fromDb: number, toDb: number }
/** Beyond the levels found, to either side; and never less than this in all, so that an even floor is not made to look uneven. */
const BEYOND_DB = 3
const LEAST_RANGE_DB = 12
/** What is wanted belongs to the shades where it is no farther than this from what was found: a floor 9 dB above it was one dark slab. */
const WANTED_WITHIN_DB = 4
/** Shades that fit the values found: from a little under the quietest tenth to a little over the loudest, with what is wanted where it is near. */
export function shadeRange(found: { p10Db: number, p90Db: number } | null, wantedDb: number | null): ShadeRange {
  const [low, high] = found ? [found.p10Db, found.p90Db] : [wantedDb ?? 0, wantedDb ?? 0]
  const isNear = wantedDb !== null && wantedDb >= low - WANTED_WITHIN_DB && wantedDb <= high + WANTED_WITHIN_DB
  const [fromDb, toDb] = [Math.min(low, isNear ? wantedDb : low) - BEYOND_DB, Math.max(high, isNear ? wantedDb : high) + BEYOND_DB]
  const short = Math.max(0, LEAST_RANGE_DB - (toDb - fromDb)) / 2
  return { fromDb: fromDb - short, toDb: toDb + short }
}
/** Rows of the legend, loudest first: 3 dB apart and counted from what is wanted, so that it is one of them where it lies within. */
export function legendRows({ fromDb, toDb }: ShadeRange, aboutDb: number): { db: number, isAbout: boolean, shade: number }[] {
  const first = Math.ceil((fromDb - aboutDb) / 3)
  const last = Math.floor((toDb - aboutDb) / 3)
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, k) => last - k)
    .map(step => ({ db: Math.round(aboutDb + 3 * step), isAbout: step === 0, shade: shadeOf(aboutDb + 3 * step, { fromDb, toDb }) }))
}
/** The darkest shade lets paper through still: what is written on it is read. */
export const SHADE_MOST = 0.84
/** How dark a level is shaded, 0 to 1. */
export function shadeOf(db: number, { fromDb, toDb }: ShadeRange): number {
  return Math.min(1, Math.max(0, (db - fromDb) / (toDb - fromDb)))
}

export interface Shading { offsetDb: number, range: ShadeRange, ink: readonly [number, number, number] }
/** Cells as an image: ink of that colour, as dark as the level. What lies beside the floor is cut off where it is drawn. */
export function shadeCells(gridDb: Float64Array, { offsetDb, range, ink: [r, g, b] }: Shading, into: Uint8ClampedArray): void {
  if (gridDb.length === 0) into.fill(0)
  for (let k = 0; k < gridDb.length; k++) {
    into[4 * k] = r
    into[4 * k + 1] = g
    into[4 * k + 2] = b
    into[4 * k + 3] = Math.round(SHADE_MOST * 255 * shadeOf(gridDb[k]! + offsetDb, range))
  }
}

/** The line along which a grid has one value, as a path on the plan; empty where it is nowhere. */
export function contourPath(cells: Cells, gridDb: Float64Array, atDb: number, scale: PlanScale): string {
  if (gridDb.length === 0) return ''
  const [found] = contours().size([cells.columns, cells.rows]).thresholds([atDb])(gridDb as unknown as number[])
  const { stepM, from } = cells
  const point = ([cx, cy]: number[]) => `${scale.x(from.xM + (cx! - 0.5) * stepM).toFixed(1)} ${scale.y(from.yM + (cy! - 0.5) * stepM).toFixed(1)}`
  // What runs along the edge of the grid is the wall, not a level.
  const isEdge = ([cx, cy]: number[]) => cx! <= 0.01 || cy! <= 0.01 || cx! >= cells.columns - 0.01 || cy! >= cells.rows - 0.01
  return (found?.coordinates ?? []).flatMap(polygon => polygon.map((ring) => {
    let path = ''
    let isDown = false
    for (const corner of ring) {
      path += isEdge(corner) ? '' : `${isDown ? 'L' : 'M'}${point(corner)}`
      isDown = !isEdge(corner)
    }
    return path
  })).join('')
}

/** The next place from one in reading order: rows from the far wall, each from the left. */
export function besidePlace<T extends Place & { id: string }>(spots: readonly T[], fromId: string | null, step: 1 | -1): T | null {
  if (spots.length === 0) return null
  const order = [...spots].sort((a, b) => Math.abs(a.yM - b.yM) > 0.5 ? a.yM - b.yM : a.xM - b.xM)
  const at = order.findIndex(s => s.id === fromId)
  if (at === -1) return order[step > 0 ? 0 : order.length - 1]!
  return order[(at + step + order.length) % order.length]!
}

/** On the grid of a tenth of a metre, or of a quarter of a foot. */
export function snapped({ xM, yM }: Place, units: Units): Place {
  const step = units === 'metric' ? 0.1 : FOOT_M / 4
  const near = (v: number) => Math.round(Math.round(v / step) * step * 1000) / 1000
  return { xM: near(xM), yM: near(yM) }
}
/** One press of an arrow key. */
export const nudgeM = (units: Units, isLarge: boolean): number => (units === 'metric' ? 0.1 : FOOT_M / 4) * (isLarge ? 10 : 1)

/** A way along walls through places, as a path: along first, then across, as its length is counted. */
export function wayPath(from: Place, places: readonly Place[], scale: Pick<PlanScale, 'x' | 'y'>): string {
  return places.reduce((path, place) => `${path}H${scale.x(place.xM).toFixed(1)}V${scale.y(place.yM).toFixed(1)}`, `M${scale.x(from.xM).toFixed(1)} ${scale.y(from.yM).toFixed(1)}`)
}
