import type { Action } from '~/composables/action'
import { pageKeys, type PageDeeds } from '~/composables/pageKeys'

/** What keys do in the library of gear. */
export interface GearDeeds extends PageDeeds {
  toSearch: () => void
  step: (by: number) => void
  toEnd: (end: 'first' | 'last') => void
  open: () => void
  edit: () => void
  mark: () => void
  compare: () => void
  add: () => void
  duplicate: () => void
  retire: () => void
  fileIn: () => void
  otherKind: (by: 1 | -1) => void
  takeBack: () => void
  leave: () => void
  toJobs: () => void
}

export function gearKeys(deeds: GearDeeds): Action[] {
  return [
    { keys: ['ArrowDown', 'ArrowUp'], says: 'next model, model before', group: 'about', run: e => deeds.step(e.key === 'ArrowDown' ? 1 : -1) },
    { keys: ['PageDown', 'PageUp'], says: 'a screen down, a screen up', group: 'about', run: e => deeds.step(e.key === 'PageDown' ? 15 : -15) },
    { keys: ['Home', 'End'], says: 'first model, last model', group: 'about', run: e => deeds.toEnd(e.key === 'Home' ? 'first' : 'last') },
    { keys: ['[', ']'], says: 'other kinds of gear', group: 'about', run: e => deeds.otherKind(e.key === ']' ? 1 : -1) },
    { keys: ['f'], says: 'find by any words', group: 'about', run: deeds.toSearch },
    { keys: ['Escape'], says: 'back to the table', group: 'about', run: deeds.leave },
    { keys: ['Enter'], says: 'open the model', group: 'change', to: ['model'], row: 'open', run: deeds.open },
    { keys: ['e'], says: 'change its figures in the table', group: 'change', to: ['model'], row: 'change', run: deeds.edit },
    { keys: ['d'], says: 'duplicate', group: 'change', to: ['model'], row: 'duplicate', run: deeds.duplicate },
    { keys: ['x'], says: 'retire: no longer offered, nothing lost', group: 'change', to: ['model'], row: 'retire', run: deeds.retire },
    { keys: ['u'], says: 'take back what was just done', group: 'change', run: deeds.takeBack },
    { keys: [' '], shown: 'Space', says: 'mark, to compare', group: 'choose', to: ['model'], row: 'mark', run: deeds.mark },
    { keys: ['c'], says: 'compare what is marked', group: 'choose', to: ['model'], row: 'compare', run: deeds.compare },
    { keys: ['a'], says: 'a new model', group: 'build', run: deeds.add },
    { keys: ['i'], says: 'a table in', group: 'build', run: deeds.fileIn },
    { keys: ['j'], says: 'to the jobs', group: 'job', run: deeds.toJobs },
    ...pageKeys(deeds),
  ]
}
