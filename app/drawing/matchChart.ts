import { scaleLog, type ScaleLogarithmic } from 'd3-scale'
import { spread } from './impedanceChart'
import { area as d3area, line as d3line } from 'd3-shape'
import { SCALE_OHM, type PowerMatch } from '#core/advice/low/powerMatch'

/** Where the marks of a match chart stand: load across, watts up, both logarithmic; the schools' spans in a strip at the right. */

export const EDGE = { left: 56, top: 12, bottom: 32 }
/** Width of one school's span, and room for its number. */
export const spanWidth = (width: number): number => width < 480 ? 11 : 17
/** Between the scale and the strip, so that their numbers do not meet. */
const GAP = 24
const NAMED_OHM = [1, 2, 3, 4, 6, 8, 12, 16, 24, 32, 48, 64]
const NAMED_W = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000]

export interface MatchScales { x: ScaleLogarithmic<number, number>, y: ScaleLogarithmic<number, number>, width: number, height: number, right: number }

export function matchScales(match: PowerMatch, width: number, height: number): MatchScales {
  const right = width - match.schools.length * spanWidth(width) - GAP
  const watts = [...match.gives.flatMap(g => [g.powerW, g.mostW]), match.at.powerW, match.at.mostW, match.stands?.continuousW, match.stands?.peakW,
    ...match.schools.flatMap(s => [s.fromW, s.toW])]
    .filter((w): w is number => typeof w === 'number' && w > 0)
  const [least, most] = watts.length === 0 ? [10, 1000] : [Math.min(...watts), Math.max(...watts)]
  return {
    x: scaleLog().domain([Math.min(SCALE_OHM.least, match.at.loadOhm / 1.3), Math.max(SCALE_OHM.most, match.at.loadOhm * 1.3)]).range([EDGE.left, right]),
    y: scaleLog().domain([least / 1.4, most * 1.4]).range([height - EDGE.bottom, EDGE.top]),
    width, height, right,
  }
}

/** Between the least and the most that it gives; one line where they are one. */
export function capabilityPaths({ x, y }: MatchScales, { gives }: PowerMatch): { line: string, between: string } {
  type Point = PowerMatch['gives'][number]
  return {
    line: d3line<Point>(g => x(g.loadOhm), g => y(g.powerW))(gives) ?? '',
    between: gives.some(g => g.mostW > g.powerW * 1.001) ? d3area<Point>().x(g => x(g.loadOhm)).y0(g => y(g.powerW)).y1(g => y(g.mostW))(gives) ?? '' : '',
  }
}

export interface Band { says: string, top: number, bottom: number, rank: 1 | 2 | 3 }
/** What the speakers stand: for long, as programme, in peaks. */
export function bands({ y, height }: MatchScales, { stands }: PowerMatch): Band[] {
  if (!stands) return []
  const foot = height - EDGE.bottom
  return [
    { says: 'continuous', top: y(stands.continuousW), bottom: foot, rank: 1 }, { says: 'program', top: y(stands.programW), bottom: y(stands.continuousW), rank: 2 },
    { says: 'peak', top: y(stands.peakW), bottom: y(stands.programW), rank: 3 },
  ]
}

/** Each school's span in the strip; one without a lower end reaches to the foot. */
export interface Span { number: number, x: number, top: number, bottom: number, isChosen: boolean, isOpen: boolean }
export function spans({ y, height, right, width }: MatchScales, { schools }: PowerMatch): Span[] {
  return schools.map((s, k) => {
    const [top, low] = [y(s.toW), s.fromW === 0 ? height - EDGE.bottom : y(s.fromW)]
    return { number: k + 1, x: right + GAP + k * spanWidth(width), top: Math.min(top, low - 3), bottom: low, isChosen: s.isChosen, isOpen: s.fromW === 0 }
  })
}

export const ohmTicks = ({ x, right }: MatchScales): number[] => spread(NAMED_OHM, x, EDGE.left, right, 26)
export const wattTicks = ({ y, height }: MatchScales): number[] => spread(NAMED_W, y, EDGE.top, height - EDGE.bottom, 24)
