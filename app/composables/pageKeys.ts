import type { Action } from './action'

/** What keys do on every page. */
export interface PageDeeds {
  /** The one field that finds whatever can be done here. */
  find: () => void
  toggleNight: () => void
  showKeys: () => void
}

export function pageKeys(deeds: PageDeeds, findSays = 'find anything that can be done here'): Action[] {
  return [
    { keys: ['/'], says: findSays, group: 'about', run: deeds.find },
    { keys: ['n'], says: 'night or day', group: 'job', run: deeds.toggleNight },
    { keys: ['?'], says: 'these keys', group: 'job', run: deeds.showKeys },
  ]
}
