import { together, type SimpleEdit } from '#core/job/edits'
import { addOutput } from '#core/hands/intents'
import { speakersOf, outputOf } from '#core/job/tree'
import { aroundOf } from '#core/line/surroundings'
import { evaluateOutput, type LineEvaluation } from '#core/line/evaluate'
import type { RemedyMaker } from './remedy'

const OVER: readonly string[] = ['reserve-short', 'taps-over-amplifier', 'load-under-floor']

/** An output more, rated like this one, takes the far part of the line: cut where both are right and most alike. */
export const splitHere: RemedyMaker = ({ job, line, finding, newId }) => {
  if (!OVER.includes(finding.code)) return []
  const { children } = line.output.wiring
  const added = addOutput(job, outputOf(job, line.outputId).amplifier.id, newId)
  if (!added || added.edit.kind !== 'output.add' || children.length < 2) return []
  const output = { ...added.edit.output, rating: line.output.rating }
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
  const edit = best && together([{ ...added.edit, output }, ...best.moves])
  if (!best || !edit) return []
  const labels = best.moved.flatMap(branch => speakersOf(branch.node).map(s => s.label))
  return [{
    code: 'split-here', edit,
    facts: { code: 'split-here', labels, to: output.label, hereW: best.here.drawW, thereW: best.there.drawW, hereOhm: best.here.loadOhm, thereOhm: best.there.loadOhm },
  }]
}
