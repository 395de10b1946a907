import { boxOf, contains, type Outline, type Place } from './outline'
import type { Overlap } from './coverage'
import { MOST_PLACES } from './limits'

/** A grid of speakers over a floor. Distances in metres. */
export interface Layout {
  pattern: Overlap['pattern']
  /** Columns and rows of the grid over the floor's box; of a floor that is no rectangle some places fall outside. */
  columns: number
  rows: number
  alongM: number
  acrossM: number
  places: Place[]
}

/** Steps so small that they are only rounding of feet and tenths. */
const ROUNDING = 1e-6

/**
 * Fits a grid to a floor: never wider than asked, evenly spread, half a step from the walls. Turned, the grid is fitted to the floor's box as seen along it.
 * @param spacingM the widest distance between neighbours
 * @param turnDeg turns the grid about the middle of the floor
 * @returns null where more than MOST_PLACES would be needed
 */
export function layoutOf(outline: Outline, { spacingM, pattern, turnDeg }: { spacingM: number, pattern: Overlap['pattern'], turnDeg: number }): Layout | null {
  const box = boxOf(outline)
  const middle: Place = { xM: box.fromXM + box.lengthM / 2, yM: box.fromYM + box.widthM / 2 }
  const turned = outline.map(p => turnedBy(p, middle, -turnDeg))
  const seen = boxOf(turned)
  // Rows of an offset grid lie √3/2 of a step apart.
  const rowM = pattern === 'hexagonal' ? spacingM * Math.sqrt(3) / 2 : spacingM
  const [columns, rows] = [Math.max(1, Math.ceil(seen.lengthM / spacingM - ROUNDING)), Math.max(1, Math.ceil(seen.widthM / rowM - ROUNDING))]
  if (columns * rows > 4 * MOST_PLACES) return null
  const [alongM, acrossM] = [seen.lengthM / columns, seen.widthM / rows]
  const places: Place[] = []
  for (let row = 0; row < rows; row++) {
    for (const along of alongs(pattern, row, columns)) {
      const place = turnedBy({ xM: seen.fromXM + along * alongM, yM: seen.fromYM + (row + 0.5) * acrossM }, middle, turnDeg)
      if (contains(outline, place)) places.push({ xM: toMm(place.xM), yM: toMm(place.yM) })
    }
  }
  return places.length > MOST_PLACES ? null : { pattern, columns, rows, alongM, acrossM, places }
}

/** Steps along a row: half a step from the walls; of an offset grid each second row begins at the wall's quarter and has one more. */
function alongs(pattern: Overlap['pattern'], row: number, columns: number): number[] {
  if (pattern === 'square' || row % 2 === 0) return Array.from({ length: columns }, (_, k) => k + 0.5)
  return Array.from({ length: columns + 1 }, (_, k) => Math.min(columns - 0.25, Math.max(0.25, k)))
}

export function turnedBy({ xM, yM }: Place, about: Place, deg: number): Place {
  const [cos, sin] = [Math.cos(deg * Math.PI / 180), Math.sin(deg * Math.PI / 180)]
  const [dx, dy] = [xM - about.xM, yM - about.yM]
  return { xM: about.xM + dx * cos - dy * sin, yM: about.yM + dx * sin + dy * cos }
}

const toMm = (metres: number) => Math.round(metres * 1000) / 1000

/** Pieces of floor that are looked at, along its longer side. */
const LOOKED_AT = 160

/** The part of a floor that lies outside every circle of such a diameter, 0 to 1: at walls, in corners, behind a turn. By equal pieces of floor. */
export function outsideShare(outline: Outline, places: readonly Place[], circleM: number): number {
  const box = boxOf(outline)
  const stepM = Math.max(box.lengthM, box.widthM) / LOOKED_AT
  let [all, outside] = [0, 0]
  for (let xM = box.fromXM + stepM / 2; xM < box.fromXM + box.lengthM; xM += stepM) {
    for (let yM = box.fromYM + stepM / 2; yM < box.fromYM + box.widthM; yM += stepM) {
      if (!contains(outline, { xM, yM })) continue
      all++
      if (!places.some(p => Math.hypot(p.xM - xM, p.yM - yM) <= circleM / 2)) outside++
    }
  }
  return all === 0 ? 0 : outside / all
}

/** What is said of it; empty where no piece of floor is left out. */
export function outsideWords(share: number): string {
  return share === 0 ? '' : `${share < 0.01 ? 'under 1 %' : `${Math.round(share * 100)} %`} of the floor lies outside every circle, at walls and corners`
}
