import { openedLater } from '~/composables/fetchedLater'

/** What opens over any page. */
export const DoneDialog = openedLater(() => import('./DoneDialog.vue'))
export const FindBox = openedLater(() => import('./FindBox.vue'))
export const KeysDialog = openedLater(() => import('./KeysDialog.vue'))
