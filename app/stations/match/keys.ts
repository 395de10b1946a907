import type { KeyBinding } from '~/composables/keyBinding'
import type { PaneMode } from './pane'

/** What keys do on the run sheet. */
export interface SheetDeeds {
  along: (step: 1 | -1) => void
  between: (step: 1 | -1) => void
  toHead: () => void
  toEnd: () => void
  tap: (step: 1 | -1) => void
  add: () => void
  remove: () => void
  beginMove: () => void
  reorder: (step: 1 | -1) => void
  join: (kind: 'series' | 'star') => void
  apart: () => void
  show: (mode: PaneMode) => void
  enter: (mode: PaneMode) => void
  choose: (number: number) => void
  newOutput: () => void
  newAmplifier: () => void
  find: () => void
  leave: () => void
}

export function sheetKeys(deeds: SheetDeeds): KeyBinding[] {
  return [
    { keys: ['ArrowLeft', 'ArrowRight'], says: 'along the rail', run: e => deeds.along(e.key === 'ArrowRight' ? 1 : -1) },
    { keys: ['ArrowUp', 'ArrowDown'], says: 'between rails', run: e => deeds.between(e.key === 'ArrowDown' ? 1 : -1) },
    { keys: ['Home', 'End'], says: 'head or end of the rail', run: e => e.key === 'End' ? deeds.toEnd() : deeds.toHead() },
    { keys: ['-', '='], says: 'tap down, up', run: e => deeds.tap(e.key === '=' ? 1 : -1) },
    { keys: ['+'], shown: '+', says: 'tap up', run: () => deeds.tap(1) },
    { keys: ['a'], says: 'add a speaker after this one', run: deeds.add },
    { keys: ['x', 'Delete'], says: 'take this speaker off', run: deeds.remove },
    { keys: ['m'], says: 'move to another rail', run: deeds.beginMove },
    { keys: ['Shift+ArrowLeft', 'Shift+ArrowRight'], says: 'change places along the rail', run: e => deeds.reorder(e.key === 'ArrowRight' ? 1 : -1) },
    { keys: ['s'], says: 'in series with the next', run: () => deeds.join('series') },
    { keys: ['S'], says: 'from one point with the next', run: () => deeds.join('star') },
    { keys: ['d'], says: 'open this group', run: deeds.apart },
    { keys: ['f'], says: 'findings', run: () => deeds.show('findings') },
    { keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'], shown: '1…9', says: 'do what is offered', run: e => deeds.choose(Number(e.key)) },
    { keys: ['e', 'Enter'], says: 'change: tap, cable, length, names', run: () => deeds.enter('change') },
    { keys: ['r'], says: 'record a reading', run: () => deeds.enter('check') },
    { keys: ['t'], says: 'trace a fault', run: () => deeds.enter('trace') },
    { keys: ['o'], says: 'add an output', run: deeds.newOutput },
    { keys: ['A'], says: 'add an amplifier', run: deeds.newAmplifier },
    { keys: ['/'], says: 'find a speaker or line', run: deeds.find },
    { keys: ['Escape'], says: 'back to the sheet', run: deeds.leave },
  ]
}
