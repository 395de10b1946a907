import { z } from 'zod'
import { withUnstated } from '#core/quantity/unstated'
import { photoSchema } from '#core/job/sections/photos/schema'

/** A photo that is on this device and not with the server yet: all of it but its hash, which the server tells. */
const waitingSchema = z.strictObject({ jobId: z.string(), photo: photoSchema.omit({ hash: true }), base64: z.string() })
export type WaitingPhoto = z.infer<typeof waitingSchema>

export const photoKey = ({ photo }: Pick<WaitingPhoto, 'photo'>): string => photo.id
export const writeWaiting = (waiting: WaitingPhoto): string => JSON.stringify(waiting)

/** Null for what this page cannot read: it is left where it is, for the one that wrote it. */
export function readWaiting(text: string): WaitingPhoto | null {
  try {
    // One that an older page left has nothing in the fields that it did not know.
    const parsed = waitingSchema.safeParse(withUnstated(waitingSchema, JSON.parse(text)))
    return parsed.success ? parsed.data : null
  }
  catch {
    return null
  }
}
