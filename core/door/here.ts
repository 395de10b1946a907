import { z } from 'zod'
import { idText } from '#core/quantity/fields'

/** Where in a job somebody is: the station and what is chosen there. */
const placeSchema = z.strictObject({ station: idText, outputId: idText.nullable(), nodeId: idText.nullable() })
export type HerePlace = z.infer<typeof placeSchema>

/** What a window tells of itself now and then; without a place it leaves. */
export const hereSchema = z.strictObject({ by: idText, place: placeSchema.nullable() })

/** Another window on the same job; `who` null is one at the machine that serves. */
export interface Other extends HerePlace { by: string, who: string | null }

/** The beat in which a window says that it is there. */
export const BEAT_MS = 15_000
