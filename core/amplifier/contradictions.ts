import type { RatedPoint } from './rating'

/**
 * Two rated powers that cannot both be of one output: one load rated twice, more volts into the heavier load, or less current into
 * it (one that holds back there would have to say so). `why` names which.
 */
export interface Contradiction { why: 'twice' | 'more-volts' | 'less-amps', lighter: RatedPoint, heavier: RatedPoint }

/** Volts or amps may be off by this much: figures on a sheet are round. */
const ROUND = 1.02

/** What rated powers say against each other, neighbours by load. Source: an output is near a voltage source (common practice, no source). */
export function contradictionsBetween(rated: readonly RatedPoint[]): Contradiction[] {
  const points = [...rated].sort((a, b) => b.loadOhm - a.loadOhm)
  return points.slice(1).flatMap((heavier, k): Contradiction[] => {
    const lighter = points[k]!
    const [byPower, byLoad] = [heavier.powerW / lighter.powerW, heavier.loadOhm / lighter.loadOhm]
    const [voltsBy, ampsBy] = [Math.sqrt(byPower * byLoad), Math.sqrt(byPower / byLoad)]
    if (heavier.loadOhm === lighter.loadOhm) return heavier.powerW === lighter.powerW ? [] : [{ why: 'twice', lighter, heavier }]
    if (voltsBy > ROUND) return [{ why: 'more-volts', lighter, heavier }]
    return ampsBy * ROUND < 1 ? [{ why: 'less-amps', lighter, heavier }] : []
  })
}
