import { FIELD_WORDS } from './words'

type Step = PropertyKey
const fieldsOf = (value: unknown) => value !== null && typeof value === 'object' ? value as Record<Step, unknown> : {}
const named = (value: unknown) => typeof value === 'string' && value.trim() !== '' ? value.trim().slice(0, 60) : null

/** What an entry of a list is called where it has a name of its own, else by its number. */
const LISTS: Record<string, (entry: Record<Step, unknown>, number: number) => string> = {
  amplifiers: ({ name }, number) => named(name) ?? `amplifier ${number}`,
  outputs: ({ label }, number) => `output ${named(label) ?? number}`,
  // Groups have no name: only what hangs in them is named.
  children: ({ node }, number) => fieldsOf(node).kind === 'speaker' ? `speaker ${named(fieldsOf(node).label) ?? `no. ${number}`}` : '',
  spaces: ({ name }, number) => named(name) ?? `space ${number}`,
  spots: (_, number) => `place no. ${number}`,
  variants: ({ name }, number) => named(name) ?? `variant ${number}`,
  readings: (_, number) => `reading no. ${number}`,
  repairs: (_, number) => `repair no. ${number}`,
}

/** A place in a document as people speak of it: "Amplifier A, output A2, speaker 03, power rating". Empty for the document itself. */
export function placeWords(document: unknown, path: readonly Step[]): string {
  const words: string[] = []
  let value = document
  path.forEach((step, k) => {
    const list = LISTS[String(path[k - 1])]
    value = fieldsOf(value)[step]
    if (typeof step === 'number' && list) words.push(list(fieldsOf(value), step + 1))
    else if (typeof step === 'number') words.push(`no. ${step + 1}`)
    else if (!(String(step) in LISTS) && !['wiring', 'node'].includes(String(step))) words.push(FIELD_WORDS[String(step)] ?? String(step))
  })
  return words.filter(Boolean).join(', ')
}
