import type { Action } from '~/composables/action'

/** What keys do at the quick match. */
export interface QuickDeeds {
  keep: () => void
  toLine: () => void
  toJobs: () => void
  build: () => void
  toggleNight: () => void
  showKeys: () => void
}

export function quickKeys(deeds: QuickDeeds): Action[] {
  return [
    { keys: ['Enter'], says: 'keep as a job', group: 'build', run: deeds.keep },
    { keys: ['/'], says: 'to the line', group: 'about', run: deeds.toLine },
    { keys: ['j'], says: 'all jobs', group: 'about', run: deeds.toJobs },
    { keys: ['b'], says: 'build by tapping', group: 'build', run: deeds.build },
    { keys: ['n'], says: 'night or day', group: 'job', run: deeds.toggleNight },
    { keys: ['?'], says: 'these keys', group: 'job', run: deeds.showKeys },
  ]
}
