import type { KeyBinding } from '~/composables/keyBinding'

/** What keys do at the quick match. */
export interface QuickDeeds {
  keep: () => void
  toLine: () => void
  toJobs: () => void
  build: () => void
  toggleNight: () => void
  showKeys: () => void
}

export function quickKeys(deeds: QuickDeeds): KeyBinding[] {
  return [
    { keys: ['Enter'], says: 'keep as a job', run: deeds.keep },
    { keys: ['/'], says: 'to the line', run: deeds.toLine },
    { keys: ['j'], says: 'all jobs', run: deeds.toJobs },
    { keys: ['b'], says: 'build by tapping', run: deeds.build },
    { keys: ['n'], says: 'night or day', run: deeds.toggleNight },
    { keys: ['?'], says: 'these keys', run: deeds.showKeys },
  ]
}
