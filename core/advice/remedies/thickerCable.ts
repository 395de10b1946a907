import { setLineCable } from '#core/hands/intents'
import { branchesOf } from '#core/job/tree'
import { CLASS5_OHM_PER_KM, USUAL_AWG, writeCable, type Cable } from '#core/quantity/cable'
import { conductorOhmPerM } from '#core/network/cable'
import { cures, lineAfter, type RemedyMaker } from './remedy'

/** The thinnest usual cable, in the system the line is drawn in, that brings the far end within the aim. */
export const thickerCable: RemedyMaker = ({ job, line, finding }) => {
  if (finding.code !== 'far-end-loss') return []
  const used = branchesOf(line.output.wiring).flatMap(b => b.lead?.cable ? [b.lead.cable] : [])
  if (used.length === 0) return []
  const thickestNow = Math.min(...used.map(conductorOhmPerM))
  const sizes: Cable[] = 'awg' in used[0]! ? USUAL_AWG.map(awg => ({ awg })) : [...CLASS5_OHM_PER_KM.keys()].map(areaMm2 => ({ areaMm2 }))
  for (const cable of sizes) {
    if (conductorOhmPerM(cable) >= thickestNow) continue
    const edit = setLineCable(job, line.outputId, cable)
    if (!edit) continue
    const after = lineAfter(job, line.outputId, edit)
    if (after.findings.some(f => f.code === 'far-end-loss') || !cures(after, finding)) continue
    return [{ code: 'thicker-cable', edit, facts: { code: 'thicker-cable', cable: writeCable(cable), lossDb: after.farthest?.lossDb ?? 0 } }]
  }
  return []
}
