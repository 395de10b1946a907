import { z } from 'zod'
import { speakerModelSchema } from '#core/gear/speaker'
import { idText } from '#core/quantity/fields'

/** What lies in the drawer: units that may take the place of another, as their sheets say, and how many there are. */
export const drawerFields = {
  model: speakerModelSchema,
  count: z.int().min(0, 'must be at least 0').max(10_000, 'must be at most 10 000'),
}
export const drawerItemSchema = z.strictObject({ id: idText, ...drawerFields })
export type DrawerItem = z.infer<typeof drawerItemSchema>

export const MOST_IN_DRAWER = 2000
