import { applyEdit } from '#core/job/apply'
import { together, type SimpleEdit } from '#core/job/edits'
import { joinWithNext } from '#core/hands/intents'
import { findOutput } from '#core/job/tree'
import { cures, lineAfter, type RemedyMaker } from './remedy'

/** Neighbours in series, two and two: a quarter of the current, the same for all. Only for an even number of plain equal speakers. */
export const pairInSeries: RemedyMaker = ({ job, line, finding, newId }) => {
  if (finding.code !== 'load-under-floor') return []
  const { children } = line.output.wiring
  const ohms = line.drops.map(d => d.ohm)
  if (children.length < 2 || children.length % 2 === 1 || children.some(c => c.node.kind !== 'speaker') || ohms.some(o => o !== ohms[0])) return []
  let after = job
  const edits: SimpleEdit[] = []
  for (let k = 0; k < children.length; k += 2) {
    const edit = joinWithNext(after, children[k]!.node.id, 'series', newId)
    if (!edit) return []
    edits.push(...(edit.kind === 'batch' ? edit.edits : [edit]))
    after = applyEdit(after, edit).job
  }
  if (!findOutput(after, line.outputId)) return []
  const edit = together(edits)!
  const result = lineAfter(job, line.outputId, edit)
  return cures(result, finding) && result.loadOhm !== null
    ? [{ code: 'pair-in-series', edit, facts: { code: 'pair-in-series', loadOhm: result.loadOhm } }]
    : []
}
