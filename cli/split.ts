import { InputError } from '#core/quantity/inputError'
import type { Job } from '#core/job/schema'
import { evaluateJob } from '#core/match/evaluate'
import { NOT_SPLIT_WORDS, splitLine } from '#core/match/plan/splitLine'
import { splitReport } from '#core/match/plan/splitReport'
import { flagsOf, numberOf } from './flags'
import { loadSolver } from './solver'

export const SPLIT_TAKES = 'FILE.plainmatch.json --line A2 --into 2'

/** Which speakers of a line of a saved job go to which of so many outputs. */
export async function splitVerb(read: (path: string) => Job, ...words: string[]): Promise<unknown> {
  const { words: [path], flag } = flagsOf(words, SPLIT_TAKES, { plain: 1, known: ['line', 'into'] })
  const into = numberOf(flag('into'), 'into', { least: 2, most: 8, otherwise: 2 })
  if (!Number.isInteger(into)) throw new InputError('“--into” must be a whole number.', 0, ['--into 2'])
  const job = read(path!)
  const lines = evaluateJob(job)
  const line = lines.find(l => l.output.label === flag('line'))
  if (!line) throw new InputError(`There is no line “${flag('line') ?? ''}” in it.`, 0, lines.map(l => l.output.label))
  const split = await splitLine(job, line, into, await loadSolver())
  if (typeof split === 'string') throw new InputError(NOT_SPLIT_WORDS[split], 0, [])
  return splitReport(line.output.label, split)
}
