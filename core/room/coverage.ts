import { byId } from '#core/quantity/known'

/**
 * How closely speakers above a floor are set. The circle that one covers is where it is no more than 6 dB below its axis; the choices say how those circles
 * lie. Source: Davis and Patronis, *Sound System Engineering*, names the choices; the factors are derived here: circles of diameter D leave no gap where
 * four centres on a square (diagonal D) or three on a triangle (circumcircle of diameter D) meet.
 */
export interface Overlap {
  id: string
  name: string
  says: string
  /** Distance between neighbours as part of the circle's diameter. */
  factor: number
  pattern: 'square' | 'hexagonal'
}

export const OVERLAPS = [
  { id: 'edge', name: 'edge to edge', says: 'circles touch; between them it is thinner: for quiet background music', factor: 1, pattern: 'square' },
  { id: 'least', name: 'least overlap', says: 'no place between them outside every circle, in rows and columns: what is chosen where nothing is said', factor: Math.SQRT1_2, pattern: 'square' },
  { id: 'least-hexagonal', name: 'least overlap, rows offset', says: 'no place between them outside every circle, each row set half a step on: fewest speakers that leave no gap there; what is left at walls is said', factor: Math.sqrt(3) / 2, pattern: 'hexagonal' },
  { id: 'centre', name: 'centre to centre', says: 'each circle reaches the next one’s middle: evenest, for speech that must be understood', factor: 0.5, pattern: 'square' },
] as const satisfies readonly Overlap[]
export type OverlapId = (typeof OVERLAPS)[number]['id']
export const OVERLAP_IDS = OVERLAPS.map(o => o.id) as [OverlapId, ...OverlapId[]]
export const DEFAULT_OVERLAP: OverlapId = 'least'
export const overlapOf = (id: OverlapId): Overlap => byId(OVERLAPS, id)

/**
 * Diameter of the circle that a speaker facing down covers at the height of ears, D = 2 (H − e) tan(θ/2), metres.
 * @param coverageDeg the whole angle between its −6 dB directions; null, and from 180° on, gives null: no circle
 * Source: plane geometry.
 */
export function circleM(heightM: number, earsM: number, coverageDeg: number | null): number | null {
  if (coverageDeg === null || coverageDeg >= 180 || heightM <= earsM) return null
  return 2 * (heightM - earsM) * Math.tan(coverageDeg * Math.PI / 360)
}
