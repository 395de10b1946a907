import { readFileSync } from 'node:fs'
import { readJobFile, type ReadFile } from '#core/format/plainMatch'
import { JobError } from '#core/job/jobError'
import type { Job } from '#core/job/schema'
import { reportOf } from '#core/match/report'
import { InputError } from '#core/quantity/inputError'
import { quickAnswer } from '#core/quick/answer'

/** The core from a terminal: one verb per engine, one JSON document out. Exit 0, or 2 for input that cannot be used. */

const VERBS: Record<string, { takes: string, run: (argument: string) => unknown }> = {
  quick: { takes: 'a typed line, as "12 x 5 W + 2 x 20 W on 70 V 120 W"', run: quickAnswer },
  evaluate: { takes: 'a file, as job.plainmatch.json', run: path => reportOf(told(readJobFile(readFile(path)))) },
}

function readFile(path: string): string {
  try {
    return readFileSync(path, 'utf8')
  }
  catch {
    throw new InputError(`There is no file “${path}” that can be read.`, 0, ['a file saved as *.plainmatch.json'])
  }
}

/** What of a file counts for nothing is said beside the answer, not in it. */
function told({ job, remarks }: ReadFile): Job {
  for (const remark of remarks) process.stderr.write(`${remark}\n`)
  return job
}

function main([verb, ...rest]: string[]): void {
  const wanted = VERBS[verb ?? '']
  if (!wanted) throw new InputError(verb ? `There is no “${verb}” here.` : 'Nothing asked.', 0, Object.keys(VERBS))
  if (rest.length !== 1) throw new InputError(`${verb} takes ${wanted.takes}: one argument, ${rest.length} given. A typed line goes in quotes.`, 0, [wanted.takes])
  print(wanted.run(rest[0]!))
}

function print(document: unknown): void {
  process.stdout.write(JSON.stringify(document, null, 2) + '\n')
}

try {
  main(process.argv.slice(2))
}
catch (error) {
  if (!(error instanceof InputError || error instanceof JobError)) throw error
  print({ error: { message: error.message, position: error instanceof InputError ? error.position : error.path, expected: error.expected } })
  process.exitCode = 2
}
