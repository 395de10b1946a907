import type { Action } from '~/composables/action'
import { pageKeys, type PageDeeds } from '~/composables/pageKeys'

/** What keys do at the quick match. */
export interface QuickDeeds extends PageDeeds {
  keep: () => void
  toLine: () => void
  toJobs: () => void
  build: () => void
}

export function quickKeys(deeds: QuickDeeds): Action[] {
  return [
    { keys: ['Enter'], says: 'keep as a job', group: 'build', run: deeds.keep },
    { keys: ['l'], says: 'to the line', group: 'about', run: deeds.toLine },
    { keys: ['j'], says: 'all jobs', group: 'about', run: deeds.toJobs },
    { keys: ['b'], says: 'build by tapping', group: 'build', run: deeds.build },
    ...pageKeys(deeds),
  ]
}
