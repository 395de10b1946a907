import type { Job, TicketEntry, TicketHead, Written } from '#core/job/schema'

/** A ticket as it stands: what was written on it, folded. Times are ISO 8601 in UTC, days YYYY-MM-DD. */

export type Entry<I extends Written['is'] = Written['is']> = TicketEntry & { what: Extract<Written, { is: I }> }
type State = Extract<Written, { is: 'state' }>

export interface Ticket {
  id: string
  /** Its number on the bench: in the order in which tickets were opened, those taken back counted too, so that it never changes. */
  number: number
  head: TicketHead
  state: State
  openedAt: string
  changedAt: string
  /** Its opening was taken back, and others have written on it: it is shown all the same. */
  isTakenBack: boolean
  /** What stands, in order; what was taken back is left out. */
  entries: readonly TicketEntry[]
}

const CAME_IN: State = { is: 'state', state: 'came-in', on: null, as: null, reason: '' }

/** Folded once a list of a ticket: the list keeps its identity while nothing is written on that ticket. */
const folded = new WeakMap<readonly TicketEntry[], Ticket | null>()

export const isOf = <I extends Written['is']>(is: I) => (entry: TicketEntry): entry is Entry<I> => entry.what.is === is

/** Entries of one sort, in order. */
export const writtenOf = <I extends Written['is']>({ entries }: Pick<Ticket, 'entries'>, is: I): Entry<I>[] => entries.filter(isOf(is))

function fold(all: readonly TicketEntry[], number: number): Ticket | null {
  const opened = all.find(isOf('opened'))
  if (!opened) return null
  const entries = all.filter(e => !e.withdrawn)
  if (opened.withdrawn && entries.length === 0) return null
  const head = entries.filter(isOf('told')).reduce<TicketHead>((so, { what }) => ({ ...so, ...what.to }), opened.what.head)
  const state = entries.findLast(isOf('state'))?.what ?? CAME_IN
  const changedAt = entries.reduce((latest, { at }) => at > latest ? at : latest, opened.at)
  return { id: opened.id, number, head, state, openedAt: opened.at, changedAt, isTakenBack: opened.withdrawn, entries }
}

function foldedOf(all: readonly TicketEntry[], number: number): Ticket | null {
  const known = folded.get(all)
  if (known !== undefined) return known
  const ticket = fold(all, number)
  folded.set(all, ticket)
  return ticket
}

/** The openings of the bench that was looked at last: with each entry that is written all of 40,000 were gone through, 40 ms. */
let known: { count: number, lastId: string, ids: readonly string[] } = { count: 0, lastId: '', ids: [] }
/** Ids of the tickets that were opened, in order: entries only ever come after those that are there, unless what waits here is put behind what others wrote. */
function openedIn(tickets: Job['tickets']): readonly string[] {
  const [last] = known.count > 0 && known.count <= tickets.size ? tickets.since(known.count - 1) : []
  const isSame = last !== undefined && last.id === known.lastId
  const ids = isSame ? [...known.ids] : []
  let { count, lastId } = isSame ? known : { count: 0, lastId: '' }
  for (const entry of tickets.since(count)) {
    count++
    lastId = entry.id
    if (entry.what.is === 'opened') ids.push(entry.id)
  }
  known = { count, lastId, ids }
  return ids
}

/** Every ticket of a bench, in the order of their numbers. */
export function ticketsOf({ tickets }: Pick<Job, 'tickets'>): Ticket[] {
  return openedIn(tickets).flatMap((id, k) => foldedOf(tickets.under(id), k + 1) ?? [])
}

export const ticketOf = (job: Pick<Job, 'tickets'>, ticketId: string): Ticket | null => ticketsOf(job).find(t => t.id === ticketId) ?? null

/** The edit that writes something on a ticket. */
export function writing(ticketId: string, what: Written, by: { id: string, at: string, who: string | null }) {
  return { kind: 'ticket.write' as const, entry: { ...by, ticketId: what.is === 'opened' ? by.id : ticketId, what, withdrawn: false } }
}

/** What one asks of the list. */
export interface TicketAsk { words: string, state: State['state'] | 'in-hand' | 'to-see' | null, isOldestFirst: boolean }

const dayOf = (at: string) => at.slice(0, 10)
const DAY_MS = 86_400_000
/** Whole days between two days. */
export const daysBetween = (from: string, to: string): number => Math.round((Date.parse(dayOf(to)) - Date.parse(dayOf(from))) / DAY_MS)
export const daysAfter = (day: string, days: number): string => new Date(Date.parse(dayOf(day)) + days * DAY_MS).toISOString().slice(0, 10)

/** A day on which it is to be looked at again and has not been; null: none. Gone out, too: two weeks later somebody asks. */
export const seeAgainOn = ({ state }: Ticket): string | null => state.state === 'again' || state.state === 'gone-out' ? state.on : null

function textOf({ head, number, state, entries }: Ticket): string {
  const said = entries.flatMap(({ what }) => what.is === 'said' ? what.text : what.is === 'fit' ? `${what.name} ${what.note}` : what.is === 'part' ? `${what.name} ${what.place}` : [])
  return [`#${number}`, head.unit, head.kind, head.complaint, head.folklore, head.from?.says, state.reason, ...said].join(' ').toLowerCase()
}

/** Tickets that hold every word, of a state. What is to be seen again comes by its day, everything else by what was last changed, or by its age. */
export function foundTickets(tickets: readonly Ticket[], { words, state, isOldestFirst }: TicketAsk): Ticket[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean)
  const found = tickets.filter(ticket => fits(ticket, state) && (wanted.length === 0 || (text => wanted.every(w => text.includes(w)))(textOf(ticket))))
  if (state === 'to-see') return found.sort((a, b) => seeAgainOn(a)!.localeCompare(seeAgainOn(b)!) || a.number - b.number)
  if (isOldestFirst) return found.sort((a, b) => a.openedAt.localeCompare(b.openedAt) || a.number - b.number)
  return found.sort((a, b) => b.changedAt.localeCompare(a.changedAt) || b.number - a.number)
}
function fits(ticket: Ticket, state: TicketAsk['state']): boolean {
  if (state === 'in-hand') return ticket.state.state !== 'gone-out'
  if (state === 'to-see') return seeAgainOn(ticket) !== null
  return state === null || ticket.state.state === state
}
