import { fetchedLater } from '~/composables/fetchedLater'

/** The steps of a ticket, fetched behind the page: the server may be away when one is first opened. */
export const HeadFace = fetchedLater(() => import('./faces/HeadFace.vue'))
export const WhichFace = fetchedLater(() => import('./faces/WhichFace.vue'))
export const OpeningFace = fetchedLater(() => import('./faces/OpeningFace.vue'))
export const ReadingsFace = fetchedLater(() => import('./faces/ReadingsFace.vue'))
export const ReplacingFace = fetchedLater(() => import('./faces/ReplacingFace.vue'))
export const PlusFace = fetchedLater(() => import('./faces/PlusFace.vue'))
export const ClosingFace = fetchedLater(() => import('./faces/ClosingFace.vue'))
export const RunFace = fetchedLater(() => import('./faces/RunFace.vue'))
export const TicketPaper = fetchedLater(() => import('./TicketPaper.vue'))
