import { isSameLoad, isUnderFloor } from '#core/quantity/tolerance'
import { floorOhm } from '../questions'
import type { Drive, SolidStateRating } from '../rating'

/**
 * A solid-state output is near a voltage source. V = √(P·Z) at each rated point; between points V is interpolated against
 * load current; above the highest rated load V stays; between floor and lowest rated load the current of the lowest
 * rated point is the most it is known to give. Below the floor the figure is what it would be asked for, not allowed.
 * Source: common practice, no source.
 */
export function driveSolidState(rating: SolidStateRating, loadOhm: number): Drive {
  const points = [...rating.points].sort((a, b) => b.loadOhm - a.loadOhm)
    .map(({ loadOhm, powerW }) => ({ loadOhm, volts: Math.sqrt(powerW * loadOhm), amps: Math.sqrt(powerW / loadOhm) }))
  const drive = (volts: number, basis: Drive['basis']): Drive => ({ volts, powerW: volts ** 2 / loadOhm, basis })

  const rated = points.find(p => isSameLoad(p.loadOhm, loadOhm))
  if (rated) return drive(rated.volts, 'rated')

  const highest = points[0]!
  const lowest = points.at(-1)!
  if (loadOhm > highest.loadOhm) return drive(highest.volts, 'above')
  if (loadOhm < lowest.loadOhm) {
    return drive(lowest.amps * loadOhm, isUnderFloor(loadOhm, floorOhm(rating)!) ? 'under-floor' : 'not-rated')
  }
  const next = points.findIndex(p => p.loadOhm < loadOhm)
  const a = points[next - 1]!
  const b = points[next]!
  // The load line V = I·Z cut with the straight line through both points.
  const slope = (b.volts - a.volts) / (b.amps - a.amps)
  const amps = (a.volts - slope * a.amps) / (loadOhm - slope)
  return drive(amps * loadOhm, 'between')
}
