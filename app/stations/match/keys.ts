import type { Action } from '~/composables/action'
import type { PaneMode } from './pane'

/** What opens over the run sheet: of the whole job, or of the line that is looked at. */
export type SheetDialog = 'taps' | 'amplifiers' | 'what-if' | 'cable-list' | 'wirings' | 'clip' | 'impedance' | 'match' | 'replace' | 'bands'

/** What is done on the run sheet. */
export interface SheetDeeds {
  along: (step: 1 | -1) => void
  between: (step: 1 | -1) => void
  toHead: () => void
  toEnd: () => void
  chooseAlong: (step: 1 | -1) => void
  chooseRail: () => void
  chooseAlike: () => void
  tap: (step: 1 | -1) => void
  add: () => void
  copyBehind: () => void
  remove: () => void
  beginMove: () => void
  reorder: (step: 1 | -1) => void
  join: (kind: 'series' | 'star') => void
  put: (kind: 'control' | 'transformer' | 'capacitor') => void
  apart: () => void
  clip: () => void
  makeKind: () => void
  fold: () => void
  show: (mode: PaneMode) => void
  enter: (mode: PaneMode) => void
  choose: (number: number) => void
  toTest: () => void
  newOutput: () => void
  newAmplifier: () => void
  open: (dialog: SheetDialog) => void
  splitLine: () => void
  leave: () => void
}

