import type { Grade } from '#core/check/verdict'
import type { FindingCode, FindingFacts, Finding } from '../finding'
import type { Around } from '../surroundings'
import type { LineFacts } from '../facts'

/** One question asked of every line; it answers with findings or none. */
export type Rule = (line: LineFacts, around: Around) => Finding[]

/** Not yet placed. */
export type Bare = { [K in FindingCode]: { code: K, grade: Grade, facts: FindingFacts[K] } }[FindingCode]

export function found(line: LineFacts, what: Bare, nodeId: string | null = null): Finding {
  return { ...what, outputId: line.output.id, nodeId }
}
