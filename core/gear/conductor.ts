import { z } from 'zod'
import { plainText } from '#core/quantity/fields'

/** One conductor of a cable, by what is seen of it: the colour of its insulation, and of its stripe where it has one. */

const colour = plainText(30).refine(text => !/[/,;]/.test(text) && text === text.trim(), 'must not hold / , or ;')
/** `stripe`: empty for none. */
export const conductorSchema = z.strictObject({ base: colour.refine(text => text !== '', 'must not be empty'), stripe: colour })
export type Conductor = z.infer<typeof conductorSchema>

/** As it is typed and kept in a table: "orange/black". */
export const writeConductor = ({ base, stripe }: Conductor): string => stripe === '' ? base : `${base}/${stripe}`

/** Read as it is typed; not checked: what is empty stays empty. */
export function readConductor(text: string): Conductor {
  const [base, stripe = ''] = text.split('/').map(part => part.trim())
  return { base: base!, stripe }
}
