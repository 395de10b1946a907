import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { index, setter } from '../../fields'
import { kindFields, kindSchema } from './schema'

export const kindEdits = [
  z.strictObject({ kind: z.literal('kind.add'), index, item: kindSchema }),
  /** Only one that no speaker is of. */
  z.strictObject({ kind: z.literal('kind.remove'), kindId: idText }),
  /** The kind alone. That its speakers follow are edits of theirs, in the same batch (job/kinds.ts). */
  z.strictObject({ kind: z.literal('kind.set'), kindId: idText, ...setter(kindFields) }),
] as const
