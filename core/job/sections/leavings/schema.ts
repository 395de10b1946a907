import { z } from 'zod'
import { idText, instant, plainText } from '#core/quantity/fields'
import { READING_KINDS } from '../readings/kinds'

/** What was found and is left as it is, with the reason. Never changed; one that is taken back is marked withdrawn. */

export const MOST_LEAVINGS = 10_000

export const leavingSchema = z.strictObject({
  id: idText,
  at: instant,
  outputId: idText,
  /** The speaker that is left so; null is the head of the line. */
  nodeId: idText.nullable(),
  /** What reads wrong there, or is drawn so. */
  kind: z.enum(READING_KINDS),
  reason: plainText(500).refine(text => text.trim() !== '', 'must say why'),
  /** The person who decided; null while nobody has signed in. */
  who: idText.nullable(),
  withdrawn: z.boolean(),
})
export type Leaving = z.infer<typeof leavingSchema>
