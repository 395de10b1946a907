import { together, type SimpleEdit } from '#core/job/edits'
import { setTap } from '#core/job/intents'
import { findSpeaker } from '#core/job/tree'
import { tapDrawW } from '../facts'
import type { RemedyMaker } from './remedy'

/** The winding that takes, on this line's voltage, what was meant: the largest draw not above the printed watts; for all that stand alike. */
export const rightScale: RemedyMaker = ({ job, line, finding }) => {
  if (finding.code !== 'scale-mismatch' || finding.nodeId === null || line.lineV === null) return []
  const { lineV } = line
  const speaker = findSpeaker(job, finding.nodeId)?.speaker
  if (speaker?.load.kind !== 'tap') return []
  const { load } = speaker
  const tapW = load.tapsW.filter(w => tapDrawW({ tapW: w, ratedV: load.ratedV }, lineV) <= load.tapW * 1.05).sort((a, b) => b - a)[0]
  if (tapW === undefined) return []
  // All that stand alike: one set right among equals would be the odd one.
  const alike = line.speakers.filter(s => JSON.stringify(s.load) === JSON.stringify(load))
  const edit = together(alike.flatMap(s => setTap(s, tapW) as SimpleEdit | null ?? []))
  if (!edit) return []
  const takesW = tapDrawW({ tapW, ratedV: load.ratedV }, lineV)
  return [{ code: 'right-scale', edit, facts: { code: 'right-scale', labels: alike.map(s => s.label), tapW, takesW } }]
}
