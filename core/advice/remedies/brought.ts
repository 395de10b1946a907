import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Job, Output } from '#core/job/schema'
import { outputsOf } from '#core/job/tree'
import { evaluateOutput } from '#core/line/evaluate'
import type { Finding } from '#core/line/finding'
import { aroundOf } from '#core/line/surroundings'

/** A finding that an edit brings, and the line that it is about. */
export interface Brought { label: string, finding: Finding }

const isBad = ({ grade }: Finding) => grade === 'stop' || grade === 'tight'
const keyOf = (output: Output, { code, nodeId }: Finding) => `${output.id} ${code} ${nodeId ?? ''}`

/** What is wrong after an edit on the lines that it touches, and was not before. */
export function broughtBy(job: Job, edit: Edit): Brought[] {
  const after = applyEdit(job, edit).job
  const was = new Set(outputsOf(job))
  const touched = outputsOf(after).filter(output => !was.has(output))
  const before = outputsOf(job).filter(output => touched.some(t => t.id === output.id))
  const badOf = (of: Job, output: Output) => evaluateOutput(output, aroundOf(of, output.id)).findings.filter(isBad)
  const known = new Set(before.flatMap(output => badOf(job, output).map(f => keyOf(output, f))))
  return touched.flatMap(output => badOf(after, output).filter(f => !known.has(keyOf(output, f))).map(finding => ({ label: output.label, finding })))
}
