import { fetchedLater } from '~/composables/fetchedLater'

/** What of a job's page is not wanted for its first picture. */
export const JobName = fetchedLater(() => import('./JobName.vue'))
