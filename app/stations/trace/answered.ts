import { together, type Edit, type SimpleEdit } from '#core/job/edits'
import type { Reading, ReadingKind, ReadingValue, Sound } from '#core/job/schema'
import type { WalkFound } from '#core/trace/next/test'
import { WALKS } from '#core/trace/next/walk'

/** An answer to what was asked, as the readings that are kept: the way so far, which the next person goes on from. */

/** On which line, whose, when; ids for what is made. */
export interface Answering { outputId: string, who: string | null, at: string, newId: () => string }

function readingOf(kind: ReadingKind, nodeId: string | null, value: ReadingValue, { outputId, who, at, newId }: Answering): Reading {
  return { id: newId(), at, kind, outputId, nodeId, value, note: '', frequencyHz: null, supersedes: null, taken: null, who, withdrawn: false }
}

export const answerEdit = (kind: ReadingKind, nodeId: string | null, value: ReadingValue, answering: Answering): SimpleEdit =>
  ({ kind: 'reading.add', reading: readingOf(kind, nodeId, value, answering) })

/**
 * A walk by ear or with a pulse: every speaker up to where somebody went, as it was found; those that nothing was said of are as they should be. One act,
 * and one undo. Null where nothing was passed.
 */
export function walkEdit(kind: 'walk' | 'pulse-walk', ids: readonly string[], upToId: string, odd: ReadonlyMap<string, WalkFound>, answering: Answering): Edit | null {
  const { reads, ways } = WALKS[kind]
  const valueOf = (is: WalkFound): ReadingValue => kind === 'walk' ? { is: is as Sound } : { is: is as 'reversed', how: 'pulse', against: null }
  return together(ids.slice(0, ids.indexOf(upToId) + 1).map(id => answerEdit(reads, id, valueOf(odd.get(id) ?? ways[0]!), answering)))
}

/** A walk with the level meter: a reading of each speaker that was read. One act, and one undo. */
export const levelsEdit = (values: ReadonlyMap<string, ReadingValue>, answering: Answering): Edit | null =>
  together([...values].map(([id, value]) => answerEdit('level', id, value, answering)))

/** What was typed under each, or of the first that is none, why. */
export function levelsTyped<T extends object>(filled: readonly { id: string, label: string }[], read: (id: string) => T | string): Map<string, T> | string {
  const levels = new Map<string, T>()
  for (const { id, label } of filled) {
    const level = read(id)
    if (typeof level === 'string') return `${label}: ${level}`
    levels.set(id, level)
  }
  return levels
}
