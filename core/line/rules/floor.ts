import { floorOhm, isBridgedFloorStated, isFloorStated, lowestRatedOhm, modeOf, valveOf } from '#core/amplifier/index'
import { ORDINARY_DIP } from '#core/network/label'
import { areEqualShares, fallsShort } from '#core/quantity/tolerance'
import type { Finding } from '../finding'
import { found, type Rule } from './rule'
import { isStandKnown } from './sharing'

/**
 * Load against what the output may be given, every control fully up: turned down, a control hides a load that somebody will turn up again. The label is
 * compared with the floor, and where curves are known their lowest point too, with every other member at its label: under 0.7 of the floor is further down
 * than ordinary drivers of that label go (common practice, no source; a label promises 0.8, IEC 60268-5), between that and the floor is said. How low the
 * labels may take it beyond that is said as not known.
 */
export const floor: Rule = (line, { amplifier: { made } }) => {
  const { rating } = line.output
  const { upOhm: loadOhm, upDrive: drive, lowest } = line
  const least = floorOhm(rating)
  if (least === null || loadOhm === null || drive === null || valveOf(rating)) return []
  const asked = { floorOhm: least, isFloorStated: isFloorStated(rating), mode: isBridgedFloorStated(rating) ? 'single' as const : modeOf(rating) }
  if (drive.basis === 'under-floor') return [found(line, { code: 'load-under-floor', grade: 'stop', facts: { made, loadOhm, ...asked } })]

  const findings: Finding[] = []
  if (drive.basis === 'not-rated') {
    const facts = { loadOhm, lowestRatedOhm: lowestRatedOhm(rating)!, atLeastW: drive.powerW, atMostW: drive.mostW }
    findings.push(found(line, { code: 'load-not-rated', grade: 'unknown', facts }))
  }
  const shares = line.drops.map(d => d.share)
  const facts = {
    loadOhm, ...asked, powerW: line.upW ?? drive.powerW, basis: drive.basis, count: shares.length, equal: areEqualShares(shares),
    isStandKnown: isStandKnown(line),
  }
  findings.push(found(line, { code: 'load-suits', grade: 'good', facts }))
  if (lowest && lowest.from !== 'label' && fallsShort(lowest.knownOhm, least)) {
    const grade = fallsShort(lowest.knownOhm, ORDINARY_DIP * least) ? 'stop' : 'tight'
    const permittedOhm = lowest.from === 'mixed' ? lowest.ohm : null
    findings.push(found(line, { code: 'curve-under-floor', grade, facts: { lowestOhm: lowest.knownOhm, frequencyHz: lowest.frequencyHz, ...asked, permittedOhm } }))
  }
  else if (lowest && lowest.from !== 'curve') {
    findings.push(found(line, { code: 'curve-not-known', grade: 'unknown', facts: { permittedOhm: lowest.ohm, isMixed: lowest.from === 'mixed' } }))
  }
  return findings
}
