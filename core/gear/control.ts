import { z } from 'zod'
import { bounded, nameText, plainText, watt } from '#core/quantity/fields'
import { field, flag, numeric } from './field'
import { lineV } from './load'
import { price } from './speaker'

/** A volume control in a line: what hangs behind it may not exceed its rating. */
export const controlModelFields = {
  name: field(nameText, 'name', { also: '^(model|type|item|article|product|control)$' }),
  ratingW: numeric(watt, 'rating', 'W', 'rating|power|watts'),
  linesV: field(z.array(lineV).max(6), 'for lines of, V', { cell: 'numbers', also: 'lines?|volt' }),
  /** Losses of its positions. */
  stepsDb: field(z.array(bounded('dB', 0, 120)).max(40), 'positions, dB down', { cell: 'numbers', also: 'steps?|positions?' }),
  insertionDb: numeric(bounded('dB', 0, 12), 'loss fully up', 'dB', 'insertion|loss'),
  hasOff: flag('off position', '^off'),
  priorityRelay: flag('priority relay', 'relay|priority|override'),
  price: numeric(price, 'price', '', 'price|cost|net|list'),
  remark: field(plainText(500), 'remark', { also: 'remarks?|notes?|comment' }),
}
export const controlModelSchema = z.strictObject(controlModelFields)
export type ControlModel = z.infer<typeof controlModelSchema>
