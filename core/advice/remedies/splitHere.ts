import { together, type SimpleEdit } from '#core/job/edits'
import { addOutput, isInUse, type NewId } from '#core/hands/intents'
import type { Job, Output } from '#core/job/schema'
import { same } from '#core/quantity/same'
import { speakersOf, outputOf } from '#core/job/tree'
import { aroundOf } from '#core/line/surroundings'
import { evaluateOutput, type LineEvaluation } from '#core/line/evaluate'
import type { RemedyMaker } from './remedy'

const OVER: readonly string[] = ['reserve-short', 'taps-over-amplifier', 'load-under-floor']

/** Where the far part goes: an output of the same amplifier on which nothing hangs and nothing was read, rated alike; else one more. */
function roomFor(job: Job, { id, rating }: Output, newId: NewId): { output: Output, edits: SimpleEdit[] } | null {
  const { amplifier } = outputOf(job, id)
  const empty = amplifier.outputs.find(o => o.id !== id && !isInUse(job, o) && same(o.rating, rating))
  if (empty) return { output: empty, edits: [] }
  const added = addOutput(job, amplifier.id, newId)
  if (added?.edit.kind !== 'output.add') return null
  const output = { ...added.edit.output, rating }
  return { output, edits: [{ ...added.edit, output }] }
}

/** A second output, rated like this one, takes the far part of the line: cut where both are right and most alike. */
export const splitHere: RemedyMaker = ({ job, line, finding, newId }) => {
  if (!OVER.includes(finding.code)) return []
  const { children } = line.output.wiring
  const to = roomFor(job, line.output, newId)
  if (!to || children.length < 2) return []
  const { output } = to
  const isRight = ({ findings }: LineEvaluation) => !findings.some(f => OVER.includes(f.code) || f.grade === 'stop')
  const around = aroundOf(job, line.outputId)
  const weight = ({ drawW, loadOhm }: LineEvaluation) => drawW ?? (loadOhm === null ? 0 : 1 / loadOhm)

  const cuts = children.slice(1).flatMap((_, k) => {
    const moved = children.slice(k + 1)
    const moves = moved.map((branch, index): SimpleEdit => ({ kind: 'node.move', nodeId: branch.node.id, parentId: output.wiring.id, index }))
    const here = evaluateOutput({ ...line.output, wiring: { ...line.output.wiring, children: children.slice(0, k + 1) } }, around)
    const there = evaluateOutput({ ...output, wiring: { ...output.wiring, children: moved } }, around)
    return isRight(here) && isRight(there) ? [{ moves, moved, here, there, apart: Math.abs(weight(here) - weight(there)) }] : []
  }).sort((a, b) => a.apart - b.apart)
  const [best] = cuts
  const edit = best && together([...to.edits, ...best.moves])
  if (!best || !edit) return []
  const labels = best.moved.flatMap(branch => speakersOf(branch.node).map(s => s.label))
  return [{
    code: 'split-here', edit,
    facts: { code: 'split-here', labels, to: output.label, hereW: best.here.drawW, thereW: best.there.drawW, hereOhm: best.here.loadOhm, thereOhm: best.there.loadOhm },
  }]
}
