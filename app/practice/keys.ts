import type { Action } from '~/composables/action'
import { pageKeys, type PageDeeds } from '~/composables/pageKeys'

/** What keys do on the list of exercises. */
export interface PracticeListDeeds extends PageDeeds {
  toCode: () => void
  step: (by: 1 | -1) => void
  make: () => void
  fileIn: () => void
  toJobs: () => void
}
export function practiceListKeys(deeds: PracticeListDeeds): Action[] {
  return [
    { keys: ['ArrowDown', 'ArrowUp'], says: 'next exercise, exercise before', group: 'about', run: e => deeds.step(e.key === 'ArrowDown' ? 1 : -1) },
    { keys: ['f'], says: 'type a code that you were given', also: 'code rig', group: 'about', run: deeds.toCode },
    { keys: ['c'], says: 'make an exercise', also: 'teacher', group: 'build', run: deeds.make },
    { keys: ['i'], says: 'file in: an exercise, or plays that came back', group: 'build', run: deeds.fileIn },
    { keys: ['j'], says: 'all jobs', group: 'job', run: deeds.toJobs },
    ...pageKeys(deeds),
  ]
}

export interface PlayDeeds extends PageDeeds {
  step: (by: 1 | -1) => void
  toRack: () => void
  press: (nth: number) => void
  amplifier: () => void
  nullLeads: () => void
  name: () => void
  listen: () => void
  again: () => void
  leave: () => void
}
export function playKeys(deeds: PlayDeeds): Action[] {
  return [
    { keys: ['ArrowDown', 'ArrowUp', 'ArrowRight', 'ArrowLeft'], shown: '↓ ↑', says: 'next place, place before', group: 'about', run: e => deeds.step(e.key === 'ArrowDown' || e.key === 'ArrowRight' ? 1 : -1) },
    { keys: ['Home'], says: 'to the rack', group: 'about', run: deeds.toRack },
    { keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'], shown: '1…9', says: 'what can be done here, by its number', group: 'read', run: e => deeds.press(Number(e.key) - 1) },
    { keys: ['o'], says: 'amplifier on, or off', also: 'switch power', group: 'change', run: deeds.amplifier },
    { keys: ['0'], says: 'touch the leads together and null them', also: 'zero relative', group: 'change', run: deeds.nullLeads },
    { keys: ['m'], says: 'this is it: name the fault here, and open it', also: 'mend repair', group: 'change', run: deeds.name },
    { keys: ['s'], says: 'hear the last sound once more', also: 'play listen', group: 'read', run: deeds.listen },
    { keys: ['r'], says: 'begin this rig once more', also: 'again restart', group: 'job', run: deeds.again },
    { keys: ['Escape', 'b'], says: 'back to all exercises', group: 'about', run: deeds.leave },
    ...pageKeys(deeds),
  ]
}
