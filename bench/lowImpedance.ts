import { clipReport } from '#core/programme/clip'
import { findWirings } from '#core/match/wirings/finder'
import { seeded } from '#core/quantity/seeded'
import { quantile } from './timing'

const timed = (times: number, run: () => unknown): number => quantile(Array.from({ length: times }, () => {
  const from = performance.now()
  run()
  return performance.now() - from
}), 0.5)

/** Every wiring of eight speakers that are all unlike, 1,320,064 of them: the median of five. */
export function wiringsMs(): number {
  const units = Array.from({ length: 8 }, (_, k) => ({ ohm: 2 + k, count: 1, weight: 1, ratingW: null }))
  return timed(5, () => findWirings({ units, rating: { kind: 'solid-state', points: [{ loadOhm: 4, powerW: 300 }], floorOhm: 4, mode: 'single' }, isFair: false }))
}

/** One figure of an amplifier that clips. */
export const clipMs = (): number => timed(9, () => clipReport({ ratedW: 100, overdriveDb: 6, crossoverHz: 2500, material: 'open' }, seeded(1)))
