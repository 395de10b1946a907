import { floorOhm, isBridgedFloorStated, lowestRatedOhm, modeOf } from '#core/amplifier/index'
import { fallsShort } from '#core/quantity/tolerance'
import type { Finding } from '../finding'
import { found, type Rule } from './rule'

/**
 * What a maker's word on loads promises, and what it does not. Of receivers and vehicle units only what is stated is taken; common practice, no
 * source.
 */
export const stated: Rule = (line, { amplifier: { made, name, protection } }) => {
  const { rating } = line.output
  const [floor, lowest] = [floorOhm(rating), lowestRatedOhm(rating)]
  if (floor === null || lowest === null || line.upOhm === null) return []
  const findings: Finding[] = []
  const isMade = made === 'receiver' || made === 'vehicle'
  const isUnder = line.upDrive?.basis === 'under-floor'
  const isUnrated = !isUnder && fallsShort(line.upOhm, lowest)
  // Not stated, its floor is the lowest rated load: below that it is under it.
  if (isMade && isUnrated) findings.push(found(line, { code: 'stable-says', grade: 'unknown', facts: { made, floorOhm: floor, lowestRatedOhm: lowest, mode: modeOf(rating) } }))
  if (isMade && modeOf(rating) === 'bridged' && !isBridgedFloorStated(rating)) findings.push(found(line, { code: 'bridged-floor-taken', grade: 'unknown', facts: { floorOhm: floor } }))
  if (protection !== '' && (isUnder || isUnrated)) findings.push(found(line, { code: 'protection-says', grade: 'unknown', facts: { amplifier: name, protection } }))
  return findings
}
