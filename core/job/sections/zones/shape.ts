import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { index, setter } from '../../fields'
import { defineShape } from '../shape'
import { MOST_ZONES, zoneFields, zoneSchema } from './schema'

export const zones = defineShape({
  name: 'zones',
  fields: { zones: z.array(zoneSchema).max(MOST_ZONES) },
  empty: { zones: [] },
  edits: [
    z.strictObject({ kind: z.literal('zone.add'), index, zone: zoneSchema }),
    /** Only one that no speaker is in. */
    z.strictObject({ kind: z.literal('zone.remove'), zoneId: idText, was: zoneSchema.nullable() }),
    z.strictObject({ kind: z.literal('zone.set'), zoneId: idText, ...setter(zoneFields) }),
  ],
  things: ['zone'],
  grows: null,
})
