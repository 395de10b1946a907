import { openedLater } from '~/composables/fetchedLater'

/** What opens over any page to be read. What one types into is there from the first: its first letter must not go to the page. */
export const DoneDialog = openedLater(() => import('./DoneDialog.vue'))
export const KeysDialog = openedLater(() => import('./KeysDialog.vue'))
