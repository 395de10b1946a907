import { z } from 'zod'
import { idText, instant, nameText } from '#core/quantity/fields'
import { amplifierSchema, MOST_AMPLIFIERS } from '../wiring/schema'

/**
 * Another way to wire the job, kept beside the one that is drawn: its amplifiers with all that hangs on them. Ids are those of the job: readings and places
 * stay with their speakers.
 */
export const variantFields = { name: nameText }
export const variantSchema = z.strictObject({ id: idText, ...variantFields, at: instant, amplifiers: z.array(amplifierSchema).max(MOST_AMPLIFIERS) })
export type Variant = z.infer<typeof variantSchema>

/** More than these cannot be looked at side by side. */
export const MOST_VARIANTS = 3
