import { readFileSync } from 'node:fs'
import { guessMapping, readGear, readTable, type GearCheck } from '#core/gear/csv'
import { GEAR_KINDS } from '#core/gear/models'
import { readCurve } from '#core/format/curve'
import { readJobFile, type ReadFile } from '#core/format/plainMatch'
import { JobError } from '#core/job/jobError'
import type { Job } from '#core/job/schema'
import { outputsOf } from '#core/job/tree'
import { cableReport, cableSearch } from '#core/match/cableSearch'
import { reportOf, tidy } from '#core/match/report'
import { AWG_RANGE, USUAL_AWG } from '#core/quantity/cable'
import { InputError } from '#core/quantity/inputError'
import { quickAnswer } from '#core/quick/answer'
import { AMPLIFIERS_TAKES, amplifiersVerb } from './amplifiers'
import { CLIP_TAKES, clipVerb } from './clip'
import { COVER_TAKES, coverVerb } from './cover'
import { flagsOf, numberOf } from './flags'
import { PLAN_TAKES, planVerb } from './plan'
import { SPLIT_TAKES, splitVerb } from './split'
import { WIRINGS_TAKES, wiringsVerb } from './wirings'

/** The core from a terminal: one verb per engine, one JSON document out. Exit 0, or 2 for input that cannot be used. */

const VERBS: Record<string, { takes: string, run: (...words: string[]) => unknown }> = {
  quick: { takes: 'a typed line, as "12 x 5 W + 2 x 20 W on 70 V 120 W"', run: one('quick', quickAnswer) },
  gear: { takes: 'check FILE.csv --kind speaker', run: checkGear },
  cable: { takes: 'FILE.plainmatch.json --line A2 --limit-db 0.5 [--sizes 12,14,16,18]', run: searchCable },
  plan: { takes: PLAN_TAKES, run: async (...words) => tidy(await planVerb(path => told(readJobFile(readFile(path))), ...words)) },
  split: { takes: SPLIT_TAKES, run: async (...words) => tidy(await splitVerb(path => told(readJobFile(readFile(path))), ...words)) },
  amplifiers: { takes: AMPLIFIERS_TAKES, run: async (...words) => tidy(await amplifiersVerb(path => told(readJobFile(readFile(path))), readFile, ...words)) },
  curve: { takes: 'a file of a measured impedance, as woofer.txt', run: one('curve', path => tidy(readCurve(readFile(path)))) },
  clip: { takes: CLIP_TAKES, run: (...words) => tidy(clipVerb(...words)) },
  wirings: { takes: WIRINGS_TAKES, run: wiringsVerb },
  cover: { takes: COVER_TAKES, run: (...words) => tidy(coverVerb(...words)) },
  evaluate: { takes: 'a file, as job.plainmatch.json', run: one('evaluate', path => reportOf(told(readJobFile(readFile(path))))) },
}

/** A verb of one argument. */
function one(verb: string, run: (argument: string) => unknown) {
  return (...words: string[]): unknown => {
    const { takes } = VERBS[verb]!
    if (words.length !== 1) throw new InputError(`${verb} takes ${takes}: one argument, ${words.length} given. A typed line goes in quotes.`, 0, [takes])
    return run(words[0]!)
  }
}

/** What of a table of gear can be taken, and what is wrong with the rest. */
function checkGear(...words: string[]): unknown {
  const [deed, path, flag, kind] = words
  if (deed !== 'check' || path === undefined || flag !== '--kind' || words.length !== 4) throw new InputError(`gear takes ${VERBS.gear!.takes}.`, 0, [VERBS.gear!.takes])
  const known = GEAR_KINDS.find(k => k === kind)
  if (!known) throw new InputError(`There is no gear of the kind “${kind}”.`, 0, GEAR_KINDS)
  const table = readTable(readFile(path))
  const { good, bad } = readGear(known, table, guessMapping(known, table.heads))
  return { rows: table.rows.length, good: good.length, bad } satisfies GearCheck
}

/** The thinnest cable for a line of a saved job, of one size and of sizes that fall along the run. */
function searchCable(...words: string[]): unknown {
  const { takes } = VERBS.cable!
  const { words: [path], flag } = flagsOf(words, takes, { plain: 1, known: ['line', 'limit-db', 'sizes'] })
  const limitDb = numberOf(flag('limit-db'), 'limit-db', { least: 0.01, most: 20 })
  const awgs = (flag('sizes') ?? USUAL_AWG.join(',')).split(',').map(Number)
  if (awgs.some(awg => !(Number.isInteger(awg) && awg >= AWG_RANGE.thickest && awg <= AWG_RANGE.thinnest))) {
    throw new InputError(`Sizes are gauges from ${AWG_RANGE.thickest} to ${AWG_RANGE.thinnest}.`, 0, ['12,14,16,18'])
  }
  const outputs = outputsOf(told(readJobFile(readFile(path!))))
  const output = outputs.find(o => o.label === flag('line'))
  if (!output) throw new InputError(`There is no line “${flag('line') ?? ''}” in it.`, 0, outputs.map(o => o.label))
  const found = cableSearch(output, limitDb, awgs.map(awg => ({ awg })))
  if (!found) throw new InputError(`The run of ${output.label} has no length that is stated.`, 0, [])
  return tidy(cableReport(found))
}

function readFile(path: string): string {
  try {
    return readFileSync(path, 'utf8')
  }
  catch {
    throw new InputError(`There is no file “${path}” that can be read.`, 0, ['a file that is there'])
  }
}

/** What of a file counts for nothing is said beside the answer, not in it. */
function told({ job, remarks }: ReadFile): Job {
  for (const remark of remarks) process.stderr.write(`${remark}\n`)
  return job
}

async function main([verb, ...rest]: string[]): Promise<void> {
  const wanted = VERBS[verb ?? '']
  if (!wanted) throw new InputError(verb ? `There is no “${verb}” here.` : 'Nothing asked.', 0, Object.keys(VERBS))
  print(await wanted.run(...rest))
}

function print(document: unknown): void {
  process.stdout.write(JSON.stringify(document, null, 2) + '\n')
}

try {
  await main(process.argv.slice(2))
}
catch (error) {
  if (!(error instanceof InputError || error instanceof JobError)) throw error
  print({ error: { message: error.message, position: error instanceof InputError ? error.position : error.path, expected: error.expected } })
  process.exitCode = 2
}