/** Everything that can be done on the run sheet, in the order in which it is shown. */
export function sheetActions(deeds: SheetDeeds): Action[] {
  const tags = ['speaker', 'many'] as const
  const boxes = ['speaker', 'many', 'control'] as const
  return [
    { keys: ['-'], says: 'tap down; a control quieter', group: 'change', to: boxes, isOnlyTo: true, row: 'tap −', as: { control: { says: 'a step quieter; a part a size smaller', row: 'step −' } }, run: () => deeds.tap(-1) },
    { keys: ['=', '+'], says: 'tap up; a control louder', group: 'change', to: boxes, isOnlyTo: true, row: 'tap +', as: { control: { says: 'a step louder; a part a size larger', row: 'step +' } }, run: () => deeds.tap(1) },
    { keys: ['e', 'Enter'], says: 'change: tap, cable, length, names', group: 'change', to: ['speaker', 'many', 'rail', 'control'], as: { control: { says: 'change: level, rating, names' } }, row: 'change', run: () => deeds.enter('change') },
    { keys: ['a'], says: 'add a speaker', group: 'change', to: ['speaker', 'many', 'rail', 'control'], row: 'add', as: { control: { says: 'add a speaker behind it', row: 'add behind' } }, run: deeds.add },
    { keys: ['c'], says: 'copy: the same once more behind', group: 'change', to: ['many'], row: 'copy', run: deeds.copyBehind },
    { keys: ['x', 'Delete'], says: 'take off', group: 'change', to: boxes, isOnlyTo: true, row: 'take off', as: { control: { says: 'take it out: the speakers stay', row: 'take out' } }, run: deeds.remove },
    { keys: ['m'], says: 'move to another rail', group: 'wire', to: boxes, isOnlyTo: true, row: 'move', as: { control: { says: 'move to another rail, with all behind it', row: 'move' } }, run: deeds.beginMove },
    { keys: ['s'], says: 'in series', group: 'wire', to: tags, isOnlyTo: true, row: 'series', run: () => deeds.join('series') },
    { keys: ['S'], says: 'from one point', group: 'wire', to: tags, isOnlyTo: true, row: 'from one point', run: () => deeds.join('star') },
    { keys: ['C'], says: 'a volume control before it', group: 'wire', to: tags, isOnlyTo: true, row: 'control', run: () => deeds.put('control') },
    { keys: ['L'], says: 'a line transformer before it', group: 'wire', to: tags, isOnlyTo: true, run: () => deeds.put('transformer') },
    { keys: ['X'], says: 'a capacitor or a coil before it', group: 'wire', to: tags, isOnlyTo: true, run: () => deeds.put('capacitor') },
    { keys: ['R'], says: 'what of the library replaces it', group: 'change', to: ['speaker'], isOnlyTo: true, run: () => deeds.open('replace') },
    { keys: ['d'], says: 'open this group', group: 'wire', to: ['speaker'], isOnlyTo: true, run: deeds.apart },
    { keys: ['Ctrl+ArrowLeft', 'Ctrl+ArrowRight'], says: 'change places along the rail', group: 'wire', run: e => deeds.reorder(e.key === 'ArrowRight' ? 1 : -1) },
    { keys: ['r'], says: 'record a reading', group: 'read', to: ['speaker', 'rail'], row: 'read', run: () => deeds.enter('check') },
    { keys: ['t'], says: 'trace a fault', group: 'read', to: ['rail'], run: () => deeds.enter('trace') },
    { keys: ['q'], says: 'to what to read next: its answers by their numbers', also: 'test question answer', group: 'read', run: deeds.toTest },
    { keys: ['f'], says: 'findings', group: 'read', to: ['speaker', 'rail', 'control'], run: () => deeds.show('findings') },
    { keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0'], shown: '1…9, 0', says: 'do what is offered', group: 'read', run: e => deeds.choose(Number(e.key)) },
    { keys: ['w'], says: 'choose the whole rail', group: 'choose', to: ['speaker', 'rail', 'many', 'control'], row: 'whole rail', run: deeds.chooseRail },
    { keys: ['l'], says: 'choose all alike', group: 'choose', to: ['speaker'], isOnlyTo: true, row: 'all alike', run: deeds.chooseAlike },
    { keys: ['Shift+ArrowLeft', 'Shift+ArrowRight'], says: 'choose on along the rail', group: 'choose', run: e => deeds.chooseAlong(e.key === 'ArrowRight' ? 1 : -1) },
    { keys: ['K'], says: 'make one kind of them: change once, all follow', group: 'choose', to: tags, isOnlyTo: true, run: deeds.makeKind },
    { keys: ['Ctrl+c'], says: 'take, to paste elsewhere', group: 'choose', to: tags, isBrowsers: true, run: deeds.clip },
    { keys: ['Ctrl+v'], says: 'paste: a stretch, a table, a typed line', group: 'choose', isBrowsers: true, run: () => {} },
    { keys: ['ArrowLeft', 'ArrowRight'], says: 'along the rail', group: 'about', run: e => deeds.along(e.key === 'ArrowRight' ? 1 : -1) },
    { keys: ['ArrowUp', 'ArrowDown'], says: 'between rails', group: 'about', run: e => deeds.between(e.key === 'ArrowDown' ? 1 : -1) },
    { keys: ['Home', 'End'], says: 'head or end of the rail', group: 'about', run: e => e.key === 'End' ? deeds.toEnd() : deeds.toHead() },
    { keys: ['z'], says: 'equals as one tag, or every tag', group: 'about', to: ['speaker', 'many', 'rail'], run: deeds.fold },
    { keys: ['Escape'], says: 'back to the sheet, one alone', group: 'about', run: deeds.leave },
    { keys: ['o'], says: 'add an output', group: 'build', to: ['rail'], row: 'add an output', run: deeds.newOutput },
    { keys: ['b'], says: 'cable of the whole job, by size', group: 'build', to: ['rail'], run: () => deeds.open('cable-list') },
    { keys: ['P'], says: 'plan the taps of all spaces', group: 'build', to: ['rail'], run: () => deeds.open('taps') },
    { keys: ['F'], says: 'find amplifiers for every line', group: 'build', to: ['rail'], row: 'amplifiers', run: () => deeds.open('amplifiers') },
    { keys: ['W'], says: 'what if: keep this wiring beside, and compare', group: 'build', to: ['rail'], row: 'what if', run: () => deeds.open('what-if') },
    { keys: ['Y'], says: 'split this line onto as few outputs as it takes: spaces whole, least cable', group: 'wire', to: ['rail'], row: 'split', run: deeds.splitLine },
    { keys: ['i'], says: 'every way to wire the speakers of this line', group: 'wire', to: ['rail'], row: 'ways to wire', run: () => deeds.open('wirings') },
    { keys: ['O'], says: 'driven into clipping: what reaches the high-frequency unit', group: 'read', to: ['rail'], run: () => deeds.open('clip') },
    { keys: ['g'], says: 'impedance over frequency, and what is given into it', group: 'read', to: ['rail'], row: 'impedance', run: () => deeds.open('impedance') },
    { keys: ['G'], says: 'amplifier and speakers on one scale of watts', group: 'read', to: ['rail'], row: 'match', run: () => deeds.open('match') },
    { keys: ['B'], says: 'bands of a system: what each output plays, how loud, what that protects', group: 'read', to: ['rail'], row: 'bands', run: () => deeds.open('bands') },
    { keys: ['A'], says: 'add an amplifier', group: 'build', run: deeds.newAmplifier },
  ]
}

/** The same with the mouse, for the key list. */
export const MOUSE_WORDS: readonly (readonly [string, string])[] = [
  ['⇧ press', 'choose up to there'], ['Ctrl press', 'choose one more or less'], ['draw a frame', 'choose what it holds'], ['right press', 'what can be done'], ['long press', 'the same, by finger'],
]
