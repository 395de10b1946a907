import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { defineShape } from '../shape'
import { MOST_TICKET_ENTRIES, ticketEntrySchema } from './schema'

export const tickets = defineShape({
  name: 'tickets',
  fields: { tickets: z.array(ticketEntrySchema).max(MOST_TICKET_ENTRIES) },
  empty: { tickets: [] },
  edits: [
    z.strictObject({ kind: z.literal('ticket.write'), entry: ticketEntrySchema }),
    z.strictObject({ kind: z.literal('ticket.withdraw'), entryId: idText, withdrawn: z.boolean() }),
  ],
  things: ['ticket entry'],
  grows: { list: 'tickets', entry: ticketEntrySchema, most: MOST_TICKET_ENTRIES, add: 'entry', withdraw: 'entryId', corrects: null, together: [] },
})
