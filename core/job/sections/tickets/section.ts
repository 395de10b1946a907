import { refuse } from '../../refusal'
import { growingRules } from '../growing'
import { none, type Section } from '../section'
import type { TicketEntry } from './schema'
import { tickets as shape } from './shape'

const { add, withdraw } = growingRules({
  shape,
  entryOf: (edit: { kind: 'ticket.write', entry: TicketEntry }) => edit.entry,
  withdrawal: (entryId, withdrawn) => ({ kind: 'ticket.withdraw' as const, entryId, withdrawn }),
  idOf: ({ entryId, withdrawn }) => ({ id: entryId, withdrawn }),
  // Whether its ticket is there is not asked: a server holds the entries that an edit is about and no others.
  fits: (_, { id, ticketId, what }, isNew) => {
    if (isNew && (what.is === 'opened') !== (id === ticketId)) refuse({ code: 'not-valid', message: 'A ticket bears the id of the entry that opens it.' })
  },
  words: { add: 'written on a ticket', withdraw: 'taken back on a ticket' },
})

export const tickets: Section<'tickets'> = {
  shape,
  edits: { 'ticket.write': add, 'ticket.withdraw': withdraw },
  fields: {},
  lists: { tickets: (_, number) => `ticket entry no. ${number}` },
  has: (job, id) => job.tickets.get(id) !== undefined,
  ids: ({ tickets }) => tickets.map((entry, k) => [entry.id, `tickets[${k}].id`] as const),
  names: none,
}
