import { z } from 'zod'
import type { Cable } from '#core/quantity/cable'
import { InputError } from '#core/quantity/inputError'
import { conductorOhmPerM } from '#core/network/cable'

/**
 * How far along a pair its two conductors touch, from the ohms at its beginning with nothing else on it: out and back, R / 2r. It is a span: a short is opened
 * up along it, and its middle is where to begin.
 */

/** A meter cannot tell small ohms apart any better than this, Ω: 4 m of 16 AWG. Common practice, no source. */
export const METER_OFF_OHM = 0.1
/** Copper of a cable against its table, as a part: by its making and by the warmth of where it lies. Common practice, no source. */
export const COPPER_OFF = 0.05

export const shortDistanceSchema = z.strictObject({
  distanceM: z.number().describe('where the conductors touch, by the table of the cable, m'),
  lowM: z.number().describe('not nearer, m'),
  highM: z.number().describe('not farther, m'),
})
export type ShortDistance = z.infer<typeof shortDistanceSchema>

/**
 * @param ohm what the meter shows at the beginning of the pair, everything else taken off, Ω
 * @param leadsOhm what it shows with its own leads held together, Ω; 0 where they are nulled
 * @throws InputError where it shows less than its own leads, by more than it can be off
 */
export function shortDistance(ohm: number, cable: Cable, leadsOhm = 0): ShortDistance {
  const alongOhm = ohm - leadsOhm
  if (alongOhm < -METER_OFF_OHM) throw new InputError('That is less than the leads of the meter alone: hold them together and read them again.', 0, [])
  const pairOhmPerM = 2 * conductorOhmPerM(cable)
  const at = (along: number, part = 1) => Math.max(0, along) / (pairOhmPerM * part)
  return { distanceM: at(alongOhm), lowM: at(alongOhm - METER_OFF_OHM, 1 + COPPER_OFF), highM: at(alongOhm + METER_OFF_OHM, 1 - COPPER_OFF) }
}
