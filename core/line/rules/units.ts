import type { Finding } from '../finding'
import { found, type Rule } from './rule'

/**
 * Units that are wired in parts: coils with terminals of their own, halves of cabinets. Coils of one unit move one cone: they want
 * the same signal at the same level, and a coil left open takes no part. Source: common practice, no source.
 */
export const units: Rule = (line, { coils }) => {
  const findings: Finding[] = []
  const halves = line.speakers.flatMap(({ label, load }) => load.kind === 'cabinet' && load.positions[load.at]!.plays === 'half' ? [label] : [])
  if (halves.length > 0) findings.push(found(line, { code: 'half-cabinet', grade: 'unknown', facts: { labels: halves } }))
  for (const { unit, of, parts } of coils) {
    const first = line.speakers.find(s => s.load.kind === 'coil' && s.load.unit === unit)
    if (!first) continue
    const outputs = [...new Set(parts.map(p => p.output))]
    if (parts.length < of) findings.push(found(line, { code: 'coil-idle', grade: 'tight', facts: { unit, of, driven: parts.length } }, first.id))
    else if (new Set(parts.map(p => p.driven)).size > 1) findings.push(found(line, { code: 'coils-unlike', grade: 'tight', facts: { unit, outputs } }, first.id))
    else if (outputs.length > 1) findings.push(found(line, { code: 'coils-alike', grade: 'good', facts: { unit, outputs } }, first.id))
  }
  return findings
}
