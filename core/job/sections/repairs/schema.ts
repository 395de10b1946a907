import { z } from 'zod'
import { idText, instant, noteText } from '#core/quantity/fields'

/** What was repaired. Never changed; an undone one is marked withdrawn. */

export const FAULT_KINDS = [
  'open-at-drop', 'break-in-reach', 'short-at-drop', 'wrong-tap', 'high-resistance', 'taps-on-other-scale', 'taps-one-off', 'low-impedance-position', 'shorted-turns', 'extra-speaker',
  'turned-round', 'coil-opposed', 'something-else',
] as const
export const MOST_REPAIRS = 10_000

export const repairSchema = z.strictObject({
  id: idText,
  at: instant,
  outputId: idText,
  /** The speaker or group that was repaired; null is the whole line. */
  nodeId: idText.nullable(),
  fault: z.enum(FAULT_KINDS),
  note: noteText,
  /** The person who did it; null while nobody has signed in. */
  who: idText.nullable(),
  withdrawn: z.boolean(),
})
export type Repair = z.infer<typeof repairSchema>
export type FaultKind = Repair['fault']
