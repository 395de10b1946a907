import { fetchedLater } from '~/composables/fetchedLater'

/** What is said beside the pairs, and what opens over them: they do not wait for it. */
export const ActionMenu = fetchedLater(() => import('~/components/ActionMenu.vue'))
export const BareRunDialog = fetchedLater(() => import('./BareRunDialog.vue'))
export const HarnessDialog = fetchedLater(() => import('./HarnessDialog.vue'))
export const PlusDialog = fetchedLater(() => import('./PlusDialog.vue'))
export const RackDialog = fetchedLater(() => import('./RackDialog.vue'))
export const ScheduleDialog = fetchedLater(() => import('./ScheduleDialog.vue'))
export const WirePane = fetchedLater(() => import('./WirePane.vue'))
