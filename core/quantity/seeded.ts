/** Chance as it is handed in: a number from 0 to below 1. */
export type Chance = () => number

/** A small seeded generator (mulberry32): nothing here needs more than repeatability. */
export function seeded(seed: number): Chance {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6D2B79F5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
