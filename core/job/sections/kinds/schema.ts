import { z } from 'zod'
import { speakerModelSchema } from '#core/gear/speaker'
import { idText } from '#core/quantity/fields'
import { originSchema } from '../origin'

/**
 * What equals share. A kind is a copy of a model, the job's own: its file stands alone, and a library changes nothing behind its
 * back. Speakers name it; what they have otherwise than it was set by hand.
 */
export const kindFields = {
  /** What it is a copy of; null for the job's own. */
  from: originSchema.nullable(),
  model: speakerModelSchema,
}
export const kindSchema = z.strictObject({ what: z.literal('speaker'), id: idText, ...kindFields })
export type Kind = z.infer<typeof kindSchema>

export const MOST_KINDS = 500
