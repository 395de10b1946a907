import { z } from 'zod'
import { nameText, noteText } from '#core/quantity/fields'
import { UNITS } from '#core/quantity/units'

/** What a job is called, what is to be known of it, and the units that it is spoken of in; null: as each person reads it. Kept values are SI all the same. */
export const detailFields = { name: nameText, note: noteText, units: z.enum(UNITS).nullable() }
