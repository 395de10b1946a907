import { applyEdit } from '#core/job/apply'
import { partsOf, together, type SimpleEdit } from '#core/job/edits'
import { ungroup } from '#core/hands/intents'
import { branchesOf, speakersOf, outputOf } from '#core/job/tree'
import { cures, lineAfter, type RemedyMaker } from './remedy'

/** Transformers that stand in series on a line, each across it again. */
export const acrossTheLine: RemedyMaker = ({ job, line, finding }) => {
  if (finding.code !== 'draw-is-not-taps') return []
  const seriesIn = (on: typeof job) => branchesOf(outputOf(on, line.outputId).output.wiring)
    .find(({ node }) => node.kind === 'series' && !node.through && speakersOf(node).some(s => s.load.kind === 'tap'))?.node
  let after = job
  const edits: SimpleEdit[] = []
  const labels: string[] = []
  for (let group = seriesIn(after); group; group = seriesIn(after)) {
    const edit = ungroup(after, group.id)!
    labels.push(...speakersOf(group).map(s => s.label).filter(label => !labels.includes(label)))
    edits.push(...partsOf(edit))
    after = applyEdit(after, edit).job
  }
  const edit = together(edits)
  const result = edit && lineAfter(job, line.outputId, edit)
  return edit && result && cures(result, finding) ? [{ code: 'across-the-line', edit, facts: { code: 'across-the-line', labels, drawW: result.drawW ?? 0 } }] : []
}
