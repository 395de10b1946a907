import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { index, setter } from '../../fields'
import { defineShape } from '../shape'
import { drawerFields, drawerItemSchema, MOST_IN_DRAWER } from './schema'

export const drawer = defineShape({
  name: 'drawer',
  fields: { drawer: z.array(drawerItemSchema).max(MOST_IN_DRAWER) },
  empty: { drawer: [] },
  edits: [
    z.strictObject({ kind: z.literal('drawer.add'), index, item: drawerItemSchema }),
    z.strictObject({ kind: z.literal('drawer.remove'), drawerId: idText, was: drawerItemSchema.nullable() }),
    z.strictObject({ kind: z.literal('drawer.set'), drawerId: idText, ...setter(drawerFields) }),
  ],
  things: ['drawer item'],
  grows: null,
})
