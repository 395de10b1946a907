import type { z } from 'zod'
import type { Job } from '#core/job/schema'
import { InputError } from '#core/quantity/inputError'

/**
 * One verb of the command line: what it takes, and what it answers. A new one is a file in verbs/ and its line in verbs/index.ts; help and
 * JSON Schema follow, and a test asks for its example in docs/cli.md.
 */
export interface Verb {
  /** What it answers, in a sentence. */
  does: string
  /** The words before the flags, by name. */
  words: readonly string[]
  /** What each flag takes, by its name. One that may be left out says what stands then. */
  flags: Readonly<Record<string, string>>
  /** Flags that take nothing: said or not. */
  switches?: readonly string[]
  /** An example that runs on the files of docs/cli.md. */
  example: string
  answer: z.ZodType
  run: (given: Given, files: Files) => unknown
}

export interface Given {
  words: readonly string[]
  flag: (name: string) => string | undefined
  /** Whether a switch was said. */
  isSaid: (name: string) => boolean
  /** A number of a flag, or what stands where it is left out. Throws InputError naming the flag. */
  number: (name: string, bounds: { least: number, most: number, otherwise?: number }) => number
}

/** What a verb may read and say beside its answer: what is handed in, so that it can be run without a process. */
export interface Files {
  readText: (path: string) => string
  readJob: (path: string) => Job
  writeText: (path: string, text: string) => void
  remark: (text: string) => void
}

export const defineVerb = (verb: Verb): Verb => verb

/** "FILE --line … [--sizes …]": what a verb takes, on one line. */
export function takesOf({ words, flags, switches = [] }: Verb): string {
  const flag = ([name, takes]: [string, string]) => takes.startsWith('[') ? `[--${name} ${takes.slice(1)}` : `--${name} ${takes}`
  return [...words, ...Object.entries(flags).map(flag), ...switches.map(name => `[--${name}]`)].join(' ')
}

/** Reads "--name value" pairs after the plain words of a verb. @throws InputError saying what the verb takes */
export function givenTo(name: string, verb: Verb, given: readonly string[]): Given {
  const takes = takesOf(verb)
  const refused = (says: string) => new InputError(`${says} ${name} takes ${takes}.`, 0, [verb.example])
  const first = given.findIndex(w => w.startsWith('--'))
  const words = first === -1 ? [...given] : given.slice(0, first)
  if (words.length !== verb.words.length) throw refused(`${words.length} words before the flags, ${verb.words.length} wanted. A typed line goes in quotes.`)
  const flags = new Map<string, string>()
  const said = new Set<string>()
  for (let k = words.length; k < given.length;) {
    const flag = given[k]!.slice(2)
    if (given[k]!.startsWith('--') && verb.switches?.includes(flag)) {
      said.add(flag)
      k++
      continue
    }
    if (!given[k]!.startsWith('--') || !(flag in verb.flags)) throw refused(`There is no “${given[k]}” here.`)
    if (flags.has(flag)) throw refused(`“--${flag}” is said twice.`)
    if (given[k + 1] === undefined) throw refused(`“--${flag}” wants a value.`)
    flags.set(flag, given[k + 1]!)
    k += 2
  }
  return { words, flag: flag => flags.get(flag), isSaid: name => said.has(name), number: (flag, bounds) => numberOf(flags.get(flag), flag, bounds) }
}

/** @throws InputError naming the flag */
export function numberOf(text: string | undefined, name: string, { least, most, otherwise }: { least: number, most: number, otherwise?: number }): number {
  if (text === undefined && otherwise !== undefined) return otherwise
  const value = Number(text)
  if (text === undefined || text.trim() === '' || !(value >= least && value <= most)) throw new InputError(`“--${name}” must be a number from ${least} to ${most}.`, 0, [`--${name} ${otherwise ?? least}`])
  return value
}

/** One of several words. @throws InputError with all of them */
export function oneOf<T extends string>(text: string | undefined, what: string, values: readonly T[], otherwise?: T): T {
  const found = values.find(value => value === (text ?? otherwise))
  if (found === undefined) throw new InputError(`There is no ${what} “${text ?? ''}”.`, 0, values)
  return found
}
