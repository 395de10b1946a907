import type { KeyBinding } from '~/composables/keyBinding'
import { STATIONS } from '.'
import type { Station } from './station'

/** What keys do at every station of a job. */
export interface JobDeeds {
  undo: () => void
  redo: () => void
  goTo: (station: Station) => void
  toJobs: () => void
  toggleNight: () => void
  showKeys: () => void
}

export function jobKeys(deeds: JobDeeds): KeyBinding[] {
  return [
    { keys: ['u', 'Ctrl+z'], says: 'undo', run: deeds.undo },
    { keys: ['U', 'Ctrl+Z', 'Ctrl+y'], shown: 'U', says: 'redo', run: deeds.redo },
    ...STATIONS.map((station): KeyBinding => ({ keys: [station.key], says: station.keySays, run: () => deeds.goTo(station) })),
    { keys: ['j'], says: 'all jobs', run: deeds.toJobs },
    { keys: ['n'], says: 'night or day', run: deeds.toggleNight },
    { keys: ['?'], says: 'these keys', run: deeds.showKeys },
  ]
}
