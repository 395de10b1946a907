import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Job, Output } from '#core/job/schema'
import { outputsOf } from '#core/job/tree'
import { evaluateOutput, type LineEvaluation } from '#core/line/evaluate'
import { newlyBad, type Finding } from '#core/line/finding'
import { aroundOf } from '#core/line/surroundings'

/** A finding that an edit brings, and the line that it is about. */
export interface Brought { label: string, finding: Finding }

/** What is wrong after an edit on the lines that it touches, and was not before; `line`: one of them that is evaluated already. */
export function broughtBy(job: Job, edit: Edit, line?: LineEvaluation): Brought[] {
  const after = applyEdit(job, edit).job
  const was = new Map(outputsOf(job).map(output => [output.id, output]))
  const findingsOf = (of: Job, output: Output) => evaluateOutput(output, aroundOf(of, output.id)).findings
  return outputsOf(after).filter(output => was.get(output.id) !== output).flatMap((output) => {
    const before = was.get(output.id)
    const had = before === undefined ? [] : before === line?.output ? line.findings : findingsOf(job, before)
    return newlyBad(had, findingsOf(after, output)).map(finding => ({ label: output.label, finding }))
  })
}
