import { setTap } from '#core/job/intents'
import { findSpeaker } from '#core/job/tree'
import { tapDrawW } from '../facts'
import type { RemedyMaker } from './remedy'

/** The winding that takes, on this line's voltage, what was meant: the largest draw not above the printed watts. */
export const rightScale: RemedyMaker = ({ job, line, finding }) => {
  if (finding.code !== 'scale-mismatch' || finding.nodeId === null || line.lineV === null) return []
  const { lineV } = line
  const speaker = findSpeaker(job, finding.nodeId)?.speaker
  if (speaker?.load.kind !== 'tap') return []
  const { load } = speaker
  const tapW = load.tapsW.filter(w => tapDrawW({ tapW: w, ratedV: load.ratedV }, lineV) <= load.tapW * 1.05).sort((a, b) => b - a)[0]
  const edit = tapW === undefined ? null : setTap(speaker, tapW)
  if (!edit || tapW === undefined) return []
  const takesW = tapDrawW({ tapW, ratedV: load.ratedV }, lineV)
  return [{ code: 'right-scale', edit, facts: { code: 'right-scale', label: speaker.label, tapW, takesW } }]
}
