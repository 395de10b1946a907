import { InputError } from '#core/quantity/inputError'
import { evaluateJob } from '#core/line/evaluate'
import { NOT_SPLIT_WORDS, splitLine } from '#core/search/plan/splitLine'
import { splitReport, splitReportSchema } from '#core/search/plan/splitReport'
import { loadSolver } from '../solver'
import { defineVerb } from '../verb'

export const split = defineVerb({
  does: 'which speakers of a line of a saved job go to which of so many outputs',
  words: ['FILE.plainmatch.json'],
  flags: { line: 'A2', into: '[2]' },
  example: 'split garden.plainmatch.json --line A2 --into 2',
  answer: splitReportSchema,
  run: async ({ words: [path], flag, number }, { readJob }) => {
    const into = number('into', { least: 2, most: 8, otherwise: 2 })
    if (!Number.isInteger(into)) throw new InputError('“--into” must be a whole number.', 0, ['--into 2'])
    const job = readJob(path!)
    const lines = evaluateJob(job)
    const line = lines.find(l => l.output.label === flag('line'))
    if (!line) throw new InputError(`There is no line “${flag('line') ?? ''}” in it.`, 0, lines.map(l => l.output.label))
    const found = await splitLine(job, line, into, await loadSolver())
    if (typeof found === 'string') throw new InputError(NOT_SPLIT_WORDS[found], 0, [])
    return splitReport(line.output.label, found)
  },
})
