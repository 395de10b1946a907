import type { Action } from '~/composables/action'
import { pageKeys, type PageDeeds } from '~/composables/pageKeys'

/** What keys do on the list of jobs. */
export interface ListDeeds extends PageDeeds {
  toLine: () => void
  toQuick: () => void
  toGear: () => void
  toBench: () => void
  toPractice: () => void
  toSearch: () => void
  phones: () => void
  step: (by: 1 | -1) => void
  turn: (by: 1 | -1) => void
  begin: () => void
  fileIn: () => void
  takeBack: () => void
}

export function listKeys(deeds: ListDeeds): Action[] {
  return [
    { keys: ['l'], says: 'to the quick line', group: 'about', run: deeds.toLine },
    { keys: ['q'], says: 'quick match', group: 'about', run: deeds.toQuick },
    { keys: ['g'], says: 'gear: the library of models', group: 'about', run: deeds.toGear },
    { keys: ['b'], says: 'bench: tickets, one unit each, and the drawer', also: 'repair ticket', group: 'about', run: deeds.toBench },
    { keys: ['t'], says: 'practice: find what is hidden, on a rig', also: 'train learn exercise', group: 'about', run: deeds.toPractice },
    { keys: ['p'], says: 'phones and other machines: let in, take back', group: 'about', also: 'device code network who', run: deeds.phones },
    { keys: ['f'], says: 'find a job', group: 'about', run: deeds.toSearch },
    { keys: ['ArrowDown', 'ArrowUp'], says: 'next job, job before', group: 'about', run: e => deeds.step(e.key === 'ArrowDown' ? 1 : -1) },
    { keys: ['PageDown', 'PageUp'], says: 'next page, earlier page', group: 'about', run: e => deeds.turn(e.key === 'PageDown' ? 1 : -1) },
    { keys: ['c'], says: 'new job', group: 'build', run: deeds.begin },
    { keys: ['i'], says: 'file in', group: 'build', run: deeds.fileIn },
    { keys: ['u'], says: 'bring back what was just archived or deleted', group: 'change', run: deeds.takeBack },
    ...pageKeys(deeds),
  ]
}
