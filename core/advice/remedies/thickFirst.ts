import { applyEdit } from '#core/job/apply'
import { together, type SimpleEdit } from '#core/job/edits'
import type { Branch, Job } from '#core/job/schema'
import { findPlace, outputOf } from '#core/job/tree'
import { conductorOhmPerM } from '#core/network/cable'
import { writeCable, type Cable } from '#core/quantity/cable'
import { growthOf } from '#core/line/rules/cableGrows'
import { cures, lineAfter, type RemedyMaker } from './remedy'

/** The thick cable of a run from the amplifier on: every thinner lead on the way to it takes its size. */
export const thickFirst: RemedyMaker = ({ job, line, finding }) => {
  if (finding.code !== 'cable-grows') return []
  let current = job
  const edits: SimpleEdit[] = []
  let thick = ''
  for (let growth = growthOf(line.output.wiring); growth; growth = growthOf(outputOf(current, line.outputId).output.wiring)) {
    const now = growth
    const isThinner = (cable: Cable | null | undefined) => cable != null && conductorOhmPerM(cable) > conductorOhmPerM(now.thick)
    const thinner = wayTo(current, now.nodeId).flatMap(({ lead, node }): SimpleEdit[] => lead && isThinner(lead.cable)
      ? [{ kind: 'lead.set', nodeId: node.id, was: lead, to: { ...lead, cable: now.thick } }]
      : [])
    const edit = together(thinner)
    if (!edit) return []
    thick = writeCable(now.thick)
    edits.push(...thinner)
    current = applyEdit(current, edit).job
  }
  const edit = together(edits)
  const after = edit && lineAfter(job, line.outputId, edit)
  return edit && after && cures(after, finding) ? [{ code: 'thick-first', edit, facts: { code: 'thick-first', thick, lossDb: after.farthest?.lossDb ?? 0 } }] : []
}

/** The leads that the current of a place comes through: those before it on its chain, and the way to that chain. */
function wayTo(job: Job, nodeId: string): Branch[] {
  const place = findPlace(job, nodeId)
  if (!place) return []
  const { parent, index, branch } = place
  return [...wayTo(job, parent.id), ...(parent.kind === 'chain' ? parent.children.slice(0, index) : []), branch]
}
