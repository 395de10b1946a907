import { InputError } from '#core/quantity/inputError'

interface Flags { words: string[], flag: (name: string) => string | undefined }

/** "--name value" pairs after the plain words of a verb. @throws InputError saying what the verb takes */
export function flagsOf(words: readonly string[], takes: string, { plain, known }: { plain: number, known: readonly string[] }): Flags {
  const refused = (says: string) => new InputError(`${says} It takes ${takes}.`, 0, [takes])
  const first = words.findIndex(w => w.startsWith('--'))
  const before = first === -1 ? [...words] : words.slice(0, first)
  if (before.length !== plain) throw refused(`${before.length} words before the flags, ${plain} wanted.`)
  const flags = new Map<string, string>()
  for (let k = before.length; k < words.length; k += 2) {
    const name = words[k]!.slice(2)
    if (!words[k]!.startsWith('--') || !known.includes(name)) throw refused(`There is no “${words[k]}” here.`)
    if (words[k + 1] === undefined) throw refused(`“--${name}” wants a value.`)
    flags.set(name, words[k + 1]!)
  }
  return { words: before, flag: name => flags.get(name) }
}

/** A number of a flag, or what stands where it is left out. @throws InputError naming the flag */
export function numberOf(text: string | undefined, name: string, { least, most, otherwise }: { least: number, most: number, otherwise?: number }): number {
  if (text === undefined && otherwise !== undefined) return otherwise
  const value = Number(text)
  if (text === undefined || text.trim() === '' || !(value >= least && value <= most)) throw new InputError(`“--${name}” must be a number from ${least} to ${most}.`, 0, [`--${name} ${otherwise ?? least}`])
  return value
}
