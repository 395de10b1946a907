import type { Ears } from './pairEars'

/** The most that two faults can come to, before what a meter shows with both in is worked out. */

/** What a pair is by each of its parts. */
export interface Bounded {
  members: readonly unknown[]
  /** Number of its place; two at one place are not tried. */
  place: number
  /** Prior, what coils, dials and testers say of each alone, and ears, against nothing wrong: of all of them together. */
  ownLog: number
  /** For each reading in ohms: what it changes, as a number of all changes, and the variance of its sizes. */
  change: number
  between: readonly number[]
  ears: Ears
}

/** What is asked of every part of a list a thousand times, side by side: a quarter of the time of reading it off each. */
export interface Columns {
  place: Int32Array
  change: Int32Array
  members: Int32Array
  ownLog: Float64Array
  between: readonly Float64Array[]
  earsSum: Float64Array
  /** Of each ear: one for those that touch it; and what comes back of theirs where it is sure of what was noted. */
  touched: readonly Float64Array[]
  relief: readonly Float64Array[]
}

export function columnsOf(list: readonly Bounded[]): Columns {
  const ears = [...list[0]?.ears.delta.keys() ?? []]
  return {
    place: Int32Array.from(list, p => p.place), change: Int32Array.from(list, p => p.change), members: Int32Array.from(list, p => p.members.length),
    ownLog: Float64Array.from(list, p => p.ownLog), between: (list[0]?.between ?? []).map((_, k) => Float64Array.from(list, p => p.between[k]!)),
    earsSum: Float64Array.from(list, p => p.ears.sum),
    touched: ears.map(r => Float64Array.from(list, p => Number.isNaN(p.ears.db[r]) ? 0 : 1)),
    relief: ears.map(r => Float64Array.from(list, p => -p.ears.delta[r]!)),
  }
}

/**
 * Into `most`, from `from` on: what one and every other of a list come to by themselves and by ears, at most. Ears that both touch are taken to be sure of
 * what was noted. Found one ear after the other for the whole list: pair by pair it took as long as what it spares.
 */
export function mostByEars({ ears }: Bounded, of: Columns, from: number, rightLogs: readonly number[], most: Float64Array): void {
  most.set(of.ownLog.subarray(from), from)
  for (const r of ears.at) {
    const touched = of.touched[r]!
    const relief = of.relief[r]!
    const sure = rightLogs[r]! + ears.delta[r]!
    for (let n = from; n < of.ownLog.length; n++) most[n]! += relief[n]! - touched[n]! * sure
  }
}
