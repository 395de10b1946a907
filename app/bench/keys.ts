import type { Action } from '~/composables/action'
import { pageKeys, type PageDeeds } from '~/composables/pageKeys'

/** What keys do at the bench. */
export interface BenchDeeds extends PageDeeds {
  undo: () => void
  redo: () => void
  cannotUndo: () => string | null
  cannotRedo: () => string | null
  showDone: () => void
  toJobs: () => void
}
export function benchKeys(deeds: BenchDeeds): Action[] {
  return [
    { keys: ['u', 'Ctrl+z'], says: 'undo', also: 'take back', group: 'job', cannot: deeds.cannotUndo, run: deeds.undo },
    { keys: ['U', 'Ctrl+Z', 'Ctrl+y'], shown: 'U', says: 'redo', also: 'do again', group: 'job', cannot: deeds.cannotRedo, run: deeds.redo },
    { keys: ['h'], says: 'what was done here, and back to any of it', group: 'job', run: deeds.showDone },
    { keys: ['j'], says: 'all jobs', group: 'job', run: deeds.toJobs },
    ...pageKeys(deeds),
  ]
}

export interface ListDeeds { begin: () => void, toSearch: () => void, step: (by: 1 | -1) => void, toDrawer: () => void, several: () => void }
export function ticketListKeys(deeds: ListDeeds): Action[] {
  return [
    { keys: ['c'], says: 'new ticket', also: 'complaint came in', group: 'build', run: deeds.begin },
    { keys: ['f'], says: 'find a ticket by its words', group: 'about', run: deeds.toSearch },
    { keys: ['ArrowDown', 'ArrowUp'], says: 'next ticket, ticket before', group: 'about', run: e => deeds.step(e.key === 'ArrowDown' ? 1 : -1) },
    { keys: ['s'], says: 'several at once: chosen, then put on test, waiting or to be seen again', also: 'select many', group: 'change', run: deeds.several },
    { keys: ['d'], says: 'the drawer: what lies there, and how many', also: 'stock spare', group: 'about', run: deeds.toDrawer },
  ]
}

export interface TicketDeeds {
  face: (by: 1 | -1) => void
  press: (nth: number) => void
  toField: () => void
  toState: () => void
  toPaper: () => void
  leave: () => void
}
export function ticketKeys(deeds: TicketDeeds): Action[] {
  return [
    { keys: ['[', ']'], says: 'step of the work before, the next one', group: 'about', run: e => deeds.face(e.key === ']' ? 1 : -1) },
    { keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'], shown: '1…9', says: 'press an answer by its number', group: 'read', run: e => deeds.press(Number(e.key) - 1) },
    { keys: ['r', 'Enter'], says: 'to the first field', also: 'reading ohms type', group: 'read', run: deeds.toField },
    { keys: ['s'], says: 'where it stands: came in, waits, on test, gone out', also: 'state', group: 'change', run: deeds.toState },
    { keys: ['I'], says: 'paper: ticket and label to print', also: 'print', group: 'job', run: deeds.toPaper },
    { keys: ['Escape', 'b'], says: 'back to all tickets', group: 'about', run: deeds.leave },
  ]
}
