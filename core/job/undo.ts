import type { Edit, StampedEdit } from './edits'

/** An edit that was applied, with what takes it back, and when it was done (ms of the clock), where that is known. */
export interface LogEntry extends StampedEdit { inverse: Edit, at?: number }

/** As many edits of a job as undo reaches back: what a window keeps, and what it is given when it opens the job. */
export const UNDO_REACH = 500

/** What can be taken back or done again: the newest edit of its chain, and the edit of a hand that the chain began with. */
export interface Undoable { entry: LogEntry, original: LogEntry }

/** What one window can take back and do again, newest last. */
export interface UndoStacks { undo: Undoable[], redo: Undoable[] }

/**
 * Reads both stacks of one window from the job's log. An undo is an edit like any other that names what it takes
 * back, so the stacks need no storage of their own and outlive a reload. A fresh edit empties what could be redone.
 */
export function undoStacks(log: readonly LogEntry[], by: string): UndoStacks {
  const undo: Undoable[] = []
  let redo: Undoable[] = []
  for (const entry of log) {
    if (entry.by !== by) continue
    if (entry.undoes === null) {
      undo.push({ entry, original: entry })
      redo = []
    }
    else if (undo.at(-1)?.entry.id === entry.undoes) redo.push({ entry, original: undo.pop()!.original })
    else if (redo.at(-1)?.entry.id === entry.undoes) undo.push({ entry, original: redo.pop()!.original })
  }
  return { undo, redo }
}
