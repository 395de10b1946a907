import { readFileSync, writeFileSync } from 'node:fs'
import { readJobFile } from '#core/format/plainMatch'
import { JobError } from '#core/job/jobError'
import { tidy } from '#core/line/report'
import { InputError } from '#core/quantity/inputError'
import { givenTo, takesOf, type Files } from './verb'
import { VERBS } from './verbs'

/** The core from a terminal, without the terminal: words in, one document (or help) and an exit code out. Code 2 is for input that cannot be used. */
export interface Answer { code: 0 | 2, out: string, remarks: string[] }

export async function run([name, ...rest]: readonly string[]): Promise<Answer> {
  const remarks: string[] = []
  try {
    if (name === undefined) throw new InputError('Nothing asked.', 0, Object.keys(VERBS))
    if (isHelp(name)) return { code: 0, out: help(), remarks }
    const verb = VERBS[name]
    if (!verb) throw new InputError(`There is no “${name}” here.`, 0, Object.keys(VERBS))
    if (rest.some(isHelp)) return { code: 0, out: helpOf(name), remarks }
    const answer: unknown = await verb.run(givenTo(name, verb, rest), filesOf(remarks))
    return { code: 0, out: printed(tidy(answer)), remarks }
  }
  catch (error) {
    if (!(error instanceof InputError || error instanceof JobError)) throw error
    return { code: 2, out: printed(problem(error)), remarks }
  }
}

const isHelp = (word: string) => word === '--help' || word === '-h' || word === 'help'
const printed = (document: unknown) => `${JSON.stringify(document, null, 2)}\n`
const problem = (error: InputError | JobError) => ({
  error: { message: error.message, position: error instanceof InputError ? error.position : error.path, expected: error.expected },
})

export function helpOf(name: string): string {
  const verb = VERBS[name]!
  return `${name} ${takesOf(verb)}\n  ${verb.does}\n  as: ${verb.example}\n`
}

export function help(): string {
  const all = Object.keys(VERBS).map(helpOf).join('\n')
  return `${all}\nEach prints one JSON document (docs/schemas); what stands in brackets may be left out. It ends with 2 for input that cannot be used, and says where.\n`
}

/** What of a file counts for nothing is said beside the answer, not in it. */
function filesOf(remarks: string[]): Files {
  const readText = (path: string): string => {
    try {
      return readFileSync(path, 'utf8')
    }
    catch {
      throw new InputError(`There is no file “${path}” that can be read.`, 0, ['a file that is there'])
    }
  }
  return {
    readText,
    readJob: (path) => {
      const read = readJobFile(readText(path))
      remarks.push(...read.remarks)
      return read.job
    },
    writeText: (path, text) => writeFileSync(path, text),
    remark: text => void remarks.push(text),
  }
}
