import { readGear, guessMapping, readTable } from '#core/gear/csv'
import { findAmplifiers } from '#core/search/plan/amplifierFinder'
import { amplifiersReport, amplifiersReportSchema } from '#core/search/plan/amplifiersReport'
import { loadSolver } from '../solver'
import { defineVerb } from '../verb'

export const amplifiers = defineVerb({
  does: 'which amplifiers of a table feed all lines of a saved job; rows of the table that cannot be read are told beside the answer',
  words: ['FILE.plainmatch.json', 'GEAR.csv'],
  flags: { growth: '[0.1]', microphones: '[1]', players: '[1]', lines: '[0]', zones: '[2]' },
  example: 'amplifiers garden.plainmatch.json amplifiers.csv',
  answer: amplifiersReportSchema,
  run: async ({ words: [path, gear], number }, { readJob, readText, remark }) => {
    const growth = number('growth', { least: 0, most: 5, otherwise: 0 })
    const count = (name: string) => number(name, { least: 0, most: 200, otherwise: 0 })
    const wanted = { inputs: { microphone: count('microphones'), media: count('players'), line: count('lines') }, zones: count('zones') }
    const job = readJob(path!)
    const table = readTable(readText(gear!))
    const { good, bad } = readGear('amplifier', table, guessMapping('amplifier', table.heads))
    for (const { row, message } of bad) remark(`row ${row}: ${message}`)
    return amplifiersReport(await findAmplifiers(job, good.map(g => g.model), await loadSolver(), { growth, wanted }))
  },
})
