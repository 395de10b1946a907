import type { Job, Output } from '#core/job/schema'
import { outputsOf } from '#core/job/tree'
import type { ExerciseFile } from '#core/practice/files'

/** "Hide a fault in my line": a copy of it, with any one fault that it can have. */
export const ownExercise = (jobName: string, output: Output, seed: number): ExerciseFile => ({
  format: 'plain-match-exercise', version: 1, name: `${jobName}, ${output.label}`.slice(0, 120), before: 'Your own line, as it is drawn. What hangs there is not quite that.',
  after: 'On the day that it happens, you have been here before.', line: output, hidden: null, faults: 1, kinds: null, without: [], counts: 'minutes', seed,
})

/** Where a copy of a line is practised on: the one that is chosen, else the first that has a speaker; of a job without one the exercises. */
export function practiceAddress(jobId: string, job: Job | null, outputId: string | null): { path: string, query: Record<string, string> } {
  const lines = job ? outputsOf(job).filter(o => o.wiring.children.length > 0) : []
  const line = lines.find(o => o.id === outputId) ?? lines[0]
  return line ? { path: '/practice/own', query: { job: jobId, line: line.id } } : { path: '/practice', query: {} }
}
