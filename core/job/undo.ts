import type { Edit, StampedEdit } from './edits'

/** An edit that was applied, with what takes it back. */
export interface LogEntry extends StampedEdit { inverse: Edit }

/** What one window can take back and do again, newest last. */
export interface UndoStacks { undo: LogEntry[], redo: LogEntry[] }

/**
 * Reads both stacks of one window from the job's log. An undo is an edit like any other that names what it takes
 * back, so the stacks need no storage of their own and outlive a reload. A fresh edit empties what could be redone.
 */
export function undoStacks(log: readonly LogEntry[], by: string): UndoStacks {
  const undo: LogEntry[] = []
  let redo: LogEntry[] = []
  for (const entry of log) {
    if (entry.by !== by) continue
    if (entry.undoes === null) {
      undo.push(entry)
      redo = []
    }
    else if (undo.at(-1)?.id === entry.undoes) {
      undo.pop()
      redo.push(entry)
    }
    else if (redo.at(-1)?.id === entry.undoes) {
      redo.pop()
      undo.push(entry)
    }
  }
  return { undo, redo }
}
