import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { index, setter } from '../../fields'
import { defineShape } from '../shape'
import { kindFields, kindSchema, MOST_KINDS } from './schema'

export const kinds = defineShape({
  name: 'kinds',
  fields: { kinds: z.array(kindSchema).max(MOST_KINDS) },
  empty: { kinds: [] },
  edits: [
    z.strictObject({ kind: z.literal('kind.add'), index, item: kindSchema }),
    /** Only one that no speaker and no space is of. `was`: all that it is; null: not said (so of every removal). */
    z.strictObject({ kind: z.literal('kind.remove'), kindId: idText, was: kindSchema.nullable() }),
    /** The kind alone. That its speakers follow are edits of theirs, in the same batch (job/kinds.ts). */
    z.strictObject({ kind: z.literal('kind.set'), kindId: idText, ...setter(kindFields) }),
  ],
  things: ['kind'],
  grows: null,
})
