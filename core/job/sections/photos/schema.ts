import { z } from 'zod'
import { idText, instant, plainText } from '#core/quantity/fields'

/** Pictures of what was found: of a place, of a speaker, of a repair. The job names each by the hash of its bytes; the bytes are kept beside it. */

export const MOST_PHOTOS = 300
/** As it is kept: scaled down on the device. */
export const MOST_PHOTO_BYTES = 400_000
export const MOST_PHOTO_PX = 1600

/** SHA-256 of the bytes, in hexadecimal. */
export const photoHash = z.string().regex(/^[0-9a-f]{64}$/, 'must be the hash of a photo: 64 hexadecimal digits')

export const photoSchema = z.strictObject({
  id: idText,
  at: instant,
  outputId: idText,
  /** The speaker or group that it shows; null: at the rack. */
  nodeId: idText.nullable(),
  /** The repair that it shows, of the same line; null: none. A server that takes a photo in has not read the repairs: one that is not there counts as none. */
  repairId: idText.nullable(),
  hash: photoHash,
  widthPx: z.int().min(1).max(MOST_PHOTO_PX),
  heightPx: z.int().min(1).max(MOST_PHOTO_PX),
  caption: plainText(200),
  /** The person who took it; null while nobody has signed in. */
  who: idText.nullable(),
  /** Taken off; kept in the history. */
  withdrawn: z.boolean(),
})
export type Photo = z.infer<typeof photoSchema>
