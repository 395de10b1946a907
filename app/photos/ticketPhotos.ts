import { isOf, writing } from '#core/bench/ticket'
import { BENCH_ID } from '#core/job/bench'
import type { SimpleEdit } from '#core/job/edits'
import type { TicketEntry } from '#core/job/schema'
import type { Photo } from '#core/job/sections/photos/schema'

/** A photo of a ticket is written on it; for whoever shows and sends photos its ticket stands where the line of another stands. */

export function ticketPhotos(entries: readonly TicketEntry[]): Photo[] {
  return entries.filter(isOf('photo')).flatMap(({ id, at, ticketId, who, withdrawn, what: { hash, widthPx, heightPx, caption } }) =>
    withdrawn ? [] : [{ id, at, outputId: ticketId, nodeId: null, repairId: null, hash, widthPx, heightPx, caption, who, withdrawn }])
}

export function addingPhoto(jobId: string, photo: Photo): SimpleEdit {
  if (jobId !== BENCH_ID) return { kind: 'photo.add', photo }
  const { id, at, who, outputId, hash, widthPx, heightPx, caption } = photo
  return writing(outputId, { is: 'photo', hash, widthPx, heightPx, caption }, { id, at, who })
}

export const withdrawingPhoto = (jobId: string, id: string): SimpleEdit => jobId === BENCH_ID
  ? { kind: 'ticket.withdraw', entryId: id, withdrawn: true }
  : { kind: 'photo.withdraw', photoId: id, withdrawn: true }
