import type { LineProof } from '#core/check/proof'
import { goOf } from '#core/faults/go'
import type { Repair } from '#core/job/schema'
import { msBetween } from '#core/quantity/moments'

/** Of lines that somebody traces, what share has what. They sum to one. */
export interface Prior { asDrawn: number, single: number, two: number, other: number }

/**
 * So many are right after all, have one fault of the list, two of them, or something else. Common practice, no source: a line that is wrong was mostly
 * worked on by one person on one day, so that a second fault is not rare.
 */
export const PRIOR: Prior = { asDrawn: 0.15, single: 0.6, two: 0.15, other: 0.1 }

/**
 * The same with a repair just made: mostly it was that. Counted on 186 simulated rigs that were mended of what was named with over one half: 65 in a hundred
 * were right then, 27 had one fault more, 2 two, 6 what no list has. With the shares from before a repair 31 in a hundred were said to be right.
 */
export const AFTER_REPAIR: Prior = { asDrawn: 0.55, single: 0.33, two: 0.04, other: 0.08 }

/** What was put right at one go is there still, or again, as often as this, of what is likely otherwise. Common practice, no source. */
export const STILL_THERE = 0.1

/** So long after a repair it is another trace. */
const ONE_TRACE_MS = 24 * 3600 * 1000

/** Repairs that what is read now follows: those of the day before the last reading. */
export function justMended({ history, repairs }: Pick<LineProof, 'history' | 'repairs'>): Pick<Repair, 'fault' | 'nodeId'>[] {
  const last = history.reduce((at, r) => r.at > at ? r.at : at, '')
  return repairs.filter(({ at }) => !(msBetween(at, last) > ONE_TRACE_MS)).map(({ fault, nodeId }) => ({ fault, nodeId }))
}

export const priorOf = (mended: readonly unknown[]): Prior => mended.length > 0 ? AFTER_REPAIR : PRIOR
export const goesOf = (mended: readonly Pick<Repair, 'fault' | 'nodeId'>[]): ReadonlySet<string> =>
  new Set(mended.map(({ fault, nodeId }) => goOf({ kind: fault, nodeId })))
