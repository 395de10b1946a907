import type { Action } from '~/composables/action'
import { pageKeys, type PageDeeds } from '~/composables/pageKeys'
import { STATIONS } from '.'
import type { Station } from './station'

/** What keys do at every station of a job. */
export interface JobDeeds extends PageDeeds {
  undo: () => void
  cannotUndo: () => string | null
  cannotRedo: () => string | null
  redo: () => void
  showDone: () => void
  goTo: (station: Station) => void
  toJobs: () => void
  toggleUnits: () => void
  toPaper: () => void
  toBench: () => void
  toPractice: () => void
}

export function jobKeys(deeds: JobDeeds): Action[] {
  return [
    { keys: ['u', 'Ctrl+z'], says: 'undo', also: 'take back', group: 'job', cannot: deeds.cannotUndo, run: deeds.undo },
    { keys: ['U', 'Ctrl+Z', 'Ctrl+y'], shown: 'U', says: 'redo', also: 'do again', group: 'job', cannot: deeds.cannotRedo, run: deeds.redo },
    { keys: ['h'], says: 'what was done here, and back to any of it', group: 'job', run: deeds.showDone },
    ...STATIONS.map((station): Action => ({
      keys: station.key === null ? [] : [station.key], says: station.keySays, also: `${station.name} station`, group: 'job', run: () => deeds.goTo(station),
    })),
    { keys: ['I'], says: 'paper: sheets to print, and what came back on them', also: 'print walk record labels tags schedule', group: 'job', run: deeds.toPaper },
    { keys: ['E'], says: 'to the bench: a ticket for this speaker', also: 'repair ticket taken down', group: 'job', to: ['speaker'], run: deeds.toBench },
    { keys: ['N'], says: 'practice: a fault is hidden in a copy of this line', also: 'train learn rig', group: 'job', run: deeds.toPractice },
    { keys: ['j'], says: 'all jobs', group: 'job', run: deeds.toJobs },
    { keys: ['M'], says: 'metres or feet', group: 'job', run: deeds.toggleUnits },
    ...pageKeys(deeds, 'find: a place, or anything that can be done'),
  ]
}
