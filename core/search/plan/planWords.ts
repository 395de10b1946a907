import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { LeftWhy } from './choices'
import type { Limit } from './lineLimits'
import type { TapPlan } from './tapPlan'

/** The words of the tap planner. */

const inWatts = (watts: number) => writeQuantity(watts, 'W')

type Planned = Pick<TapPlan, 'feasible' | 'proven' | 'totalW' | 'boundW' | 'spaces' | 'turnedUp' | 'left'>
export function planWords(plan: Planned): string {
  const { turnedUp } = plan
  const up = turnedUp.length === 0 || plan.spaces.length === 0 ? '' : ` That is with ${turnedUp.join(', ')} fully up; ${turnedUp.length === 1 ? 'it stands' : 'they stand'} lower now.`
  return verdictOf(plan) + up
}

function verdictOf({ feasible, proven, totalW, boundW, spaces, left }: Planned): string {
  if (spaces.length === 0) return left.some(l => l.why === 'not-all-hang') ? 'No space whose taps could be planned: hang a speaker at every place first.' : 'No space whose taps could be planned.'
  if (!feasible && !proven) return 'No taps were found that do it. These come nearest with what the cable takes of them: the least decibels short in all, then the least watts.'
  if (!feasible) return 'It cannot be done. These taps come nearest: the least decibels short in all, then the least watts.'
  if (proven) return `Every space reaches its target with ${inWatts(totalW)}, and nothing less does it.`
  return `Every space reaches its target with ${inWatts(totalW)}; what the cable takes leaves open whether ${inWatts(boundW)} could do.`
}

export function limitWords(limit: Limit): string {
  switch (limit.kind) {
    case 'line': return `Line ${limit.label} would have to carry ${inWatts(limit.needsW)} of taps; the chosen reserve allows ${inWatts(limit.allowedW)}.`
    case 'control': return `Control ${limit.label} would have to carry ${inWatts(limit.needsW)}; it is rated for ${inWatts(limit.allowedW)}.`
    case 'taps': return `${limit.label}: the highest taps there leave it ${limit.missingDb.toFixed(1)} dB short. More speakers, closer, or more sensitive ones.`
  }
}

export const LEFT_WORDS: Record<LeftWhy, string> = {
  'level-not-known': 'its target or its level is not known', 'not-all-hang': 'not every place there has a speaker on a line; hang them first', 'no-taps': 'a speaker there hangs on no tap of a line', 'behind-transformer': 'a speaker there hangs behind a transformer',
}

/** "3 × 5 W, 2 × 10 W" of taps in their order. */
export function tapsText(tapsW: readonly number[]): string {
  const counts = new Map<number, number>()
  for (const w of tapsW) counts.set(w, (counts.get(w) ?? 0) + 1)
  return [...counts].map(([w, n]) => `${n} × ${w === 0 ? 'off' : `${writeNumber(w)} W`}`).join(', ')
}
