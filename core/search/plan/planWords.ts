import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { LeftWhy } from './choices'
import type { Limit } from './lineLimits'
import type { TapPlan } from './tapPlan'

/** The words of the tap planner. */

const W = (watts: number) => writeQuantity(watts, 'W')

export function planWords({ feasible, proven, totalW, boundW, spaces }: Pick<TapPlan, 'feasible' | 'proven' | 'totalW' | 'boundW' | 'spaces'>): string {
  if (spaces.length === 0) return 'No space whose taps could be planned.'
  if (!feasible) return 'It cannot be done. These taps come nearest: the least decibels short in all, then the least watts.'
  if (proven) return `Every space reaches its target with ${W(totalW)}, and nothing less does it.`
  return `Every space reaches its target with ${W(totalW)}; what the cable takes leaves open whether ${W(boundW)} could do.`
}

export function limitWords(limit: Limit): string {
  switch (limit.kind) {
    case 'line': return `Line ${limit.label} would have to carry ${W(limit.needsW)} of taps; the chosen reserve allows ${W(limit.allowedW)}.`
    case 'control': return `Control ${limit.label} would have to carry ${W(limit.needsW)}; it is rated for ${W(limit.allowedW)}.`
    case 'taps': return `${limit.label}: the highest taps there leave it ${limit.missingDb.toFixed(1)} dB short. More speakers, closer, or more sensitive ones.`
  }
}

export const LEFT_WORDS: Record<LeftWhy, string> = {
  'level-not-known': 'its target or its level is not known', 'not-all-hang': 'not all of its places have a speaker', 'no-taps': 'a speaker there hangs on no tap of a line', 'behind-transformer': 'a speaker there hangs behind a transformer',
}

/** "3 × 5 W, 2 × 10 W" of taps in their order. */
export function tapsText(tapsW: readonly number[]): string {
  const counts = new Map<number, number>()
  for (const w of tapsW) counts.set(w, (counts.get(w) ?? 0) + 1)
  return [...counts].map(([w, n]) => `${n} × ${w === 0 ? 'off' : `${writeNumber(w)} W`}`).join(', ')
}
