import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { index, setter } from '../../fields'
import { defineShape } from '../shape'
import { MOST_VARIANTS, variantFields, variantSchema } from './schema'

export const variants = defineShape({
  name: 'variants',
  fields: { variants: z.array(variantSchema).max(MOST_VARIANTS) },
  empty: { variants: [] },
  edits: [
    z.strictObject({ kind: z.literal('variant.add'), index, variant: variantSchema }),
    z.strictObject({ kind: z.literal('variant.remove'), variantId: idText, was: variantSchema.nullable() }),
    z.strictObject({ kind: z.literal('variant.set'), variantId: idText, ...setter(variantFields) }),
  ],
  things: ['variant'],
  grows: null,
})
