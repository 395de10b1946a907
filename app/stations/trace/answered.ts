import { together, type Edit, type SimpleEdit } from '#core/job/edits'
import type { Reading, ReadingKind, ReadingValue, Sound } from '#core/job/schema'

/** An answer to what was asked, as the readings that are kept: the way so far, which the next person goes on from. */

/** On which line, whose, when; ids for what is made. */
export interface Answering { outputId: string, who: string | null, at: string, newId: () => string }

function readingOf(kind: ReadingKind, nodeId: string | null, value: ReadingValue, { outputId, who, at, newId }: Answering): Reading {
  return { id: newId(), at, kind, outputId, nodeId, value, note: '', frequencyHz: null, supersedes: null, taken: null, who, withdrawn: false }
}

export const answerEdit = (kind: ReadingKind, nodeId: string | null, value: ReadingValue, answering: Answering): SimpleEdit =>
  ({ kind: 'reading.add', reading: readingOf(kind, nodeId, value, answering) })

/**
 * A walk: every speaker up to where somebody went, as it was heard; those that nothing was said of play as they should. One act, and one undo.
 * Null where nothing was passed.
 */
export function walkEdit(ids: readonly string[], upToId: string, odd: ReadonlyMap<string, Sound>, answering: Answering): Edit | null {
  const last = ids.indexOf(upToId)
  return together(ids.slice(0, last + 1).map(id => answerEdit('sound', id, { is: odd.get(id) ?? 'plays' }, answering)))
}
