import type { Job } from '#core/job/schema'
import type { Share } from '#core/job/sections/shares/schema'
import type { WalkRoom } from './walkOrder'

/** A walk that is shared out: which rooms are mine, and where I go on. */

export interface SharedRoom extends WalkRoom {
  /** Null: nobody in particular. */
  share: Share | null
  isMine: boolean
}

/** @param who the device that walks; null at the machine that serves */
export function sharedRooms({ shares }: Pick<Job, 'shares'>, rooms: readonly WalkRoom[], who: string | null): SharedRoom[] {
  return rooms.map((room) => {
    const share = shares.find(s => s.roomId === room.id) ?? null
    return { ...room, share, isMine: share !== null && share.who === who }
  })
}

/**
 * Where one goes on by itself: in one's own rooms while any of these has something open; then in rooms that are nobody's; never into another's, whose ladder
 * stands there.
 */
export function roomsToWalk(rooms: readonly SharedRoom[], isOpen: (room: WalkRoom) => boolean): SharedRoom[] {
  const mine = rooms.filter(room => room.isMine)
  return mine.some(isOpen) ? mine : rooms.filter(room => room.share === null || room.isMine)
}
