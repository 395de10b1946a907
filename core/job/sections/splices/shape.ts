import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { setter } from '../../fields'
import { defineShape } from '../shape'
import { MOST_EXCEPTIONS, MOST_SPLICES, pairSchema, spliceFields, spliceSchema } from './schema'

const exceptions = z.array(pairSchema).max(MOST_EXCEPTIONS)

export const splices = defineShape({
  name: 'splices',
  fields: { colourExceptions: exceptions, splices: z.array(spliceSchema).max(MOST_SPLICES) },
  empty: { colourExceptions: [], splices: [] },
  edits: [
    z.strictObject({ kind: z.literal('colours.set'), was: exceptions, to: exceptions }),
    /** Says of the lead to a node, or of its terminals, what was not said; a node of which nothing was said has an entry from then on. */
    z.strictObject({ kind: z.literal('splice.set'), nodeId: idText, ...setter(spliceFields) }),
  ],
  things: ['splice'],
  grows: null,
})
