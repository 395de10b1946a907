import type { KeyBinding } from '~/composables/keyBinding'

/** What keys do on the check walk. */
export interface WalkDeeds {
  step: (by: 1 | -1) => void
  nextOpen: () => void
  otherLine: (by: 1 | -1) => void
  toReading: () => void
  trace: () => void
  leave: () => void
}

export function walkKeys(deeds: WalkDeeds): KeyBinding[] {
  return [
    { keys: ['ArrowDown', 'ArrowRight'], says: 'next reading', run: () => deeds.step(1) },
    { keys: ['ArrowUp', 'ArrowLeft'], says: 'reading before', run: () => deeds.step(-1) },
    { keys: [' '], shown: 'Space', says: 'next place not proved', run: deeds.nextOpen },
    { keys: ['[', ']'], says: 'line before, next line', run: e => deeds.otherLine(e.key === ']' ? 1 : -1) },
    { keys: ['r', 'Enter'], says: 'to the reading', run: deeds.toReading },
    { keys: ['t'], says: 'trace', run: deeds.trace },
    { keys: ['Escape'], says: 'back to the list', run: deeds.leave },
  ]
}
