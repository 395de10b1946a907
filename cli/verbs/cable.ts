import { outputsOf } from '#core/job/tree'
import { cableReport, cableReportSchema, cableSearch } from '#core/search/cableSearch'
import { AWG_RANGE, USUAL_AWG } from '#core/quantity/cable'
import { InputError } from '#core/quantity/inputError'
import { defineVerb } from '../verb'

export const cable = defineVerb({
  does: 'the thinnest cable for a line of a saved job, of one size and of sizes that fall along the run',
  words: ['FILE.plainmatch.json'],
  flags: { 'line': 'A2', 'limit-db': '0.5', 'sizes': '[12,14,16,18]' },
  example: 'cable garden.plainmatch.json --line A2 --limit-db 0.5',
  answer: cableReportSchema,
  run: ({ words: [path], flag, number }, { readJob }) => {
    const limitDb = number('limit-db', { least: 0.01, most: 20 })
    const awgs = (flag('sizes') ?? USUAL_AWG.join(',')).split(',').map(Number)
    if (awgs.some(awg => !(Number.isInteger(awg) && awg >= AWG_RANGE.thickest && awg <= AWG_RANGE.thinnest))) {
      throw new InputError(`Sizes are gauges from ${AWG_RANGE.thickest} to ${AWG_RANGE.thinnest}.`, 0, ['12,14,16,18'])
    }
    const outputs = outputsOf(readJob(path!))
    const output = outputs.find(o => o.label === flag('line'))
    if (!output) throw new InputError(`There is no line “${flag('line') ?? ''}” in it.`, 0, outputs.map(o => o.label))
    const found = cableSearch(output, limitDb, awgs.map(awg => ({ awg })))
    if (!found) throw new InputError(`The run of ${output.label} has no length that is stated.`, 0, [])
    return cableReport(found)
  },
})
