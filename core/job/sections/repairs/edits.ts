import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { repairSchema } from './schema'

export const repairEdits = [
  z.strictObject({ kind: z.literal('repair.add'), repair: repairSchema }),
  z.strictObject({ kind: z.literal('repair.withdraw'), repairId: idText, withdrawn: z.boolean() }),
] as const
