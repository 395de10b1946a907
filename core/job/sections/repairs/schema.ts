import { z } from 'zod'
import { idText, instant, noteText } from '../../fields'

/** What was repaired. Never changed; an undone one is marked withdrawn. */

export const FAULT_KINDS = ['open-at-drop', 'break-in-reach', 'short-at-drop', 'wrong-tap', 'high-resistance'] as const
export const MOST_REPAIRS = 10_000

export const repairSchema = z.strictObject({
  id: idText,
  at: instant,
  outputId: idText,
  nodeId: idText,
  fault: z.enum(FAULT_KINDS),
  note: noteText,
  withdrawn: z.boolean(),
})
export type Repair = z.infer<typeof repairSchema>
export type FaultKind = Repair['fault']
