import { fetchedLater } from '~/composables/fetchedLater'

/** What of a job's page is not wanted for its first picture. */
export const JobName = fetchedLater(() => import('./JobName.vue'))
/** What was not taken is told; it cannot be, before something was done. */
export const RefusalNotice = fetchedLater(() => import('~/components/shell/RefusalNotice.vue'))
/** Others on the same job: heard of a moment later. */
export const TogetherNotice = fetchedLater(() => import('~/together/TogetherNotice.vue'))
