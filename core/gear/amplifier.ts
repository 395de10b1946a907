import { z } from 'zod'
import { bounded, nameText, ohm, plainText, watt } from '#core/quantity/fields'
import { field, flag, numeric } from './field'
import { lineV } from './load'
import { price } from './speaker'

/** Equal outputs of an amplifier: what each gives into loads, or on lines. */
const outputsSchema = z.array(z.strictObject({
  count: z.int().min(1).max(200),
  points: z.array(z.strictObject({ loadOhm: ohm, powerW: watt })).max(8),
  lines: z.array(z.strictObject({ lineV, powerW: watt })).max(6),
  floorOhm: ohm.nullable(),
})).max(20).refine(groups => groups.every(g => g.points.length + g.lines.length > 0), 'must have a rating for each output')

export const amplifierModelFields = {
  name: field(nameText, 'name', { also: '^(model|type|item|article|product|amplifier)$' }),
  purpose: field(plainText(200), 'what it is for', { also: 'purpose|use|application|description' }),
  outputs: field(outputsSchema, 'outputs', { cell: 'outputs', also: 'outputs?|ratings?|power|channels' }),
  /** Lowest load of two outputs bridged; null where that is not stated, or not possible. */
  bridgedFloorOhm: numeric(ohm, 'bridged, from', 'Ω', 'bridge'),
  gainDb: numeric(bounded('dB', 0, 80), 'gain', 'dB', 'gain'),
  inputV: numeric(bounded('V', 0.001, 20), 'input for full power', 'V', 'input sensitivity|sensitivity'),
  highPassHz: numeric(bounded('Hz', 1, 1000), 'high-pass', 'Hz', 'high.?pass|low.?cut'),
  limiter: flag('limiter', 'limiter'),
  zones: numeric(z.int().min(1).max(200), 'zones', '', 'zones?'),
  rackUnits: numeric(bounded('', 0.5, 60), 'rack units', '', 'rack|units|^u$|^he$'),
  massKg: numeric(bounded('kg', 0.01, 500), 'mass', 'kg', 'mass|weight'),
  price: numeric(price, 'price', '', 'price|cost|net|list'),
  remark: field(plainText(500), 'remark', { also: 'remarks?|notes?|comment' }),
}
export const amplifierModelSchema = z.strictObject(amplifierModelFields)
export type AmplifierModel = z.infer<typeof amplifierModelSchema>
