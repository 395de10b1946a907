import type { KeyBinding } from '~/composables/keyBinding'

/** What keys do on the list of jobs. */
export interface ListDeeds {
  toLine: () => void
  toQuick: () => void
  find: () => void
  step: (by: 1 | -1) => void
  turn: (by: 1 | -1) => void
  begin: () => void
  fileIn: () => void
  takeBack: () => void
  toggleNight: () => void
  showKeys: () => void
}

export function listKeys(deeds: ListDeeds): KeyBinding[] {
  return [
    { keys: ['/'], says: 'to the quick line', run: deeds.toLine },
    { keys: ['q'], says: 'quick match', run: deeds.toQuick },
    { keys: ['f'], says: 'find a job', run: deeds.find },
    { keys: ['ArrowDown', 'ArrowUp'], says: 'next job, job before', run: e => deeds.step(e.key === 'ArrowDown' ? 1 : -1) },
    { keys: ['PageDown', 'PageUp'], says: 'next page, earlier page', run: e => deeds.turn(e.key === 'PageDown' ? 1 : -1) },
    { keys: ['c'], says: 'new job', run: deeds.begin },
    { keys: ['i'], says: 'file in', run: deeds.fileIn },
    { keys: ['u'], says: 'bring back what was just archived or deleted', run: deeds.takeBack },
    { keys: ['n'], says: 'night or day', run: deeds.toggleNight },
    { keys: ['?'], says: 'these keys', run: deeds.showKeys },
  ]
}
