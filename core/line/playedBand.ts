import { HEARD_HZ } from '#core/network/line'
import type { Band } from '#core/job/schema'
import { writeQuantity } from '#core/quantity/write'

/** An octave beyond its ends a crossover still lets through what counts; what lies farther out does not. Common practice, no source. */
const BEYOND = 2

/** Ends this close together are one crossover: a third of an octave. Common practice, no source. */
export const MEETS = 2 ** (1 / 3)

/** The stretch that an output's load is judged over, Hz: its band and an octave on either side, within the hearing range. */
export function playedHz(band: Band | null): readonly [number, number] {
  if (band === null) return HEARD_HZ
  const [least, most] = HEARD_HZ
  const fromHz = Math.min(most / BEYOND, Math.max(least, (band.fromHz ?? least) / BEYOND))
  return [fromHz, Math.max(fromHz * BEYOND, Math.min(most, (band.toHz ?? most) * BEYOND))]
}

/** Whether two outputs play the same part of the range. */
export const isSameBand = (a: Pick<Band, 'fromHz' | 'toHz'>, b: Pick<Band, 'fromHz' | 'toHz'>): boolean => a.fromHz === b.fromHz && a.toHz === b.toHz

/** The stretch that it plays, Hz: the ends of its crossover. */
export function bandHz(band: Band | null): readonly [number, number] {
  return [band?.fromHz ?? HEARD_HZ[0], band?.toHz ?? HEARD_HZ[1]]
}

/** "from 100 Hz up", "up to 100 Hz", "100 Hz to 2 kHz". */
export function bandWords({ fromHz, toHz }: Pick<Band, 'fromHz' | 'toHz'>): string {
  if (fromHz === null) return toHz === null ? 'everything' : `up to ${writeQuantity(toHz, 'Hz')}`
  return `${toHz === null ? 'from ' : ''}${writeQuantity(fromHz, 'Hz')} ${toHz === null ? 'up' : `to ${writeQuantity(toHz, 'Hz')}`}`
}
