import type { Action } from '~/composables/action'

/** What keys do on the check walk. */
export interface WalkDeeds {
  step: (by: 1 | -1) => void
  nextOpen: () => void
  otherLine: (by: 1 | -1) => void
  toReading: () => void
  trace: () => void
  toTest: () => void
  wants: () => void
  byRoom: () => void
  byWire: () => void
  meters: () => void
  leave: () => void
}

export function walkKeys(deeds: WalkDeeds): Action[] {
  return [
    { keys: ['ArrowDown', 'ArrowRight'], says: 'next reading', group: 'about', run: () => deeds.step(1) },
    { keys: ['ArrowUp', 'ArrowLeft'], says: 'reading before', group: 'about', run: () => deeds.step(-1) },
    { keys: [' '], shown: 'Space', says: 'next place not proved', group: 'about', run: deeds.nextOpen },
    { keys: ['[', ']'], says: 'line or room before, the next one', group: 'about', run: e => deeds.otherLine(e.key === ']' ? 1 : -1) },
    { keys: ['r', 'Enter'], says: 'to the reading', group: 'read', run: deeds.toReading },
    { keys: ['t'], says: 'trace', group: 'read', run: deeds.trace },
    { keys: ['q'], says: 'to what to read next: its answers by their numbers', also: 'test question answer', group: 'read', run: deeds.toTest },
    { keys: ['w'], says: 'what this job wants read, and when to check again', also: 'polarity coils samples date', group: 'read', run: deeds.wants },
    { keys: ['o'], says: 'room by room, or along each line', also: 'order of the walk rooms floor', group: 'about', run: deeds.byRoom },
    { keys: ['m'], says: 'read by wire: the bench meter fills the field', also: 'meter scpi network', group: 'read', run: deeds.byWire },
    { keys: ['W'], says: 'which bench meter reads by wire', also: 'meter scpi network address', group: 'read', run: deeds.meters },
    { keys: ['Escape'], says: 'back to the list', group: 'about', run: deeds.leave },
  ]
}
