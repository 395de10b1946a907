import { SECTIONS } from './sections'
import type { Section } from './sections/section'
import type { SectionName } from './sections/shapes'
import { FIELD_WORDS } from './words'

type Step = PropertyKey
const fieldsOf = (value: unknown) => value !== null && typeof value === 'object' ? value as Record<Step, unknown> : {}

const LISTS: Section<SectionName>['lists'] = Object.assign({}, ...SECTIONS.map(s => s.lists))

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
