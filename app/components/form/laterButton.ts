import { fetchedLater } from '~/composables/fetchedLater'

/** The library's button, where the first picture of a page does not wait for it: with what it stands on it is 17 kB. */
export default fetchedLater(() => import('primevue/button'))
