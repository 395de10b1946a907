import type { TicketEntry } from '#core/job/schema'
import { isOf } from './ticket'

/** Readings over days as points of a drawing: where each stands between the edges, from 0 to 1, ohms on a logarithmic scale. */

export interface DayPoint { id: string, x: number, y: number | null, unit: 'this' | 'twin' | 'new', at: string, ohm: number | null }
export interface DayDrawing {
  points: DayPoint[]
  lowY: number | null
  highY: number | null
  ticks: { y: number, ohm: number }[]
  fromDay: string
  toDay: string
}

const EDGES = [1, 2, 5] as const

/** @param band of the label; null where it is not known */
export function drawDays(entries: readonly TicketEntry[], part: 'coil' | 'lead' | 'contact', band: { lowOhm: number, highOhm: number } | null): DayDrawing | null {
  const readings = entries.filter(isOf('reading')).filter(({ what }) => what.of === part)
  if (readings.length === 0) return null
  const ohms = [...readings.flatMap(({ what }) => what.ohm === null || what.ohm <= 0 ? [] : [what.ohm]), ...band ? [band.lowOhm, band.highOhm] : []]
  const [least, most] = ohms.length === 0 ? [0.1, 10] : [Math.min(...ohms) / 1.6, Math.max(...ohms) * 1.6]
  // What reads under a tenth of an ohm stands at the foot: there is no end to a logarithm.
  const foot = Math.max(least, 0.05)
  const span = Math.log(Math.max(most, foot * 2) / foot)
  const yOf = (ohm: number) => Math.min(1, Math.max(0, Math.log(Math.max(ohm, foot) / foot) / span))
  const times = readings.map(r => Date.parse(r.at))
  const [from, to] = [Math.min(...times), Math.max(...times)]
  const points = readings.map(({ id, at, what }) => ({
    id, at, unit: what.unit, ohm: what.ohm, x: to === from ? 0.5 : (Date.parse(at) - from) / (to - from), y: what.ohm === null ? null : yOf(what.ohm),
  }))
  const ticks: DayDrawing['ticks'] = []
  for (let decade = Math.floor(Math.log10(foot)); 10 ** decade <= foot * Math.exp(span); decade++) {
    for (const edge of EDGES) {
      const ohm = edge * 10 ** decade
      if (ohm >= foot && ohm <= foot * Math.exp(span)) ticks.push({ ohm, y: yOf(ohm) })
    }
  }
  // More than a handful cannot be read: then the tens alone.
  const shown = ticks.length > 7 ? ticks.filter(t => Number.isInteger(Math.round(Math.log10(t.ohm) * 1e9) / 1e9)) : ticks
  return { points, lowY: band && yOf(band.lowOhm), highY: band && yOf(band.highOhm), ticks: shown, fromDay: new Date(from).toISOString(),
    toDay: new Date(to).toISOString() }
}
