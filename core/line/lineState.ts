import { sure } from '#core/quantity/known'
import { askedOf } from '#core/check/asked'
import type { LineProof } from '#core/check/proof'
import { makeProver } from '#core/check/proveJob'
import type { Job } from '#core/job/schema'
import type { LineEvaluation } from './evaluate'
import type { LineState } from './jobState'

/** What a line is in small: for a list of jobs. */
export function lineStateOf(line: LineEvaluation, proof: LineProof): LineState {
  return {
    label: line.output.label, name: line.output.name, kind: line.kind, grade: line.grade, speakers: line.speakers.length,
    proved: proof.proved, total: line.speakers.length === 0 ? 0 : proof.total, wrong: proof.wrong, unproved: proof.unproved.length,
  }
}

export function jobState(job: Job, evaluations: readonly LineEvaluation[]): LineState[] {
  const proofs = makeProver()(job, evaluations, askedOf(job))
  return evaluations.map(line => lineStateOf(line, sure(proofs.get(line.outputId), 'proof of a line')))
}
