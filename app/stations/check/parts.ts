import { fetchedLater } from '~/composables/fetchedLater'

/** What follows a reading: the place and its keys do not wait for it. */
export const FoundHere = fetchedLater(() => import('./FoundHere.vue'))
/** Of a speaker that is read which way round. */
export const PlaceOnPlan = fetchedLater(() => import('./PlaceOnPlan.vue'))
export const PolarityEntry = fetchedLater(() => import('./PolarityEntry.vue'))
export const ChecksDialog = fetchedLater(() => import('./ChecksDialog.vue'))
export const LeaveIt = fetchedLater(() => import('./LeaveIt.vue'))
export const OtherEntry = fetchedLater(() => import('./OtherEntry.vue'))
export const PhotoStrip = fetchedLater(() => import('~/photos/PhotoStrip.vue'))
export const ReadingHistory = fetchedLater(() => import('./ReadingHistory.vue'))
export const SuspectsPanel = fetchedLater(() => import('~/stations/trace/SuspectsPanel.vue'))
export const SwitchOnNotice = fetchedLater(() => import('~/stations/trace/SwitchOnNotice.vue'))
