import { fetchedLater } from '~/composables/fetchedLater'

/** What is said beside the plan, and what opens over it: the plan does not wait for it. */
export const ActionMenu = fetchedLater(() => import('~/components/ActionMenu.vue'))
export const AmplifierDialog = fetchedLater(() => import('~/stations/match/dialogs/AmplifierDialog.vue'))
export const FloorDialog = fetchedLater(() => import('./FloorDialog.vue'))
export const MeasureForm = fetchedLater(() => import('./MeasureForm.vue'))
export const SpaceForm = fetchedLater(() => import('./SpaceForm.vue'))
export const SpacePane = fetchedLater(() => import('./SpacePane.vue'))
export const TapPlanDialog = fetchedLater(() => import('./TapPlanDialog.vue'))
export const WhatIfDialog = fetchedLater(() => import('~/stations/match/dialogs/WhatIfDialog.vue'))
