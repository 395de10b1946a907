import { z } from 'zod'
import { speakerModelSchema } from '#core/gear/speaker'
import { idText } from '#core/quantity/fields'

const versionNumber = z.int().min(1).max(1_000_000)

/**
 * What equals share. A kind is a copy of a model, the job's own: its file stands alone, and a library changes nothing behind its
 * back. Speakers name it; what they have otherwise than it was set by hand.
 */
export const kindFields = {
  /** The version of the library's model that it is a copy of, and the newest one that was looked at and not taken; null for the job's own. */
  from: z.strictObject({ modelId: idText, version: versionNumber, passed: versionNumber.nullable() }).nullable(),
  model: speakerModelSchema,
}
export const kindSchema = z.strictObject({ what: z.literal('speaker'), id: idText, ...kindFields })
export type Kind = z.infer<typeof kindSchema>

export const MOST_KINDS = 500
