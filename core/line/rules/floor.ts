import { driveInto, floorOhm, isBridgedFloorStated, isFloorStated, lowestRatedOhm, modeOf, valveOf } from '#core/amplifier/index'
import { LOWEST_OF_NOMINAL } from '#core/network/element'
import { areEqualShares, fallsShort } from '#core/quantity/tolerance'
import type { Finding } from '../finding'
import { found, type Rule } from './rule'

/**
 * Load against what the output may be given. The label is compared with the floor, and where curves are known their
 * lowest point too, with every other member at its label: under 0.8 of the floor is more than any label permits (IEC 60268-5),
 * between that and the floor is said. How low the labels may take it beyond that is said as not known.
 */
export const floor: Rule = (line, { amplifier: { made } }) => {
  const { rating } = line.output
  const { loadOhm, upOhm, drive, lowest } = line
  const least = floorOhm(rating)
  if (least === null || loadOhm === null || drive === null || valveOf(rating)) return []
  const asked = { floorOhm: least, isFloorStated: isFloorStated(rating), mode: isBridgedFloorStated(rating) ? 'single' as const : modeOf(rating) }
  // Turned down, a control hides a load that somebody will turn up again.
  const leastOhm = Math.min(loadOhm, upOhm ?? loadOhm)
  if (driveInto(rating, leastOhm)?.basis === 'under-floor') return [found(line, { code: 'load-under-floor', grade: 'stop', facts: { made, loadOhm: leastOhm, ...asked } })]

  const findings: Finding[] = []
  if (drive.basis === 'not-rated') {
    const facts = { loadOhm, lowestRatedOhm: lowestRatedOhm(rating)!, atLeastW: drive.powerW, atMostW: drive.mostW }
    findings.push(found(line, { code: 'load-not-rated', grade: 'unknown', facts }))
  }
  const shares = line.drops.map(d => d.share)
  const facts = { loadOhm, ...asked, powerW: line.amplifierW ?? drive.powerW, basis: drive.basis, count: shares.length, equal: areEqualShares(shares) }
  findings.push(found(line, { code: 'load-suits', grade: 'good', facts }))
  if (lowest && lowest.from !== 'label' && fallsShort(lowest.knownOhm, least)) {
    const grade = fallsShort(lowest.knownOhm, LOWEST_OF_NOMINAL * least) ? 'stop' : 'tight'
    const permittedOhm = lowest.from === 'mixed' ? lowest.ohm : null
    findings.push(found(line, { code: 'curve-under-floor', grade, facts: { lowestOhm: lowest.knownOhm, frequencyHz: lowest.frequencyHz, ...asked, permittedOhm } }))
  }
  else if (lowest && lowest.from !== 'curve') {
    findings.push(found(line, { code: 'curve-not-known', grade: 'unknown', facts: { permittedOhm: lowest.ohm, isMixed: lowest.from === 'mixed' } }))
  }
  return findings
}
