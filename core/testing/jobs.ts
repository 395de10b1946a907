import { toOutput } from '#core/quick/toJob'
import { parseQuick } from '#core/quick/parse'
import { emptyJob } from '#core/job/document'
import type { Job, Output } from '#core/job/schema'
import { UNSTATED_AMPLIFIER } from '#core/job/sections/wiring/schema'
import { branchesOf, withBranch } from '#core/job/tree'
import type { Lead } from '#core/network/cable'

/** Jobs for tests and benchmarks, from typed lines. */

export function counter(prefix: string): () => string {
  let count = 0
  return () => `${prefix}${++count}`
}

/** One amplifier with an output a line; labels A1, A2…; ids a…, so that a test can name them. */
export function jobOf(...lines: string[]): Job {
  const outputs = lines.map((text, k): Output => ({ ...toOutput(parseQuick(text), counter(`o${k + 1}n`)), id: `out${k + 1}`, label: `A${k + 1}` }))
  return { ...emptyJob('test'), amplifiers: [{ id: 'amp', name: 'Amplifier A', place: 'rack', ...UNSTATED_AMPLIFIER, outputs }] }
}

export function outputOf(job: Job, k = 0): Output {
  return job.amplifiers[0]!.outputs[k]!
}

/** The job with every lead of the rails (not inside series or stars) of one kind. */
export function cabled(job: Job, lead: Lead): Job {
  return job.amplifiers[0]!.outputs.flatMap(o => o.wiring.children).reduce((j, child) => withBranch(j, child.node.id, b => ({ ...b, lead })), job)
}

export function nodeIds(output: Output): string[] {
  return branchesOf(output.wiring).map(b => b.node.id)
}
