import { predictLine, type Predicted } from '#core/check/predict'
import type { Grade } from '#core/check/verdict'
import type { Job, Output, Practice } from '#core/job/schema'
import { outputsOf } from '#core/job/tree'
import { solveOutput, type LineFacts } from './facts'
import { worstGrade, type Finding } from './finding'
import { requirementsOf, type Requirement } from './requirements'
import { RULES } from './rules'

/** All that is known of a line without a reading. */
export interface LineEvaluation extends LineFacts {
  outputId: string
  findings: Finding[]
  grade: Grade
  /** What every school asks of the amplifier. */
  required: Requirement[]
  predicted: Predicted[]
}

const ORDER: Record<Grade, number> = { stop: 0, tight: 1, good: 2, unknown: 3 }

/** Evaluates one line: a pure function of its wiring, its rating and the practice. */
export function evaluateOutput(output: Output, practice: Practice): LineEvaluation {
  const line = solveOutput(output)
  const findings = RULES.flatMap(rule => rule(line, practice)).sort((a, b) => ORDER[a.grade] - ORDER[b.grade])
  return {
    ...line,
    outputId: output.id,
    findings,
    grade: worstGrade(findings.map(f => f.grade)),
    required: requirementsOf(line, practice),
    predicted: predictLine(output),
  }
}

/**
 * Evaluates jobs, remembering each line by the identity of its output: after one edit only the line it touched is
 * solved again. (A worker per line was weighed and lost: copying a job of 1,000 speakers to it took longer than solving
 * one line here, and its answer came a frame late. See docs/benchmarks.md.)
 */
export function makeEvaluator(): (job: Job) => LineEvaluation[] {
  let remembered = new WeakMap<Output, LineEvaluation>()
  let practice = ''
  return (job) => {
    const now = `${job.practice.reserve} ${job.practice.power}`
    if (now !== practice) {
      remembered = new WeakMap()
      practice = now
    }
    return outputsOf(job).map((output) => {
      let evaluation = remembered.get(output)
      if (!evaluation) {
        evaluation = evaluateOutput(output, job.practice)
        remembered.set(output, evaluation)
      }
      return evaluation
    })
  }
}

/** Evaluates a whole job afresh. */
export function evaluateJob(job: Job): LineEvaluation[] {
  return makeEvaluator()(job)
}
