import { boxOf, contains, type Outline, type Place } from './outline'

/** Something that sounds: where it hangs, where it faces, how loud it is. */
export interface Source extends Place {
  heightM: number
  /** Where its axis points: turned from the plan's right, and tilted down from level; null: straight down. */
  aim: { turnDeg: number, tiltDeg: number } | null
  /** On its axis, a metre away, at the power that it gets, dB SPL. */
  atMetreDb: number
  /** The whole angle between its −6 dB directions. */
  coverageDeg: number
}

/** The most that is taken off beside the axis, dB: no real unit is silent behind. Common practice, no source. */
export const MOST_OFF_AXIS_DB = 18
/** Nobody's ear is nearer than this, metres. */
const NEAREST_M = 0.25
const DB = Math.LN10 / 10

/**
 * What a speaker loses beside its axis, dB: 6 (α / (θ/2))², no more than MOST_OFF_AXIS_DB; nothing where its angle is all round. The law is a choice, no
 * measured pattern: it meets the two values that sheets state (0 on the axis, −6 at half the coverage angle) and falls smoothly between and beyond.
 */
export function offAxisDb(angleDeg: number, coverageDeg: number): number {
  return coverageDeg >= 360 ? 0 : Math.min(MOST_OFF_AXIS_DB, 6 * (2 * angleDeg / coverageDeg) ** 2)
}

/**
 * Power that one source brings to a place at the height of ears, in units where 0 dB is 1: direct sound alone, falling with the square of the distance.
 * Source: inverse square law, any text on acoustics.
 */
function powerAt(source: Source, axis: readonly [number, number, number], xM: number, yM: number, earsM: number): number {
  const [dx, dy, dz] = [xM - source.xM, yM - source.yM, earsM - source.heightM]
  const squareM2 = Math.max(NEAREST_M ** 2, dx * dx + dy * dy + dz * dz)
  const along = dx * axis[0] + dy * axis[1] + dz * axis[2]
  const beside = Math.sqrt(Math.max(0, dx * dx + dy * dy + dz * dz - along * along))
  const offDb = source.coverageDeg >= 360 ? 0 : Math.min(MOST_OFF_AXIS_DB, 6 * (Math.atan2(beside, along) / (source.coverageDeg * Math.PI / 360)) ** 2)
  return Math.exp(DB * (source.atMetreDb - offDb)) / squareM2
}

function axisOf({ aim }: Source): [number, number, number] {
  if (aim === null) return [0, 0, -1]
  const [turn, tilt] = [aim.turnDeg * Math.PI / 180, aim.tiltDeg * Math.PI / 180]
  return [Math.cos(tilt) * Math.cos(turn), Math.cos(tilt) * Math.sin(turn), -Math.sin(tilt)]
}

const toDb = (power: number) => 10 * Math.log10(power)

/** Level of all sources together at one place, dB: their powers add. Null with no source. */
export function levelAtDb(sources: readonly Source[], { xM, yM }: Place, earsM: number): number | null {
  return sources.length === 0 ? null : toDb(sources.reduce((sum, s) => sum + powerAt(s, axisOf(s), xM, yM, earsM), 0))
}

/** The cells of a floor at which its level is worked out. */
export interface Cells {
  columns: number
  rows: number
  stepM: number
  /** Middle of the first cell. */
  from: Place
  /** Cells on the floor, as row × columns + column. */
  inside: Int32Array
}

/** About so many cells on a floor, whatever its size: enough that its mean stands to 0.1 dB, few enough to draw at once. */
const CELLS = 4000

export function cellsOf(outline: Outline, count = CELLS): Cells {
  const box = boxOf(outline)
  const stepM = Math.max(0.05, Math.sqrt(box.lengthM * box.widthM / count))
  const [columns, rows] = [Math.max(1, Math.round(box.lengthM / stepM)), Math.max(1, Math.round(box.widthM / stepM))]
  const from = { xM: box.fromXM + (box.lengthM - (columns - 1) * stepM) / 2, yM: box.fromYM + (box.widthM - (rows - 1) * stepM) / 2 }
  const inside: number[] = []
  for (let k = 0; k < columns * rows; k++) {
    if (contains(outline, { xM: from.xM + k % columns * stepM, yM: from.yM + Math.floor(k / columns) * stepM })) inside.push(k)
  }
  return { columns, rows, stepM, from, inside: Int32Array.from(inside) }
}

/**
 * The level over a floor. What each source brings is kept, so that one that moves is worked out alone: of 80 on 2,000 m² that is a hundredth of the whole.
 */
export class LevelField {
  /** Worked out once for the sources that are there. */
  private grid: Float64Array | null = null
  private readonly brought = new Map<string, { source: Source, powers: Float64Array }>()

  constructor(readonly cells: Cells, readonly earsM: number) {}

  /** Takes these sources and no others; those that are as they were are not worked out again. */
  set(sources: ReadonlyMap<string, Source>): void {
    this.grid = null
    for (const id of this.brought.keys()) if (!sources.has(id)) this.brought.delete(id)
    for (const [id, source] of sources) {
      const before = this.brought.get(id)
      if (!before || !isSame(before.source, source)) this.brought.set(id, { source, powers: this.powersOf(source, before?.powers) })
    }
  }

  private powersOf(source: Source, into: Float64Array = new Float64Array(this.cells.columns * this.cells.rows)): Float64Array {
    const { columns, from, stepM } = this.cells
    const axis = axisOf(source)
    for (let k = 0; k < into.length; k++) into[k] = powerAt(source, axis, from.xM + k % columns * stepM, from.yM + Math.floor(k / columns) * stepM, this.earsM)
    return into
  }

  /** Level of every cell, beside the floor too (a drawing wants its lines to run on to the wall), dB, row by row; empty with no source. */
  gridDb(): Float64Array {
    if (this.grid) return this.grid
    const sums = new Float64Array(this.brought.size === 0 ? 0 : this.cells.columns * this.cells.rows)
    for (const { powers } of this.brought.values()) for (let k = 0; k < sums.length; k++) sums[k]! += powers[k]!
    return this.grid = sums.map(toDb)
  }

  /** Level of each cell on the floor, dB, in their order; empty with no source. */
  levelsDb(gridDb = this.gridDb()): Float64Array {
    return gridDb.length === 0 ? gridDb : Float64Array.from(this.cells.inside, cell => gridDb[cell]!)
  }
}

function isSame(a: Source, b: Source): boolean {
  return a.xM === b.xM && a.yM === b.yM && a.heightM === b.heightM && a.atMetreDb === b.atMetreDb && a.coverageDeg === b.coverageDeg
    && a.aim?.turnDeg === b.aim?.turnDeg && a.aim?.tiltDeg === b.aim?.tiltDeg
}
