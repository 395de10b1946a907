import { writeExact } from '#core/quantity/write'
import { isSameLoad, isUnderFloor } from '#core/quantity/tolerance'
import { contradictionsBetween } from '../contradictions'
import { notStated, type RatingKind } from '../kind'
import type { ChannelMode, Drive, SolidStateRating } from '../rating'

/**
 * A load as each of two joined channels sees it: bridged half of it, in parallel twice. Source: Kirchhoff; that both halves swing alike is
 * common practice, no source.
 */
const CHANNEL_LOAD: Record<ChannelMode, number> = { single: 1, bridged: 1 / 2, parallel: 2 }
/** Volts of an output to volts of one channel. */
const CHANNEL_VOLTS: Record<ChannelMode, number> = { single: 1, bridged: 2, parallel: 1 }

/** The lowest load of one channel, Ω: its maker's word, that of two bridged before all, or the lowest rated load. */
function floorOfChannel({ floorOhm, points, mode, bridgedFloorOhm }: Pick<SolidStateRating, 'floorOhm' | 'points' | 'mode' | 'bridgedFloorOhm'>): number {
  if (mode === 'bridged' && bridgedFloorOhm !== null) return bridgedFloorOhm * CHANNEL_LOAD.bridged
  return floorOhm ?? Math.min(...points.map(p => p.loadOhm))
}

/**
 * A solid-state output is near a voltage source. V = √(P·Z) at each rated point; between points V is interpolated against
 * load current; above the highest rated load V stays. Between floor and lowest rated load it gives at least the current of the
 * lowest rated point and at most its volts: what lies between is not known. Under the floor nothing is allowed, whatever is
 * rated there. Of two joined channels each gives what it gives into the load that it sees: bridged P(Z) = 2·P(Z/2).
 * Source: common practice, no source.
 */
function driveSolidState(rating: SolidStateRating, loadOhm: number): Drive {
  if (rating.mode === 'single') return driveChannel(rating, loadOhm)
  const { volts, mostVolts, basis } = driveChannel(rating, loadOhm * CHANNEL_LOAD[rating.mode])
  const times = CHANNEL_VOLTS[rating.mode]
  return { volts: times * volts, powerW: (times * volts) ** 2 / loadOhm, mostVolts: times * mostVolts, mostW: (times * mostVolts) ** 2 / loadOhm, basis }
}

function driveChannel(rating: SolidStateRating, loadOhm: number): Drive {
  const points = [...rating.points].sort((a, b) => b.loadOhm - a.loadOhm)
    .map(({ loadOhm, powerW }) => ({ loadOhm, volts: Math.sqrt(powerW * loadOhm), amps: Math.sqrt(powerW / loadOhm) }))
  const drive = (volts: number, basis: Drive['basis'], mostVolts = volts): Drive =>
    ({ volts, powerW: volts ** 2 / loadOhm, mostVolts, mostW: mostVolts ** 2 / loadOhm, basis })

  const highest = points[0]!
  const lowest = points.at(-1)!
  if (isUnderFloor(loadOhm, floorOfChannel(rating))) return drive(Math.min(lowest.amps * loadOhm, lowest.volts), 'under-floor', lowest.volts)
  const rated = points.find(p => isSameLoad(p.loadOhm, loadOhm))
  if (rated) return drive(rated.volts, 'rated')
  if (loadOhm > highest.loadOhm) return drive(highest.volts, 'above')
  if (loadOhm < lowest.loadOhm) return drive(lowest.amps * loadOhm, 'not-rated', lowest.volts)
  const next = points.findIndex(p => p.loadOhm < loadOhm)
  const a = points[next - 1]!
  const b = points[next]!
  // The load line V = I·Z cut with the straight line through both points, which stands upright where their currents are equal.
  const [volts, amps] = [b.volts - a.volts, b.amps - a.amps]
  return drive((amps * a.volts - volts * a.amps) / (loadOhm * amps - volts) * loadOhm, 'between')
}

/**
 * The most watts that one channel gives at so many volts: along its rated points as far as they hold them, and into no load under its floor. null where it
 * does not reach the volts. Source: P = V·I; that volts fall in a straight line between rated points is common practice, no source.
 */
export function wattsAtVolts({ points, floorOhm }: Pick<SolidStateRating, 'points' | 'floorOhm'>, volts: number): number | null {
  const rated = points.map(({ loadOhm, powerW }) => ({ volts: Math.sqrt(powerW * loadOhm), amps: Math.sqrt(powerW / loadOhm) })).sort((a, b) => a.amps - b.amps)
  const last = rated.findLastIndex(p => p.volts >= volts * (1 - HAIR))
  if (last === -1) return null
  const [holds, falls] = [rated[last]!, rated[last + 1]]
  const share = falls && holds.volts > falls.volts ? Math.max(0, (holds.volts - volts) / (holds.volts - falls.volts)) : 0
  const amps = holds.amps + share * ((falls?.amps ?? holds.amps) - holds.amps)
  return volts * Math.min(amps, volts / (floorOhm ?? Math.min(...points.map(p => p.loadOhm))))
}
/** Against the last bits of arithmetic. */
const HAIR = 1e-9

const isBridgedFloorStated = ({ mode, bridgedFloorOhm }: SolidStateRating) => mode === 'bridged' && bridgedFloorOhm !== null

/** How two channels are joined, as it stands behind their rating. */
export const MODE_WORDS: Record<ChannelMode, string> = { single: '', bridged: ' bridged', parallel: ' in parallel' }

export const solidState: RatingKind<SolidStateRating> = {
  lineKind: 'low-impedance',
  ratedW: ({ points, mode }) => Math.max(...points.map(p => p.powerW)) * (mode === 'single' ? 1 : 2),
  ratedV: ({ points, mode }) => Math.max(...points.map(p => Math.sqrt(p.powerW * p.loadOhm))) * CHANNEL_VOLTS[mode],
  lineV: notStated,
  floorOhm: rating => floorOfChannel(rating) / CHANNEL_LOAD[rating.mode],
  isFloorStated: rating => rating.floorOhm !== null || isBridgedFloorStated(rating),
  lowestRatedOhm: ({ points, mode }) => Math.min(...points.map(p => p.loadOhm)) / CHANNEL_LOAD[mode],
  mode: rating => rating.mode,
  drive: driveSolidState,
  contradictions: ({ points }) => contradictionsBetween(points),
  times: (rating, factor) => ({ ...rating, points: rating.points.map(p => ({ ...p, powerW: p.powerW * factor })) }),
  write: (rating) => {
    const channel = [...rating.points.map(p => `${writeExact(p.powerW)} W at ${writeExact(p.loadOhm)}`), ...(rating.floorOhm === null ? [] : [`from ${rating.floorOhm}`])].join(', ')
    return rating.mode === 'single' ? channel : `2 x ${channel}${MODE_WORDS[rating.mode]}${isBridgedFloorStated(rating) ? ` from ${rating.bridgedFloorOhm}` : ''}`
  },
  next: rating => [', 180 W at 8', ...(rating.floorOhm === null ? [', from 2'] : [])],
}
