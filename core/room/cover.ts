import { z } from 'zod'
import { circleM, overlapOf, type OverlapId } from './coverage'
import { layoutOf, outsideShare, type Layout } from './layout'
import { cellsOf, LevelField, type Source } from './level'
import { rectangle, type Outline } from './outline'
import { statisticsOf } from './statistics'
import { dbWatts, lowestTap, wattsDb } from './tap'

/** How many speakers a floor wants, where, and at what power. */
export interface CoverAsked {
  outline: Outline
  heightM: number
  earsM: number
  coverageDeg: number
  overlap: OverlapId
  turnDeg: number
  /** On the axis at a metre for a watt. */
  wattDb: number
  targetDb: number
  /** Taps that there are; none: the power needed stands as it is. */
  tapsW: readonly number[]
}

export interface Cover {
  circleM: number
  spacingM: number
  layout: Layout
  /** The part of the floor outside every circle. */
  outside: number
  /** Power that brings the mean of the floor to the target, W. */
  neededW: number
  /** The lowest tap that reaches it; null where none does. */
  tapW: number | null
  meanDb: number
  spreadDb: number
  p10Db: number
  p90Db: number
  within3Db: number
}

/** @returns null where the angle makes no circle at the height of ears, or more speakers would be needed than are drawn */
export function cover({ outline, heightM, earsM, coverageDeg, overlap, turnDeg, wattDb, targetDb, tapsW }: CoverAsked): Cover | null {
  const acrossM = circleM(heightM, earsM, coverageDeg)
  if (acrossM === null) return null
  const { factor, pattern } = overlapOf(overlap)
  const layout = layoutOf(outline, { spacingM: factor * acrossM, pattern, turnDeg })
  if (!layout || layout.places.length === 0) return null
  const field = new LevelField(cellsOf(outline), earsM)
  field.set(new Map(layout.places.map((place, k): [string, Source] => [String(k), { ...place, heightM, aim: null, atMetreDb: wattDb, coverageDeg }])))
  // All speakers alike: so many decibels of power more are so many decibels of level more, everywhere.
  const { meanDb, spreadDb, p10Db, p90Db, within3Db } = statisticsOf(field.levelsDb())!
  const neededW = dbWatts(targetDb - meanDb)
  const tapW = tapsW.length === 0 ? neededW : lowestTap(tapsW, neededW, w => w)
  const gainDb = wattsDb(tapW ?? Math.max(...tapsW))
  return {
    circleM: acrossM, spacingM: factor * acrossM, layout, outside: outsideShare(outline, layout.places, acrossM), neededW, tapW,
    meanDb: meanDb + gainDb, spreadDb, p10Db: p10Db + gainDb, p90Db: p90Db + gainDb, within3Db,
  }
}

const metre = z.number()
/** What the command line says; the JSON Schema is made of it. */
export const coverReportSchema = z.strictObject({
  count: z.int().min(1).describe('speakers'),
  spacingM: metre.describe('widest distance between neighbours by the choice of overlap, m'),
  circleM: metre.describe('diameter of the circle that one covers at the height of ears, m'),
  layout: z.strictObject({
    pattern: z.enum(['square', 'hexagonal']), columns: z.int(), rows: z.int(), alongM: metre.describe('between columns as laid out, m'), acrossM: metre.describe('between rows, m'),
    places: z.array(z.strictObject({ xM: metre, yM: metre })).describe('from one corner of the floor, m'),
  }),
  outside: z.number().describe('part of the floor outside every circle, 0 to 1: at walls and corners'),
  meanDb: z.number().describe('mean level of equal pieces of floor at that power, dB SPL: direct sound alone'),
  spreadDb: z.number().describe('standard deviation about it, dB'),
  p10Db: z.number().describe('a tenth of the floor is quieter'),
  p90Db: z.number().describe('a tenth is louder'),
  within3Db: z.number().describe('part of the floor within 3 dB of the mean, 0 to 1'),
  neededW: z.number().describe('power of each that brings the mean to the target, W'),
  tapW: z.number().nullable().describe('the lowest of the taps given that does; neededW where none are given; null where none is enough: levels are then at the highest'),
})
export type CoverReport = z.infer<typeof coverReportSchema>

export function coverReport(lengthM: number, widthM: number, asked: Omit<CoverAsked, 'outline' | 'turnDeg'>): CoverReport | null {
  const found = cover({ ...asked, outline: rectangle(lengthM, widthM), turnDeg: 0 })
  if (!found) return null
  const { layout, ...figures } = found
  return { count: layout.places.length, ...figures, layout }
}
