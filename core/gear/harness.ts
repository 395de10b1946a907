import { z } from 'zod'
import { nameText, plainText } from '#core/quantity/fields'
import { conductorSchema } from './conductor'
import { field, numeric } from './field'
import { price } from './speaker'

/**
 * The map of a harness, or of a printed list of terminals: of each way the two conductors, the plus first, and what is printed beside their
 * terminals. Typed once, and used wherever that harness or device is met again.
 */
const wayText = (most: number) => plainText(most).refine(text => !/[;=[\]\n]/.test(text) && text === text.trim(), 'must not hold ; = [ or ]')
/** What is printed beside a terminal: no blank in it, since two of them stand side by side in a cell. */
export const terminalText = plainText(20).refine(text => !/[\s;=[\]]/.test(text), 'must be one word')

export const waySchema = z.strictObject({
  /** Where it leads: "front left"; as it is printed. */
  name: wayText(60).refine(text => text !== '', 'must not be empty'),
  /** What is printed beside the plus and the minus terminal; null where nothing is. */
  terminals: z.tuple([terminalText, terminalText]).nullable(),
  /** Plus first; null where the list prints terminals only. */
  pair: z.tuple([conductorSchema, conductorSchema]).nullable(),
}).refine(({ terminals, pair }) => terminals !== null || pair !== null, 'must have its conductors or its terminals')
export type Way = z.infer<typeof waySchema>

export const harnessModelFields = {
  name: field(nameText, 'name', { also: '^(model|type|item|article|product|harness|map)$' }),
  purpose: field(plainText(200), 'what it is of', { also: 'purpose|use|device|vehicle|description' }),
  ways: field(z.array(waySchema).min(1, 'needs at least one way').max(64).refine(ways => new Set(ways.map(w => w.name.toLowerCase())).size === ways.length, 'names one way twice'),
    'ways, plus first', { cell: 'ways', also: 'ways?|pairs?|terminals?|pins?|wiring|colou?rs' }),
  price: numeric(price, 'price', '', 'price|cost|net|list'),
  remark: field(plainText(500), 'remark', { also: 'remarks?|notes?|comment' }),
}
export const harnessModelSchema = z.strictObject(harnessModelFields)
export type HarnessModel = z.infer<typeof harnessModelSchema>
