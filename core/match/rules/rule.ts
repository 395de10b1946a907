import type { Practice } from '#core/job/schema'
import type { Grade } from '#core/check/verdict'
import type { FindingCode, FindingFacts, Finding } from '../finding'
import type { LineFacts } from '../facts'

/** One question asked of every line; it answers with findings or none. */
export type Rule = (line: LineFacts, practice: Practice) => Finding[]

export function found<K extends FindingCode>(line: LineFacts, code: K, grade: Grade, facts: FindingFacts[K], nodeId: string | null = null): Finding {
  return { code, grade, outputId: line.output.id, nodeId, facts } as unknown as Finding
}
