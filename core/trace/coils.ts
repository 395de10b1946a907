import type { JudgedReading } from '#core/check/proof'
import type { CoilOutcome } from '#core/faults/fault'
import type { ReadingValue, Speaker } from '#core/job/schema'
import { SHORT_OHM } from '#core/quantity/tolerance'
import type { Deviations } from './deviations'
import { likeShown, scaled } from './ohms'

/** How well what a coil may be explains what an ohmmeter showed on it. */

/** A coil about its model's copper: one sigma. Common practice, no source. */
const OWN = 0.05

/** Of a coil of which no label is known: what any coil may read, Ω. Common practice, no source. */
const ANY_COIL_OHM = [2, 30] as const
/** A failing coil or joint reads so many times what is right, and shorted turns such a part of it. Common practice, no source. */
const HIGH = [1.2, 60] as const
const LOW = [0.15, 0.85] as const

const within = (x: number, [least, most]: readonly [number, number]): number => x >= Math.log(least) && x <= Math.log(most) ? 1 / Math.log(most / least) : 0

/**
 * Likelihood of a reading by what the coil is, for one sample of its model. `expectedOhm`: what is right; null: nothing is known of it.
 */
export function likeCoil(value: ReadingValue, outcome: CoilOutcome, expectedOhm: number | null, off: number): number {
  if (value.is === 'open') return outcome === 'open' ? 1 : outcome === 'high' ? 0.05 : 0
  if (value.is !== 'ohm' || outcome === 'open') return 0
  if (outcome === 'short') return likeShown(value.ohm, 0, 0) * 2
  if (expectedOhm === null) {
    const ln = Math.log(Math.max(value.ohm, 1e-3))
    return outcome === 'right' ? within(ln, ANY_COIL_OHM) : outcome === 'high' ? within(ln, [8, 2000]) : within(ln, [SHORT_OHM, 12])
  }
  const right = expectedOhm * Math.exp(off)
  if (outcome === 'right') return likeShown(value.ohm, right, OWN ** 2)
  return within(scaled(value.ohm) - scaled(right), outcome === 'high' ? HIGH : LOW)
}

/** What an ohmmeter may show by chance: of something not in the list, and of a slip. */
export const likeAnyCoil = (value: ReadingValue): number => value.is === 'open' ? 0.1 : value.is === 'ohm' && value.ohm < SHORT_OHM ? 0.06 : 0.25

/** What is right of a coil before its model's copper is known, Ω; null where nothing is known of it. */
export const expectedCoil = ({ predicted }: Pick<JudgedReading, 'predicted'>): number | null => predicted?.expected ?? null

/** Samples of a coil against what is expected of it. */
export function coilOffsets({ copper, modelOf, samples }: Deviations, speaker: Pick<Speaker, 'id' | 'load'>): Float64Array {
  const model = modelOf.get(speaker.id)
  return model === undefined ? new Float64Array(samples) : copper[model]!
}

/** Chance that a fault of no known kind shows at a coil, at one of them all: what coils have is in the list. Common practice, no source. */
export const AT_A_COIL = 0.1
