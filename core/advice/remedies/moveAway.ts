import { applyEdit } from '#core/job/apply'
import { together, type SimpleEdit } from '#core/job/edits'
import { moveToOutput } from '#core/hands/intents'
import { outputsOf, outputOf } from '#core/job/tree'
import { isRated, lineVoltsOf } from '#core/amplifier/index'
import { aroundOf } from '#core/line/surroundings'
import { allowedTapsW, spareW } from '#core/line/allowance'
import { evaluateOutput } from '#core/line/evaluate'
import { cures, type RemedyMaker } from './remedy'

/** No more than this many speakers are carried over to another line: beyond it the line wants another amplifier. */
const MOST_MOVED = 6

/** Moves the fewest speakers from the far end to the line of the same voltage with most to spare, if both are then right. */
export const moveAway: RemedyMaker = ({ job, line, finding }) => {
  if (finding.code !== 'reserve-short' && finding.code !== 'taps-over-amplifier') return []
  const others = outputsOf(job).filter(o => o.id !== line.outputId && line.lineV !== null && lineVoltsOf(o.rating) === line.lineV && isRated(o.rating))
    .map(output => ({ output, spareW: spareW(evaluateOutput(output, aroundOf(job, output.id)))! }))
    .filter(o => o.spareW > 0)
    .sort((a, b) => b.spareW - a.spareW)
  const target = others[0]?.output
  if (!target) return []

  let after = job
  const edits: SimpleEdit[] = []
  const labels: string[] = []
  for (const speaker of [...line.speakers].reverse().slice(0, MOST_MOVED)) {
    const edit = moveToOutput(after, speaker.id, target.id)
    if (!edit) return []
    edits.push(...(edit.kind === 'batch' ? edit.edits : [edit]))
    labels.unshift(speaker.label)
    after = applyEdit(after, edit).job
    const here = evaluateOutput(outputOf(after, line.outputId).output, aroundOf(after, line.outputId))
    const there = evaluateOutput(outputOf(after, target.id).output, aroundOf(after, target.id))
    if (there.findings.some(f => f.code === 'reserve-short' || f.code === 'taps-over-amplifier')) return []
    if (!cures(here, finding) || here.findings.some(f => f.code === 'reserve-short')) continue
    return [{
      code: 'move-away', edit: together(edits)!,
      facts: { code: 'move-away', labels, to: target.label, hereW: here.drawW ?? 0, thereW: there.drawW ?? 0, thereAllowedW: allowedTapsW(there, job.practice) ?? 0 },
    }]
  }
  return []
}
