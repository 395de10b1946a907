import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { Choice } from './choice'

/** Taps of a transformer side by side, and off. */
export const tapChoices = (tapsW: readonly number[]): Choice<number>[] => [...tapsW, 0].map(tapW => ({
  value: tapW, says: tapW === 0 ? 'off' : writeNumber(tapW), spoken: tapW === 0 ? 'off' : `tap ${writeQuantity(tapW, 'W')}`, isFigure: true,
}))
