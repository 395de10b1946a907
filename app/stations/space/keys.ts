import type { Action } from '~/composables/action'

/** What is done at the spaces. */
export interface SpaceDeeds {
  addSpace: () => void
  otherSpace: (by: 1 | -1) => void
  beside: (by: 1 | -1) => void
  all: () => void
  arrow: (xStep: number, yStep: number, isLarge: boolean) => void
  addPlace: () => void
  takeOff: () => void
  layOut: () => void
  turn: (by: 1 | -1) => void
  tap: (by: 1 | -1) => void
  hang: () => void
  planTaps: () => void
  findAmplifiers: () => void
  whatIf: () => void
  measure: () => void
  show: (mode: 'level' | 'change') => void
  toSheet: () => void
  drawFloor: () => void
  leave: () => void
}

const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as const

/** Everything that can be done at the spaces, in the order in which it is shown. */
export function spaceActions(deeds: SpaceDeeds): Action[] {
  const places = ['place', 'places'] as const
  const arrow = (isLarge: boolean) => (e: Pick<KeyboardEvent, 'key'>) => {
    const [x, y] = ARROWS[e.key as keyof typeof ARROWS]
    deeds.arrow(x, y, isLarge)
  }
  return [
    { keys: ['g'], says: 'lay the grid out: as many places as the floor wants', group: 'change', to: ['space'], row: 'lay out', run: deeds.layOut },
    { keys: [',', '.'], says: 'turn the grid, five degrees', group: 'change', to: ['space'], row: 'turn', run: e => deeds.turn(e.key === '.' ? 1 : -1) },
    { keys: ['a'], says: 'add a place: at the cross, or in the middle', group: 'change', to: ['space', ...places], row: 'add a place', run: deeds.addPlace },
    { keys: ['x', 'Delete'], says: 'take places off, with the speakers that hang there', group: 'change', to: places, row: 'take off', run: deeds.takeOff },
    { keys: ['-'], says: 'all of the space a tap down', group: 'change', to: ['space', ...places], row: 'tap −', run: () => deeds.tap(-1) },
    { keys: ['=', '+'], says: 'all of the space a tap up', group: 'change', to: ['space', ...places], row: 'tap +', run: () => deeds.tap(1) },
    { keys: ['e', 'Enter'], says: 'change: floor, height, use, speaker', group: 'change', to: ['space', ...places], row: 'change', run: () => deeds.show('change') },
    { keys: ['D'], says: 'draw the floor on a grid', group: 'change', to: ['space'], row: 'draw floor', run: deeds.drawFloor },
    { keys: ['H'], says: 'hang speakers at the places that have none', group: 'wire', to: ['space', ...places], row: 'hang', run: deeds.hang },
    { keys: ['P'], says: 'plan the taps of all spaces', group: 'build', to: ['space'], row: 'plan taps', run: deeds.planTaps },
    { keys: ['F'], says: 'find amplifiers for every line', group: 'build', to: ['space'], row: 'amplifiers', run: deeds.findAmplifiers },
    { keys: ['W'], says: 'what if: keep this wiring beside, and compare', group: 'build', to: ['space'], row: 'what if', run: deeds.whatIf },
    { keys: ['i'], says: 'the speaker of this place on the run sheet', group: 'wire', to: ['place'], row: 'on the sheet', run: deeds.toSheet },
    { keys: ['m'], says: 'note a level that was measured at the cross', group: 'read', to: ['space'], row: 'measured', run: deeds.measure },
    { keys: ['f'], says: 'how loud, how even', group: 'read', to: ['space'], run: () => deeds.show('level') },
    { keys: ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'], says: 'move the places chosen; with none, the cross that reads the level', group: 'about', run: arrow(false) },
    { keys: ['Shift+ArrowLeft', 'Shift+ArrowRight', 'Shift+ArrowUp', 'Shift+ArrowDown'], shown: '⇧ arrows', says: 'the same, ten times as far', group: 'about', run: arrow(true) },
    { keys: ['[', ']'], says: 'place before, next place', group: 'about', run: e => deeds.beside(e.key === ']' ? 1 : -1) },
    { keys: ['w'], says: 'choose all places of the space', group: 'choose', to: ['space', 'place'], row: 'all places', run: deeds.all },
    { keys: ['PageUp', 'PageDown'], says: 'space before, next space', group: 'about', run: e => deeds.otherSpace(e.key === 'PageDown' ? 1 : -1) },
    { keys: ['Escape'], says: 'no place chosen', group: 'about', run: deeds.leave },
    { keys: ['A'], says: 'add a space', group: 'build', to: ['space'], run: deeds.addSpace },
  ]
}

/** The same with the mouse, for the key list. */
export const SPACE_MOUSE_WORDS: readonly (readonly [string, string])[] = [
  ['press a place', 'choose it'], ['Ctrl press', 'choose one more or less'], ['drag', 'move what is chosen'], ['right press', 'what can be done'], ['long press', 'the same, by finger'], ['press the floor', 'read the level there'],
]
