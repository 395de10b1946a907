import { fetchedLater } from '~/composables/fetchedLater'

/** Beside the answer, not before it. */
export const SchoolScale = fetchedLater(() => import('./SchoolScale.vue'))
