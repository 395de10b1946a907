import { fetchedLater } from '~/composables/fetchedLater'

/** Fetched behind the page: the server may be away when one is first shown. */
export const AfterPane = fetchedLater(() => import('./AfterPane.vue'))
export const MakeExercise = fetchedLater(() => import('./MakeExercise.vue'))
