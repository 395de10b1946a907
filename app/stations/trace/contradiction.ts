import type { JudgedReading } from '#core/check/proof'
import { KIND_NAMES } from '#core/check/gradeWords'
import { isWrong } from '#core/check/verdict'
import { valueWords } from '#core/check/words'
import type { Suspect } from '#core/trace/rank'
import { isSomethingElse } from '#core/trace/rank'

/** From this share on what nothing in the list explains is said. */
const LEADS = 0.4

/**
 * Readings that no fault of the list brings together, and which of them settles it: something reads wrong, and the line is all the same likeliest as drawn, or
 * something that is not in the list. null: nothing of the kind.
 */
export function contradiction(suspects: readonly Suspect[], readings: readonly JudgedReading[], nameOf: (nodeId: string | null) => string): string | null {
  const bad = readings.filter(j => isWrong(j.verdict))
  const [first] = suspects
  if (bad.length === 0 || !first || first.probability < LEADS || (first.faults.length > 0 && !isSomethingElse(first.faults))) return null
  const at = (nodeId: string | null) => nodeId === null ? '' : `${nameOf(nodeId)} `
  const says = bad.slice(0, 2).map(j => `${at(j.reading.nodeId)}${KIND_NAMES[j.reading.kind]} ${valueWords(j.reading.value)}`).join(' and ')
  const [settles] = bad
  const { kind, nodeId } = settles!.reading
  // A silent speaker on a line that reads full: its coil, or the ear.
  const next = kind === 'sound' && !readings.some(j => j.reading.kind === 'coil-dcr' && j.reading.nodeId === nodeId) ? `read the coil of ${nameOf(nodeId)}` : `read ${at(nodeId)}${KIND_NAMES[kind]} once more`
  return `What was read does not go together: ${says}, and no fault of this list explains all of it well. First ${next}: it settles which of them is so.`
}
