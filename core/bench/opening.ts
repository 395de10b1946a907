import type { PART_KINDS } from '#core/job/sections/tickets/schema'
import { writtenOf, type Entry, type Ticket } from './ticket'

/** What was taken out of a unit, and what of it is in again. */

export interface Part { id: string, kind: (typeof PART_KINDS)[number], name: string, count: number, place: string, back: number }

/** In the order in which they came out: they go in the other way. Of what is said of a part's return the last counts. */
export function partsOf(ticket: Pick<Ticket, 'entries'>): Part[] {
  const back = new Map(writtenOf(ticket, 'back').map(({ what }) => [what.partId, what.count]))
  return writtenOf(ticket, 'part').map(({ id, what: { kind, name, count, place } }) => ({ id, kind, name, count, place, back: Math.min(count, back.get(id) ?? 0) }))
}

export const missingOf = (ticket: Pick<Ticket, 'entries'>): Part[] => partsOf(ticket).filter(p => p.back < p.count)

export function missingWords({ name, count, back, place }: Part): string {
  const where = place ? ` (${place})` : ''
  return count === 1 ? `“${name}”${where} is not back in` : `${count - back} of ${count} “${name}”${where} ${count - back === 1 ? 'is' : 'are'} missing`
}

const nameOf = ({ head }: Ticket) => head.unit.trim().toLowerCase()

/** What was taken out of the last unit of that name: a list made once serves the next. Null: nobody has opened one. */
export function listOfModel(tickets: readonly Ticket[], ticket: Ticket): { from: Ticket, parts: Entry<'part'>['what'][] } | null {
  const earlier = tickets.filter(t => t.id !== ticket.id && nameOf(t) === nameOf(ticket) && writtenOf(t, 'part').length > 0).sort((a, b) => a.openedAt.localeCompare(b.openedAt)).at(-1)
  return earlier ? { from: earlier, parts: writtenOf(earlier, 'part').map(e => e.what) } : null
}
