import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { readingSchema } from './schema'

export const readingEdits = [
  z.strictObject({ kind: z.literal('reading.add'), reading: readingSchema }),
  z.strictObject({ kind: z.literal('reading.withdraw'), readingId: idText, withdrawn: z.boolean() }),
] as const
