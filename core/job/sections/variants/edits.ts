import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { index, setter } from '../../fields'
import { variantFields, variantSchema } from './schema'

export const variantEdits = [
  z.strictObject({ kind: z.literal('variant.add'), index, variant: variantSchema }),
  z.strictObject({ kind: z.literal('variant.remove'), variantId: idText }),
  z.strictObject({ kind: z.literal('variant.set'), variantId: idText, ...setter(variantFields) }),
] as const
