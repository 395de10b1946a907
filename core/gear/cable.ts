import { z } from 'zod'
import { AWG_RANGE, CLASS5_OHM_PER_KM } from '#core/quantity/cable'
import { nameText, plainText } from '#core/quantity/fields'
import { conductorSchema } from './conductor'
import { field, numeric } from './field'
import { price } from './speaker'

const areas = [...CLASS5_OHM_PER_KM.keys()]
export const cableSchema = z.union([
  z.strictObject({ awg: z.int().min(AWG_RANGE.thickest).max(AWG_RANGE.thinnest) }),
  z.strictObject({ areaMm2: z.number().refine(area => CLASS5_OHM_PER_KM.has(area), `must be one of ${areas.join(', ')} mm²`) }),
])

export const cableModelFields = {
  name: field(nameText, 'name', { also: '^(model|type|item|article|product|cable)$' }),
  size: field(cableSchema, 'size', { cell: 'cable', also: 'gauge|awg|mm2|mm²|cross|size' }),
  conductors: field(z.array(conductorSchema).max(24), 'conductors', { cell: 'colours', also: 'colou?rs?|cores|conductors' }),
  /** What its maker says of listings; the local code decides. */
  listing: field(plainText(200), 'listing, as its maker says', { also: 'listing|rating|class|standard' }),
  price: numeric(price, 'price a metre', '', 'price|cost|net|list'),
  remark: field(plainText(500), 'remark', { also: 'remarks?|notes?|comment' }),
}
export const cableModelSchema = z.strictObject(cableModelFields)
export type CableModel = z.infer<typeof cableModelSchema>
