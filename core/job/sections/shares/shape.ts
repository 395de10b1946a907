import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { defineShape } from '../shape'
import { MOST_SHARES, sharerSchema, shareSchema } from './schema'

/** Null: nobody in particular. */
const shared = z.strictObject({ sharer: sharerSchema.nullable() })

export const shares = defineShape({
  name: 'shares',
  fields: { shares: z.array(shareSchema).max(MOST_SHARES).refine(list => new Set(list.map(s => s.roomId)).size === list.length, 'must give each room to one') },
  empty: { shares: [] },
  edits: [z.strictObject({ kind: z.literal('share.set'), roomId: idText, was: shared, to: shared })],
  things: [],
  grows: null,
})
