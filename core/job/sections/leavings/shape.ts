import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { defineShape } from '../shape'
import { leavingSchema, MOST_LEAVINGS } from './schema'

export const leavings = defineShape({
  name: 'leavings',
  fields: { leavings: z.array(leavingSchema).max(MOST_LEAVINGS) },
  empty: { leavings: [] },
  edits: [
    z.strictObject({ kind: z.literal('leaving.add'), leaving: leavingSchema }),
    z.strictObject({ kind: z.literal('leaving.withdraw'), leavingId: idText, withdrawn: z.boolean() }),
  ],
  things: ['leaving'],
  grows: { list: 'leavings', entry: leavingSchema, most: MOST_LEAVINGS, add: 'leaving', withdraw: 'leavingId', corrects: null, together: [] },
})
