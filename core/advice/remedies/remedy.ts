import type { NewId } from '#core/hands/intents'
import type { Edit } from '#core/job/edits'
import type { Job } from '#core/job/schema'
import { applyEdit } from '#core/job/apply'
import { outputOf } from '#core/job/tree'
import { aroundOf } from '#core/line/surroundings'
import { evaluateOutput, type LineEvaluation } from '#core/line/evaluate'
import type { Finding } from '#core/line/finding'
import type { Brought } from './brought'

/** Something the program can do about a finding: one edit, undoable, with what the lines would be after it. */
export interface Remedy {
  code: RemedyFacts['code']
  facts: RemedyFacts
  edit: Edit
}
/** With what is tight after it and was not before: it is said beside it. What would bring a stop is not offered. */
export interface OfferedRemedy extends Remedy { brings: Brought[] }

/** What a remedy does, as data for its sentence. */
export type RemedyFacts
  /** `tapW` null: each to its own next one. `isAll`: every speaker of the line; `isAlone`: one of several alike. */
  = | { code: 'tap-down', labels: string[], name: string, tapW: number | null, drawW: number, isAll: boolean, isAlone: boolean }
    | { code: 'split-here', labels: string[], to: string, hereW: number | null, thereW: number | null, hereOhm: number | null, thereOhm: number | null }
    | { code: 'move-away', labels: string[], to: string, hereW: number, thereW: number, thereAllowedW: number }
    | { code: 'thicker-cable', cable: string, lossDb: number }
    | { code: 'pair-in-series', loadOhm: number }
    | { code: 'across-the-line', labels: string[], drawW: number }
    | { code: 'behind-down', labels: string[], behindW: number, ratingW: number }
    | { code: 'larger-control', label: string, ratingW: number }
    | { code: 'onto-tap', labels: string[], tapW: number, drawW: number }
    | { code: 'high-pass', amplifier: string, hz: number }
    | { code: 'valve-tap', tapOhm: number, loadOhm: number }
    | { code: 'thick-first', thick: string, lossDb: number }
    | { code: 'with-can', labels: string[], kind: string }
    | { code: 'number-anew', renumbered: { from: string, to: string }[] }
    | { code: 'right-scale', labels: string[], tapW: number, ratedV: number, takesW: number }

export interface RemedyQuestion {
  job: Job
  line: LineEvaluation
  finding: Finding
  newId: NewId
}

/** A way out of some findings; answers with none where it does not fit. */
export type RemedyMaker = (question: RemedyQuestion) => Remedy[]

/** The line as it would be after an edit. */
export function lineAfter(job: Job, outputId: string, edit: Edit): LineEvaluation {
  const after = applyEdit(job, edit).job
  return evaluateOutput(outputOf(after, outputId).output, aroundOf(after, outputId))
}

/** Is it better after: no longer the same finding at the same place. */
export function cures(line: LineEvaluation, finding: Finding): boolean {
  return !line.findings.some(f => f.code === finding.code && f.nodeId === finding.nodeId)
}
