import { z } from 'zod'
import { MOST_NAME } from '#core/door/door'
import { idText, plainText } from '#core/quantity/fields'
import { MOST_SPACES } from '../spaces/schema'

/** Who walks which room: the checks of a job shared out between people on the way. */

/** Places of a walk that are no space: where the lines begin, and where speakers hang of which no room is drawn. */
export const AT_THE_RACK = 'at-the-rack'
export const IN_NO_ROOM = 'in-no-room'

/** `who`: the device; null at the machine that serves. Its name as it was then, so that a file tells it, too. */
export const sharerSchema = z.strictObject({ who: idText.nullable(), name: plainText(MOST_NAME) })
export type Sharer = z.infer<typeof sharerSchema>

/** A room that is gone counts as none. */
export const shareSchema = z.strictObject({ roomId: idText, ...sharerSchema.shape })
export type Share = z.infer<typeof shareSchema>

/** Of every space, of the rack, and of what hangs in no room. */
export const MOST_SHARES = MOST_SPACES + 2

/** What a place of the walk is called; '' for a room that is gone. */
export function roomName({ spaces }: { spaces: readonly { id: string, name: string }[] }, roomId: string): string {
  return roomId === AT_THE_RACK ? 'at the rack' : roomId === IN_NO_ROOM ? 'in no room' : spaces.find(s => s.id === roomId)?.name ?? ''
}
