import { z } from 'zod'
import { bounded, hertz, nameText, ohm, plainText, watt } from '#core/quantity/fields'
import { field, numeric } from './field'
import { price, scalesSchema } from './speaker'

/** A line transformer by itself: taps towards the line, ohms towards the speakers. */
export const transformerModelFields = {
  name: field(nameText, 'name', { also: '^(model|type|item|article|product|transformer)$' }),
  ratingW: numeric(watt, 'rating', 'W', 'rating|power|watts'),
  scales: field(scalesSchema, 'taps', { cell: 'scales', also: 'taps?|primary' }),
  secondariesOhm: field(z.array(ohm).max(12), 'for speakers of, Ω', { cell: 'numbers', also: 'secondar|ohms?|impedance' }),
  insertionDb: numeric(bounded('dB', 0, 12), 'loss', 'dB', 'insertion|loss'),
  lowHz: numeric(hertz, 'from', 'Hz', 'low|from'),
  price: numeric(price, 'price', '', 'price|cost|net|list'),
  remark: field(plainText(500), 'remark', { also: 'remarks?|notes?|comment' }),
}
export const transformerModelSchema = z.strictObject(transformerModelFields)
export type TransformerModel = z.infer<typeof transformerModelSchema>
