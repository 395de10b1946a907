import { isReactive } from '#core/network/element'
import { exceeds } from '#core/quantity/tolerance'
import { BESIDE_SCHOOL, PEAK_OF_CONTINUOUS, powerSchool, schoolBandW } from '#core/schools/power'
import type { LineFacts } from '../facts'
import type { Finding } from '../finding'
import { found, type Rule } from './rule'

/** Loads that differ less than this in what they take are heard as equal: 1.5 is under 2 dB. Common practice, no source. */
const UNEQUAL = 1.5

/**
 * Continuous power that the line stands as it is wired: the first member to reach its rating limits all.
 * Null while any rating is not known.
 */
export function standsContinuousW(line: LineFacts): number | null {
  let leastW: number | null = null
  for (const { speaker, share } of line.drops) {
    if (speaker.continuousW === null) return null
    if (share === 0) continue
    const standsW = speaker.continuousW / share
    if (leastW === null || standsW < leastW) leastW = standsW
  }
  return leastW
}

/** Whether the rating of every speaker that plays is known. */
export const isStandKnown = (line: LineFacts): boolean => line.drops.every(d => d.share === 0 || d.speaker.continuousW !== null)

/** How low-impedance members share, and whether the amplifier suits what they stand. */
export const sharing: Rule = (line, { practice }) => {
  if (line.kind !== 'low-impedance' || line.drops.length === 0) return []
  const findings: Finding[] = []
  // Where a capacitor or a coil parts the band, unequal is what is meant.
  const sorted = line.drops.filter(d => !d.behind.some(({ through }) => isReactive(through))).sort((a, b) => b.share - a.share)
  const [most, least] = [sorted[0], sorted.at(-1)]
  if (most && least && least.share > 0 && most.share / least.share > UNEQUAL) {
    findings.push(found(line, { code: 'unequal-shares', grade: 'tight', facts: { most: most.label, mostShare: most.share, least: least.label, leastShare: least.share } }, most.nodeId))
  }
  // Where no power is rated at this load, what can hurt is judged by the most that it may give.
  const isMost = line.upDrive?.basis === 'not-rated'
  for (const { speaker, nodeId, mostW, label } of line.drops) {
    if (mostW === null || speaker.continuousW === null || !exceeds(mostW, PEAK_OF_CONTINUOUS * speaker.continuousW)) continue
    findings.push(found(line, { code: 'speaker-overdriven', grade: 'stop', facts: { label, powerW: mostW, continuousW: speaker.continuousW, isMost } }, nodeId))
  }
  const continuousW = standsContinuousW(line)
  const amplifierW = line.mostW
  if (continuousW === null || amplifierW === null) return findings
  const { fromW, toW } = schoolBandW(powerSchool(practice.power), continuousW)
  const facts = { amplifierW, fromW, toW, practice: practice.power, isMost }
  const inside = amplifierW >= fromW * (1 - BESIDE_SCHOOL) && amplifierW <= toW * (1 + BESIDE_SCHOOL)
  findings.push(found(line, { code: inside ? 'amplifier-inside-rule' : 'amplifier-outside-rule', grade: inside || amplifierW < fromW ? 'good' : 'tight', facts }))
  return findings
}
