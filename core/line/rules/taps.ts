import { PEAK_OF_CONTINUOUS } from '#core/schools/power'
import type { Finding } from '../finding'
import { drawnAtRatedW, efficiencyOf } from '#core/network/element'
import { exceeds } from '#core/quantity/tolerance'
import { isBehindTransformer, tapDrawW, type LineFacts } from '../facts'
import { found, type Rule } from './rule'

/** Is each transformer set to a tap that it has, and does its unit stand what that tap draws here. */
export const taps: Rule = line => line.drops.flatMap(({ speaker: { id, label, load, continuousW }, behind, mostW }): Finding[] => {
  // Behind a transformer of its group it gets what the network says, with every control fully up.
  if (load.kind !== 'tap') return line.kind === 'constant-voltage' && isBehindTransformer(behind) ? over(line, id, label, mostW, continuousW) : []
  if (load.tapW === 0) return []
  const findings: Finding[] = []
  if (load.tapsW.length > 0 && !load.tapsW.includes(load.tapW)) {
    findings.push(found(line, { code: 'tap-not-listed', grade: 'unknown', facts: { label, tapW: load.tapW, tapsW: load.tapsW } }, id))
  }
  // On a plain output what reaches the unit is known from the network, and judged there.
  if (line.kind === 'low-impedance' || continuousW === null) return findings
  const drawnW = line.lineV === null ? drawnAtRatedW(load) : tapDrawW(load, line.lineV)
  return [...findings, ...over(line, id, label, drawnW * (efficiencyOf(load) ?? 1), continuousW)]
})

function over(line: LineFacts, id: string, label: string, takesW: number | null, continuousW: number | null): Finding[] {
  if (takesW === null || continuousW === null || !exceeds(takesW, continuousW)) return []
  const grade = exceeds(takesW, PEAK_OF_CONTINUOUS * continuousW) ? 'stop' : 'tight'
  return [found(line, { code: 'tap-over-rating', grade, facts: { label, takesW, continuousW } }, id)]
}
