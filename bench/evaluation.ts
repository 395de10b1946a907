import { applyEdit } from '#core/job/apply'
import { retap } from '#core/job/intents'
import { evaluateJob, makeEvaluator } from '#core/match/evaluate'
import { proveLine } from '#core/check/proof'
import { Records } from '#core/job/records'
import { outputsOf } from '#core/job/tree'
import { rankSuspects } from '#core/trace/rank'
import { controlledJob, largeJob } from './job'
import { medianMs } from './timing'

export interface EvaluationTimes { wholeMs: number, controlledMs: number, afterEditMs: number, suspectsMs: number }

export function evaluationTimes(): EvaluationTimes {
  const job = largeJob()
  const [speaker] = job.amplifiers[0]!.outputs[7]!.wiring.children
  const evaluate = makeEvaluator()
  evaluate(job)
  let current = job
  const afterEditMs = medianMs(() => {
    current = applyEdit(current, retap(current, speaker!.node.id, 1) ?? retap(current, speaker!.node.id, -1)!).job
    evaluate(current)
  })
  const output = outputsOf(job)[0]!
  const reading = { id: 'r', at: '2026-05-04T09:00:00Z', kind: 'line-impedance' as const, outputId: output.id, nodeId: null, value: { is: 'ohm' as const, ohm: 60 }, note: '', supersedes: null, taken: null, withdrawn: false }
  const proof = proveLine({ ...job, readings: Records.of([reading]) }, output)
  // Turn and turn about, so that both sides meet the same machine.
  const controlled = controlledJob()
  const rounds = Array.from({ length: 5 }, () => [medianMs(() => void evaluateJob(job)), medianMs(() => void evaluateJob(controlled))] as const)
  const middle = (k: 0 | 1) => rounds.map(r => r[k]).sort((a, b) => a - b)[2]!
  return { wholeMs: middle(0), controlledMs: middle(1), afterEditMs, suspectsMs: medianMs(() => void rankSuspects(output, proof)) }
}
