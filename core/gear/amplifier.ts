import { z } from 'zod'
import { bounded, nameText, ohm, plainText, watt } from '#core/quantity/fields'
import { choice, field, flag, numeric } from './field'
import { lineV } from './load'
import { inputGroupsSchema } from './inputs'
import { price } from './speaker'

/** Equal outputs of an amplifier: what each gives into loads, or on lines. */
const outputsSchema = z.array(z.strictObject({
  count: z.int().min(1).max(200),
  points: z.array(z.strictObject({ loadOhm: ohm, powerW: watt })).max(8),
  lines: z.array(z.strictObject({ lineV, powerW: watt })).max(6),
  floorOhm: ohm.nullable(),
  /** A valve output: its taps, rising, its power at any of them, and how a tap is chosen; null for none. */
  valve: z.strictObject({
    powerW: watt.nullable(), tapsOhm: z.array(ohm).min(1, 'needs at least one tap').max(8).refine(taps => taps.every((tap, k) => k === 0 || tap > taps[k - 1]!), 'must rise'),
    chosenBy: z.enum(['selector', 'sockets']).nullable(),
  }).nullable(),
})).max(20).refine(groups => groups.every(g => g.points.length + g.lines.length + (g.valve ? 1 : 0) > 0), 'must have a rating for each output')

/** What an amplifier may be made as: of a receiver or a vehicle unit only what its maker states is taken; a mixer has inputs, and no speaker hangs on it. */
export const AMPLIFIER_MAKES = ['amplifier', 'receiver', 'vehicle', 'mixer'] as const
export const gainDb = bounded('dB', 0, 80)
export const inputV = bounded('V', 0.001, 20)
export const inputOhm = bounded('Ω', 1, 10_000_000)

export const amplifierModelFields = {
  name: field(nameText, 'name', { also: '^(model|type|item|article|product|amplifier)$' }),
  purpose: field(plainText(200), 'what it is for', { also: 'purpose|use|application|description' }),
  made: choice(AMPLIFIER_MAKES, 'made as', '^(kind|category|style|form)$'),
  outputs: field(outputsSchema, 'outputs', { cell: 'outputs', also: 'outputs?|ratings?|power|channels' }),
  /** Lowest load of two outputs bridged; null where that is not stated, or not possible. */
  bridgedFloorOhm: numeric(ohm, 'bridged, from', 'Ω', 'bridge'),
  gainDb: numeric(gainDb, 'gain', 'dB', 'gain'),
  inputV: numeric(inputV, 'input for full power', 'V', 'input sensitivity|sensitivity'),
  inputOhm: numeric(inputOhm, 'input impedance', 'Ω', 'input (impedance|resistance)'),
  highPassHz: numeric(bounded('Hz', 1, 1000), 'high-pass', 'Hz', 'high.?pass|low.?cut'),
  limiter: flag('limiter', 'limiter'),
  /** What its maker says that it does when it is asked for too much. */
  protection: field(plainText(300), 'protection', { also: 'protect' }),
  inputs: field(inputGroupsSchema, 'inputs', { cell: 'inputs', also: '^(no\\.? of )?inputs?$|sources?' }),
  /** Groups of speakers that it levels or pages by themselves. */
  zones: numeric(z.int().min(1).max(200), 'zones', '', 'zones?'),
  rackUnits: numeric(bounded('', 0.5, 60), 'rack units', '', 'rack|units|^u$|^he$'),
  massKg: numeric(bounded('kg', 0.01, 500), 'mass', 'kg', 'mass|weight'),
  price: numeric(price, 'price', '', 'price|cost|net|list'),
  remark: field(plainText(500), 'remark', { also: 'remarks?|notes?|comment' }),
}
export const amplifierModelSchema = z.strictObject(amplifierModelFields)
export type AmplifierModel = z.infer<typeof amplifierModelSchema>
