import { isSameLoad, isUnderFloor } from '#core/quantity/tolerance'
import { floorOhm } from '../questions'
import type { Drive, SolidStateRating } from '../rating'

/**
 * A solid-state output is near a voltage source. V = √(P·Z) at each rated point; between points V is interpolated against
 * load current; above the highest rated load V stays. Between floor and lowest rated load it gives at least the current of the
 * lowest rated point and at most its volts: what lies between is not known. Under the floor nothing is allowed, whatever is
 * rated there.
 * Source: common practice, no source.
 */
export function driveSolidState(rating: SolidStateRating, loadOhm: number): Drive {
  const points = [...rating.points].sort((a, b) => b.loadOhm - a.loadOhm)
    .map(({ loadOhm, powerW }) => ({ loadOhm, volts: Math.sqrt(powerW * loadOhm), amps: Math.sqrt(powerW / loadOhm) }))
  const drive = (volts: number, basis: Drive['basis'], mostVolts = volts): Drive =>
    ({ volts, powerW: volts ** 2 / loadOhm, mostVolts, mostW: mostVolts ** 2 / loadOhm, basis })

  const highest = points[0]!
  const lowest = points.at(-1)!
  if (isUnderFloor(loadOhm, floorOhm(rating)!)) return drive(Math.min(lowest.amps * loadOhm, lowest.volts), 'under-floor', lowest.volts)
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
