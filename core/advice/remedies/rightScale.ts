import { same } from '#core/quantity/same'
import { together, type SimpleEdit } from '#core/job/edits'
import { findSpeaker } from '#core/job/tree'
import type { RemedyMaker } from './remedy'

/** The winding that takes, on this line's voltage, what was meant: the largest draw not above the printed watts; for all that stand alike. */
export const rightScale: RemedyMaker = ({ job, line, finding }) => {
  if (finding.code !== 'scale-mismatch' || finding.nodeId === null || line.lineV === null) return []
  const { lineV } = line
  const speaker = findSpeaker(job, finding.nodeId)?.speaker
  if (speaker?.load.kind !== 'tap') return []
  const { load } = speaker
  const tapW = load.tapsW.filter(w => w * (lineV / load.ratedV) ** 2 <= load.tapW * 1.05).sort((a, b) => b - a)[0]
  if (tapW === undefined) return []
  const takesW = onScale(tapW, load.ratedV, lineV)
  // From then on its taps are read on the scale of this line: else it would stand beside its own dial for good.
  const to = { load: { ...load, tapW: takesW, ratedV: lineV, tapsW: load.tapsW.map(w => onScale(w, load.ratedV, lineV)) } }
  // All that stand alike: one set right among equals would be the odd one.
  const alike = line.speakers.filter(s => same(s.load, load))
  const edit = together(alike.map((s): SimpleEdit => ({ kind: 'speaker.set', nodeId: s.id, was: { load: s.load }, to })))
  return edit ? [{ code: 'right-scale', edit, facts: { code: 'right-scale', labels: alike.map(s => s.label), tapW, ratedV: load.ratedV, takesW } }] : []
}

/** Watts of a winding on another scale, as a label would print them. */
function onScale(tapW: number, ratedV: number, lineV: number): number {
  return Number((tapW * (lineV / ratedV) ** 2).toPrecision(3))
}
