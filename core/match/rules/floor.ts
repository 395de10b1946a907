import { floorOhm } from '#core/amplifier/index'
import { LOWEST_OF_NOMINAL } from '#core/network/element'
import { find, type Rule } from './rule'

const HAIR = 1 - 1e-6

/**
 * Load against what the output may be given. The label is compared with the floor, and where curves are known their
 * lowest point too: under 0.8 of the floor is more than any label permits (IEC 60268-5), between that and the floor is said.
 */
export const floor: Rule = (line) => {
  const { rating } = line.output
  const { loadOhm, drive, lowest } = line
  if (rating.kind !== 'solid-state' || loadOhm === null || drive === null) return []
  const least = floorOhm(rating)
  if (drive.basis === 'under-floor') return [find(line, 'load-under-floor', 'stop', { loadOhm, floorOhm: least })]

  const findings = []
  if (drive.basis === 'not-rated') {
    const lowestRatedOhm = Math.min(...rating.points.map(p => p.loadOhm))
    findings.push(find(line, 'load-not-rated', 'unknown', { loadOhm, lowestRatedOhm, atLeastW: drive.powerW }))
  }
  const shares = line.drops.map(d => d.share)
  const equal = Math.max(...shares) - Math.min(...shares) < 0.02 * Math.max(...shares)
  findings.push(find(line, 'load-suits', 'good', { loadOhm, floorOhm: least, powerW: drive.powerW, basis: drive.basis, count: shares.length, equal }))
  if (lowest?.from === 'curve') {
    if (lowest.ohm < least * HAIR) {
      const grade = lowest.ohm < LOWEST_OF_NOMINAL * least * HAIR ? 'stop' : 'tight'
      findings.push(find(line, 'curve-under-floor', grade, { lowestOhm: lowest.ohm, frequencyHz: lowest.frequencyHz, floorOhm: least }))
    }
  }
  else if (lowest) findings.push(find(line, 'curve-not-known', 'unknown', { permittedOhm: lowest.ohm }))
  return findings
}
