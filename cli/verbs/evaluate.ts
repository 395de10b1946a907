import { reportOf, reportSchema } from '#core/line/report'
import { defineVerb } from '../verb'

export const evaluate = defineVerb({
  does: 'every line of a saved job: its load, findings, what each reading should be',
  words: ['FILE.plainmatch.json'],
  flags: {},
  example: 'evaluate garden.plainmatch.json',
  answer: reportSchema,
  run: ({ words: [path] }, { readJob }) => reportOf(readJob(path!)),
})
