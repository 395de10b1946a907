import { codeLater, fetchedLater } from '~/composables/fetchedLater'

/** What is asked for beside the rails, over them or in their place: the rails, and what is found, do not wait for it. */
export const ActionMenu = fetchedLater(() => import('~/components/ActionMenu.vue'))
export const BeginHere = fetchedLater(() => import('./begin/BeginHere.vue'))
export const FindingsPane = fetchedLater(() => import('./FindingsPane.vue'))
export const ManyForm = fetchedLater(() => import('./forms/ManyForm.vue'))
export const MovePicker = fetchedLater(() => import('./forms/MovePicker.vue'))
export const OutputForm = fetchedLater(() => import('./forms/OutputForm.vue'))
export const PasteDialog = fetchedLater(() => import('./dialogs/PasteDialog.vue'))
export const PracticeForm = fetchedLater(() => import('./forms/PracticeForm.vue'))
export const PutPicker = fetchedLater(() => import('./forms/PutPicker.vue'))
export const ReadingPanel = fetchedLater(() => import('~/stations/check/ReadingPanel.vue'))
export const SheetPane = fetchedLater(() => import('./SheetPane.vue'))
export const SpeakerForm = fetchedLater(() => import('./forms/SpeakerForm.vue'))
export const SuspectsPanel = fetchedLater(() => import('~/stations/trace/SuspectsPanel.vue'))
export const ThroughForm = fetchedLater(() => import('./forms/ThroughForm.vue'))

/** What a first room is made with. */
export const rooms = codeLater(() => import('./begin/room'))
