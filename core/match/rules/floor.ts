import { floorOhm, lowestRatedOhm } from '#core/amplifier/index'
import { LOWEST_OF_NOMINAL } from '#core/network/element'
import { areEqualShares, fallsShort } from '#core/quantity/tolerance'
import { found, type Rule } from './rule'

/**
 * Load against what the output may be given. The label is compared with the floor, and where curves are known their
 * lowest point too: under 0.8 of the floor is more than any label permits (IEC 60268-5), between that and the floor is said.
 */
export const floor: Rule = (line) => {
  const { rating } = line.output
  const { loadOhm, drive, lowest } = line
  const least = floorOhm(rating)
  if (least === null || loadOhm === null || drive === null) return []
  if (drive.basis === 'under-floor') return [found(line, { code: 'load-under-floor', grade: 'stop', facts: { loadOhm, floorOhm: least } })]

  const findings = []
  if (drive.basis === 'not-rated') {
    findings.push(found(line, { code: 'load-not-rated', grade: 'unknown', facts: { loadOhm, lowestRatedOhm: lowestRatedOhm(rating)!, atLeastW: drive.powerW } }))
  }
  const shares = line.drops.map(d => d.share)
  const equal = areEqualShares(shares)
  findings.push(found(line, { code: 'load-suits', grade: 'good', facts: { loadOhm, floorOhm: least, powerW: drive.powerW, basis: drive.basis, count: shares.length, equal } }))
  if (lowest?.from === 'curve') {
    if (fallsShort(lowest.ohm, least)) {
      const grade = fallsShort(lowest.ohm, LOWEST_OF_NOMINAL * least) ? 'stop' : 'tight'
      findings.push(found(line, { code: 'curve-under-floor', grade, facts: { lowestOhm: lowest.ohm, frequencyHz: lowest.frequencyHz, floorOhm: least } }))
    }
  }
  else if (lowest) findings.push(found(line, { code: 'curve-not-known', grade: 'unknown', facts: { permittedOhm: lowest.ohm } }))
  return findings
}
