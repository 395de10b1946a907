import { polarityOf } from '#core/polarity/report'
import { polarityReport, polarityReportSchema } from '#core/polarity/said'
import { defineVerb } from '../verb'

export const polarity = defineVerb({
  does: 'which way round each speaker of a saved job is, as it is drawn and as it was read, and the fewest swaps that make those agree that are heard together, and that make all right',
  words: ['FILE.plainmatch.json'],
  flags: {},
  example: 'polarity boat.plainmatch.json',
  answer: polarityReportSchema,
  run: ({ words: [path] }, { readJob }) => {
    const job = readJob(path!)
    return polarityReport(job, polarityOf(job))
  },
})
