/** What a page says where it is not let in; the codes of the answers 401 and 403 of the server. */
export const DOOR_WORDS = {
  'not-let-in': 'This device has not been let in.',
  'taken-back': 'This device was taken back: it is no longer let in.',
  'not-yours': 'Only the machine that serves, and devices that may let others in, can do this.',
} as const
export type DoorRefusal = keyof typeof DOOR_WORDS
