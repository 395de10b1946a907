import { z } from 'zod'
import { idText, nameText } from '#core/quantity/fields'

/** Speakers that are to have one level of their own, whatever gives it to them. Speakers name their zone. */
export const zoneFields = { name: nameText }
export const zoneSchema = z.strictObject({ id: idText, ...zoneFields })
export type Zone = z.infer<typeof zoneSchema>

export const MOST_ZONES = 500
