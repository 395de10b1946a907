import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { defineShape } from '../shape'
import { MOST_REPAIRS, repairSchema } from './schema'

export const repairs = defineShape({
  name: 'repairs',
  fields: { repairs: z.array(repairSchema).max(MOST_REPAIRS) },
  empty: { repairs: [] },
  edits: [
    z.strictObject({ kind: z.literal('repair.add'), repair: repairSchema }),
    z.strictObject({ kind: z.literal('repair.withdraw'), repairId: idText, withdrawn: z.boolean() }),
  ],
  things: ['repair'],
  grows: { list: 'repairs', entry: repairSchema, most: MOST_REPAIRS, add: 'repair', withdraw: 'repairId', corrects: null, together: [] },
})
