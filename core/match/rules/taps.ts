import { PEAK_OF_CONTINUOUS } from '#core/practice/power'
import type { Finding } from '../finding'
import { tapDrawW } from '../facts'
import { found, type Rule } from './rule'

/** Is each transformer set to a tap that it has, and does its unit stand what that tap draws here. */
export const taps: Rule = line => line.speakers.flatMap(({ id, label, load, continuousW }): Finding[] => {
  if (load.kind !== 'tap' || load.tapW === 0) return []
  const findings: Finding[] = []
  if (load.tapsW.length > 0 && !load.tapsW.includes(load.tapW)) {
    findings.push(found(line, { code: 'tap-not-listed', grade: 'unknown', facts: { label, tapW: load.tapW, tapsW: load.tapsW } }, id))
  }
  // On a plain output what reaches the unit is known from the network, and judged there.
  if (line.kind === 'low-impedance' || continuousW === null) return findings
  const takesW = line.lineV === null ? load.tapW : tapDrawW(load, line.lineV)
  if (takesW > continuousW) {
    const grade = takesW > PEAK_OF_CONTINUOUS * continuousW ? 'stop' : 'tight'
    findings.push(found(line, { code: 'tap-over-rating', grade, facts: { label, takesW, continuousW } }, id))
  }
  return findings
})
