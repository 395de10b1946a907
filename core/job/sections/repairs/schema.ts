import { z } from 'zod'
import { idText, instant, noteText } from '#core/quantity/fields'

/** What was repaired. Never changed; an undone one is marked withdrawn. */

export const FAULT_KINDS = [
  'open-at-drop', 'break-in-reach', 'short-at-drop', 'wrong-tap', 'high-resistance', 'taps-on-other-scale', 'taps-one-off', 'low-impedance-position', 'shorted-turns', 'extra-speaker',
  'turned-round', 'coil-opposed', 'coil-open', 'coil-high', 'short-at-tabs', 'rubbing', 'comes-and-goes', 'dirty-contact', 'winding-open', 'winding-shorted', 'winding-exchanged',
  'joint-in-run', 'short-in-run', 'pair-crossed', 'leak-across', 'leg-earth', 'another-cable', 'wrong-scale', 'speaker-missing', 'drops-exchanged', 'wrong-jack', 'one-driver-gone',
  'high-unit-gone', 'control-at-zero', 'control-turned-down', 'control-bypassed', 'control-overrated', 'amplifier-dead', 'amplifier-clipping', 'amplifier-low', 'amplifier-wrong-tap',
  'lines-exchanged', 'source-one-side', 'something-else',
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
