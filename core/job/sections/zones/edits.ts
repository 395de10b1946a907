import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { index, setter } from '../../fields'
import { zoneFields, zoneSchema } from './schema'

export const zoneEdits = [
  z.strictObject({ kind: z.literal('zone.add'), index, zone: zoneSchema }),
  /** Only one that no speaker is in. */
  z.strictObject({ kind: z.literal('zone.remove'), zoneId: idText }),
  z.strictObject({ kind: z.literal('zone.set'), zoneId: idText, ...setter(zoneFields) }),
] as const
