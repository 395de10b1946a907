import { readGear, guessMapping, readTable } from '#core/gear/csv'
import type { Job } from '#core/job/schema'
import { findAmplifiers } from '#core/match/plan/amplifierFinder'
import { amplifiersReport } from '#core/match/plan/amplifiersReport'
import { flagsOf, numberOf } from './flags'
import { loadSolver } from './solver'

export const AMPLIFIERS_TAKES = 'FILE.plainmatch.json GEAR.csv [--growth 0.1]'

/** Which amplifiers of a table feed all lines of a saved job. Rows of the table that cannot be read are told beside the answer. */
export async function amplifiersVerb(readJob: (path: string) => Job, readText: (path: string) => string, ...words: string[]): Promise<unknown> {
  const { words: [path, gear], flag } = flagsOf(words, AMPLIFIERS_TAKES, { plain: 2, known: ['growth'] })
  const growth = numberOf(flag('growth'), 'growth', { least: 0, most: 5, otherwise: 0 })
  const job = readJob(path!)
  const table = readTable(readText(gear!))
  const { good, bad } = readGear('amplifier', table, guessMapping('amplifier', table.heads))
  for (const { row, message } of bad) process.stderr.write(`row ${row}: ${message}\n`)
  return amplifiersReport(await findAmplifiers(job, good.map(g => g.model), await loadSolver(), { growth }))
}
