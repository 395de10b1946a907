import { together, type Edit } from '#core/job/edits'
import type { Output, Reading } from '#core/job/schema'
import { factsOf } from '#core/job/sections/readings/kinds'
import { speakersOf } from '#core/job/tree'

/** As expected from here to here: what is well at a stretch of speakers, read along it, kept as one act and as such. */

/** Speakers behind one, along the line. */
export function behindOf(output: Output, nodeId: string): { id: string, label: string }[] {
  const speakers = speakersOf(output.wiring)
  return speakers.slice(speakers.findIndex(s => s.id === nodeId) + 1)
}

/**
 * What was read of one speaker, of all behind it up to another as well, each with a note that says so. What is heard beside a
 * neighbour is heard beside the one before.
 * Null for a reading that is measured: no two read the same ohms.
 */
export function sameUpTo(output: Output, reading: Reading, lastId: string, newId: () => string): Edit | null {
  if (reading.nodeId === null || factsOf(reading.kind).value === 'ohm') return null
  const speakers = speakersOf(output.wiring)
  const from = speakers.findIndex(s => s.id === reading.nodeId)
  const to = speakers.findIndex(s => s.id === lastId)
  if (from < 0 || to <= from) return null
  const words = `as expected, ${speakers[from]!.label} to ${speakers[to]!.label} in one act`
  return together(speakers.slice(from + 1, to + 1).map((speaker, k) => ({
    kind: 'reading.add' as const,
    reading: {
      ...reading, id: newId(), nodeId: speaker.id, note: words, supersedes: null,
      value: 'how' in reading.value && reading.value.against !== null ? { ...reading.value, against: speakers[from + k]!.id } : reading.value,
    },
  })))
}
