import { likenessOf } from '#core/quantity/same'
import { predictLine, type Predicted } from '#core/check/predict'
import type { Grade } from '#core/check/verdict'
import type { Job, Kind, Output, Practice } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { arrivalsAt } from './sources'
import { aroundOf, fedAt, sharedOf, type Around } from './surroundings'
import { solveOutput, type LineFacts } from './facts'
import { gradeOfFindings, type Finding } from './finding'
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

/** Evaluates one line: a pure function of its wiring, its rating and what is around it. */
export function evaluateOutput(output: Output, around: Around): LineEvaluation {
  const line = solveOutput(output)
  const findings = RULES.flatMap(rule => rule(line, around)).sort((a, b) => ORDER[a.grade] - ORDER[b.grade])
  return {
    ...line,
    outputId: output.id,
    findings,
    grade: gradeOfFindings(findings),
    required: requirementsOf(line, around.practice),
    predicted: predictLine(output),
  }
}

/** Lines of a job as far as they are evaluated, in its order; those not reached yet are missing, or as they were before. */
export interface Evaluated { lines: LineEvaluation[], isWhole: boolean }

/** How much to evaluate in one go, and what before all else. */
export interface Stint { budgetMs: number, first: string | null }
const ALL: Stint = { budgetMs: Infinity, first: null }

/**
 * Evaluates jobs, remembering each line by the identity of its output: after one edit only the line it touched is
 * solved again. What takes longer than the budget is left for the next call, so that a large job can be shown while it is
 * being worked out; at least one line is evaluated a call. (A worker per line was weighed and lost: copying a job of 1,000
 * speakers to it took longer than solving one line here, and its answer came a frame late. See docs/benchmarks.md.)
 */
export function makeEvaluator(now: () => number = () => performance.now()): (job: Job, stint?: Stint) => Evaluated {
  let remembered = new WeakMap<Output, LineEvaluation>()
  let practice: Practice | null = null
  let kinds: readonly Kind[] = []
  /** What was around each when it was evaluated. */
  const beside = new WeakMap<Output, string>()
  /** What was last said of each line, until it is said anew. */
  let latest = new Map<string, LineEvaluation>()
  return (job, { budgetMs, first } = ALL) => {
    // By identity: whatever a practice comes to hold, another one is another judgement.
    if (job.practice !== practice) {
      remembered = new WeakMap()
      practice = job.practice
    }
    const changed = job.kinds === kinds ? null : changedKinds(kinds, job.kinds)
    kinds = job.kinds
    const until = now() + budgetMs
    const shared = sharedOf(job)
    // Lines hang on each other where a unit has coils of their own or a system has bands; few jobs have any.
    const [coilsSay, bandsSay] = [shared.coils, shared.bands].map(of => of.length === 0 ? '' : likenessOf(of)) as [string, string]
    const outputs = outputsOf(job)
    for (const { outputs: own, ...amplifier } of job.amplifiers) {
      const amplifierSays = likenessOf([amplifier, fedAt(shared.fed, amplifier), amplifier.inputs.length > 0 ? arrivalsAt(job, amplifier) : null])
      for (const output of own) {
        const isOfChanged = () => changed !== null && speakersOf(output.wiring).some(s => s.kindId !== null && changed.has(s.kindId))
        const says = `${amplifierSays}${coilsSay !== '' && speakersOf(output.wiring).some(s => s.load.kind === 'coil') ? coilsSay : ''}${output.band ? bandsSay : ''}`
        const isOtherwise = beside.get(output) !== says || isOfChanged()
        if (remembered.has(output) && isOtherwise) remembered.delete(output)
        beside.set(output, says)
      }
    }
    const due = outputs.filter(output => !remembered.has(output)).sort((a, b) => Number(b.id === first) - Number(a.id === first))
    for (const [k, output] of due.entries()) {
      if (k > 0 && now() >= until) break
      remembered.set(output, evaluateOutput(output, aroundOf(job, output.id, shared)))
    }
    const lines = outputs.flatMap(output => remembered.get(output) ?? latest.get(output.id) ?? [])
    latest = new Map(lines.map(line => [line.outputId, line]))
    return { lines, isWhole: outputs.every(output => remembered.has(output)) }
  }
}

function changedKinds(before: readonly Kind[], after: readonly Kind[]): Set<string> {
  const known = new Map(before.map(kind => [kind.id, kind]))
  const now = new Set(after)
  return new Set([...after.filter(kind => known.get(kind.id) !== kind), ...before.filter(kind => !now.has(kind))].map(kind => kind.id))
}

/** The line to look at first: one that must not be switched on, one that is tight, or simply the first; null where there is none. */
export function worstLine(lines: readonly LineEvaluation[]): LineEvaluation | null {
  return lines.find(l => l.grade === 'stop') ?? lines.find(l => l.grade === 'tight') ?? lines[0] ?? null
}

/** Evaluates a whole job afresh. */
export function evaluateJob(job: Job): LineEvaluation[] {
  return makeEvaluator()(job).lines
}
