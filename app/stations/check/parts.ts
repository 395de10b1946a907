import { fetchedLater } from '~/composables/fetchedLater'

/** What follows a reading: the place and its keys do not wait for it. */
export const FoundHere = fetchedLater(() => import('./FoundHere.vue'))
/** Of a speaker that is read which way round. */
export const PlaceOnPlan = fetchedLater(() => import('./PlaceOnPlan.vue'))
export const PolarityEntry = fetchedLater(() => import('./PolarityEntry.vue'))
export const BandScale = fetchedLater(() => import('./BandScale.vue'))
export const ChecksDialog = fetchedLater(() => import('./ChecksDialog.vue'))
export const LeaveIt = fetchedLater(() => import('./LeaveIt.vue'))
export const LevelEntry = fetchedLater(() => import('./LevelEntry.vue'))
export const OtherEntry = fetchedLater(() => import('./OtherEntry.vue'))
export const PhotoStrip = fetchedLater(() => import('~/photos/PhotoStrip.vue'))
export const ReadingHistory = fetchedLater(() => import('./ReadingHistory.vue'))
/** A field for a note that is asked for. */
export const NoteInput = fetchedLater(() => import('primevue/inputtext'))
export const ReadingWith = fetchedLater(() => import('./ReadingWith.vue'))
export const SameBehind = fetchedLater(() => import('./SameBehind.vue'))
export const VerdictSays = fetchedLater(() => import('./VerdictSays.vue'))
export const SuspectsPanel = fetchedLater(() => import('~/stations/trace/SuspectsPanel.vue'))
export const SwitchOnNotice = fetchedLater(() => import('~/stations/trace/SwitchOnNotice.vue'))
/** Who walks a room, where the walk goes by rooms. */
export const ShareRow = fetchedLater(() => import('./ShareRow.vue'))
/** Which bench meter reads by wire. */
export const MetersDialog = fetchedLater(() => import('~/meter/MetersDialog.vue'))
