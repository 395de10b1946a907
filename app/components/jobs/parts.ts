import { codeLater, fetchedLater } from '~/composables/fetchedLater'

/** What waits on this device, with all that a job and gear are made of: not wanted for the first picture of the list. */
export const WaitingEdits = fetchedLater(() => import('./WaitingEdits.vue'))
export const WaitingGear = fetchedLater(() => import('~/components/gear/WaitingGear.vue'))

/** Sends what waits of jobs that are not open. */
export const outbox = codeLater(() => import('~/stores/outbox'))
