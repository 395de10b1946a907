import { fetchedLater } from '~/composables/fetchedLater'

/** Jobs that this device has: the list itself does not wait for them. */
export const KeptHere = fetchedLater(() => import('./KeptHere.vue'))
/** What waits of the library, with all that gear is made of: not wanted for the first picture of the list. What waits of jobs is: the server may be away. */
export const WaitingGear = fetchedLater(() => import('~/components/gear/WaitingGear.vue'))
/** Phones and other machines: for the desk, now and then. */
export const DevicesDialog = fetchedLater(() => import('~/door/DevicesDialog.vue'))
