import { applyEdit } from '#core/job/apply'
import { partsOf, together, type Edit } from '#core/job/edits'
import { retap } from '#core/hands/intents'
import { setThrough } from '#core/hands/throughs'
import type { LineEvaluation } from '#core/line/evaluate'
import { lineAfter, type Remedy, type RemedyMaker } from './remedy'

/** Ratings of wall controls on the shelf, W. Common practice, no source. */
const USUAL_RATINGS_W = [10, 20, 35, 50, 70, 100, 150, 200, 300]
const MOST_STEPS = 4

/** Too much behind a control: all taps behind it down together until it carries them, or a larger control. */
export const behindControl: RemedyMaker = ({ job, line, finding }) => {
  const group = line.throughs.find(t => t.nodeId === finding.nodeId)
  if (finding.code !== 'control-over' || group?.through.kind !== 'control') return []
  const { nodeId, through, speakers } = group
  const remedies: Remedy[] = []
  const isCured = (after: LineEvaluation) => !after.findings.some(f => f.code === 'control-over' && f.nodeId === nodeId)
  const behind = (after: LineEvaluation) => after.throughs.find(t => t.nodeId === nodeId)?.behindW ?? 0

  const live = speakers.filter(s => s.load.kind === 'tap' && s.load.tapW > 0)
  let current = job
  const down: Edit[] = []
  for (let step = 0; step < MOST_STEPS; step++) {
    const edits = live.map(s => retap(current, s.id, -1))
    if (live.length === 0 || edits.some(e => e === null)) break
    const edit = together(edits.flatMap(e => partsOf(e!)))!
    down.push(edit)
    current = applyEdit(current, edit).job
    const whole = together(down.flatMap(e => partsOf(e)))!
    const after = lineAfter(job, line.outputId, whole)
    if (!isCured(after)) continue
    remedies.push({ code: 'behind-down', edit: whole, facts: { code: 'behind-down', labels: live.map(s => s.label), behindW: behind(after), ratingW: through.ratingW! } })
    break
  }
  // One that carries it at its ease, else the largest that just carries it.
  const larger = USUAL_RATINGS_W.flatMap((ratingW) => {
    const edit = ratingW > through.ratingW! ? setThrough(job, nodeId, { ratingW, name: '', from: null }) : null
    const after = edit && lineAfter(job, line.outputId, edit)
    return edit && after && isCured(after) ? [{ ratingW, edit, isTight: after.findings.some(f => f.code === 'control-tight' && f.nodeId === nodeId) }] : []
  })
  const chosen = larger.find(l => !l.isTight) ?? larger.at(-1)
  if (chosen) {
    const facts = { code: 'larger-control' as const, label: through.label, ratingW: chosen.ratingW }
    remedies.push({ code: 'larger-control', edit: chosen.edit, facts })
  }
  return remedies
}
