import type { Speaker } from '#core/job/schema'
import { nominalOhmOf } from '#core/network/tree'
import { DCR_BANDS } from './readingBands'

/** Which battery shows a cone which way round it is, and what that puts into its coil. It is direct current: a tap, not a hold. */

/** What is at hand: a small cell, a block, a tool's. Common practice, no source. */
export const BATTERIES_V = [1.5, 9, 12, 18] as const
/** Above this nominal impedance a coil is as small as that of a headphone. Common practice, no source. */
const SMALL_COIL_OHM = 24

export interface Battery {
  volts: number
  /** At most, in the coil: V²/Re with the lowest that Re may be; null where the coil is not known. */
  powerW: number | null
  /** `too-much`: more than the unit's continuous rating, or where that is not known than the smallest cell. */
  is: 'enough' | 'too-much'
}

/** Each battery on this coil. Source of the power: Ohm's law. */
export function batteriesFor({ load, driverOhm, continuousW }: Pick<Speaker, 'load' | 'driverOhm' | 'continuousW'>): Battery[] {
  const nominalOhm = load.kind === 'tap' ? driverOhm : nominalOhmOf(load)
  const leastOhm = nominalOhm === null ? null : nominalOhm * DCR_BANDS.nominal.low
  const isSmall = nominalOhm === null || nominalOhm >= SMALL_COIL_OHM
  return BATTERIES_V.map((volts) => {
    const powerW = leastOhm === null ? null : volts ** 2 / leastOhm
    const isMuch = volts > 1.5 && (isSmall || powerW === null || continuousW === null || powerW > continuousW)
    return { volts, powerW, is: isMuch ? 'too-much' : 'enough' }
  })
}
