import { exceeds, isSameVoltage } from '#core/quantity/tolerance'
import { isOff, tapDrawW, type LineFacts, type ThroughFacts } from '../facts'
import type { Finding } from '../finding'
import { found, type Rule } from './rule'

/** Up to so much of its rating a control is loaded with something left. Common practice, no source: the commonest reserve of the trade, four fifths. */
const AT_EASE = 0.8
/** A group that takes so much more or less than its transformer's tap is not the load that it is made for. */
const LIKE_TAP = 0.1

/** Controls and transformers of groups against what hangs behind them. Judged fully up: somebody will turn it there. */
export const throughs: Rule = line => line.throughs.flatMap(group => group.through.kind === 'control' ? ofControl(line, group) : group.through.kind === 'transformer' ? ofTransformer(line, group) : [])

/** What a control carries at most, W; on low impedance what the output can send through it. */
const carriesW = (line: LineFacts, { behindW, mostW }: ThroughFacts): number | null => line.kind === 'constant-voltage' ? behindW : mostW

function ofControl(line: LineFacts, group: ThroughFacts): Finding[] {
  const { through, nodeId, speakers } = group
  if (through.kind !== 'control') return []
  const { label, ratingW, lineV } = through
  const behindW = carriesW(line, group)
  const findings: Finding[] = []
  if (isOff(through)) findings.push(found(line, { code: 'control-off', grade: 'unknown', facts: { label, silent: speakers.map(s => s.label) } }, nodeId))
  if (lineV !== null && line.lineV !== null && !isSameVoltage(lineV, line.lineV)) {
    findings.push(found(line, { code: 'control-wrong-line', grade: lineV < line.lineV ? 'stop' : 'tight', facts: { label, ratedV: lineV, lineV: line.lineV } }, nodeId))
  }
  if (ratingW === null) return [...findings, found(line, { code: 'control-rating-not-known', grade: 'unknown', facts: { label, behindW } }, nodeId)]
  // Why what reaches it is not known is said by itself: no rating, or a load that may not be driven.
  if (behindW === null) return findings
  const facts = { label, ratingW, behindW }
  if (exceeds(behindW, ratingW)) return [...findings, found(line, { code: 'control-over', grade: 'stop', facts }, nodeId)]
  return [...findings, exceeds(behindW, AT_EASE * ratingW) ? found(line, { code: 'control-tight', grade: 'tight', facts }, nodeId) : found(line, { code: 'control-fits', grade: 'good', facts }, nodeId)]
}

function ofTransformer(line: LineFacts, { through, nodeId, speakers, behindW }: ThroughFacts): Finding[] {
  if (through.kind !== 'transformer') return []
  const { label, ratingW, tapW, ratedV, secondaryOhm } = through
  if (isOff(through)) return [found(line, { code: 'control-off', grade: 'unknown', facts: { label, silent: speakers.map(s => s.label) } }, nodeId)]
  const { lineV } = line
  if (lineV === null || behindW === null) return []
  const findings: Finding[] = []
  const meantW = tapDrawW(through, lineV)
  if (!isSameVoltage(ratedV, lineV)) findings.push(found(line, { code: 'scale-mismatch', grade: meantW > tapW ? 'stop' : 'tight', facts: { label, tapW, ratedV, lineV, takesW: meantW } }, nodeId))
  if (Math.abs(behindW / meantW - 1) > LIKE_TAP) {
    findings.push(found(line, { code: 'transformer-load', grade: behindW > meantW ? 'stop' : 'tight', facts: { label, secondaryOhm, takesW: behindW, tapW: meantW } }, nodeId))
  }
  if (ratingW !== null && exceeds(behindW, ratingW)) findings.push(found(line, { code: 'transformer-over', grade: 'stop', facts: { label, ratingW, takesW: behindW } }, nodeId))
  return findings
}
