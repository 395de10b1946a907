import { walkReport, walkReportSchema } from '#core/check/walkReport'
import { tidy } from '#core/line/report'
import { InputError } from '#core/quantity/inputError'
import { defineVerb } from '../verb'

export const walk = defineVerb({
  does: 'every reading that a saved job asks for, in the phases of the work, each with what is right and what the amplifier must be',
  words: ['FILE.plainmatch.json'],
  flags: { by: '[line]' },
  example: 'walk boat.plainmatch.json --by room',
  answer: walkReportSchema,
  run: ({ words: [path], flag }, { readJob }) => {
    const by = flag('by') ?? 'line'
    if (by !== 'line' && by !== 'room') throw new InputError(`“${by}” is no order of a walk.`, 0, ['--by line', '--by room'])
    return tidy(walkReport(readJob(path!), by))
  },
})
