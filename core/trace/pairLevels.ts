import { logSum } from './chances'
import { offDb } from './ears'
import {
  groupLog, heardDb, isFew, levelBy, levelDensity, levelled, lineMute, middleOf, MOST_LEVEL, MOST_OVER_SETTINGS, muteAt, NEIGHBOURS_DB, NO_LEVEL, overSettings,
  settingsOf,
} from './levels'
import { orSlip } from './ohms'
import type { Touches } from './pairBound'
import type { Single } from './rank'
import type { Weigher } from './weigh'

/**
 * What two faults do to what the level meter reads, found from what each does by itself: decibels added, at the setting that both leave. What lost: what each
 * tells by itself, added up. Where each takes a third of a line, both move the setting, and what nothing is wrong with is the louder; such sums held more than
 * nine tenths of all that may be there.
 */
export interface PairLevels {
  /** How well all levels are explained with nothing wrong, and that against the most that anything explains them by. */
  base: number
  under: number
  of: (single: Single) => LevelsBy
  /** What both do to levels, against what each does by itself; and at most, without working it out. */
  shared: (a: LevelsBy, b: LevelsBy) => number
  atMost: (a: LevelsBy, b: LevelsBy) => number
}
export interface LevelsBy extends Touches {
  /** Of each reading, how far its speaker is off its plan, dB, and how often what is wrong there silences it; and all at once. */
  offDb: Float64Array
  mute: Float64Array
  lineMute: number
  /** The logarithm of all of them against nothing wrong, where they are not silenced at once. */
  on: number
  /** Of each group the setting, dB; so many more may be moved, of any group, before it is another; and so many are moved. */
  settingDb: Float64Array
  leeway: number
  moved: number
  silent: ReadonlySet<string>
}

/** A speaker that a fault moves by less is as it was, and so is a setting, dB. */
const MOVED_DB = 0.15
/** What a level comes to, in steps, dB. */
const STEP_DB = 0.05
const FROM_DB = -45
const STEPS = 1800

export function pairLevels({ plan, parts: { levels } }: Pick<Weigher, 'plan' | 'parts'>): PairLevels {
  const reads = levels.flatMap(group => group.reads)
  const firsts = levels.map((_, g) => levels.slice(0, g).reduce((n, group) => n + group.reads.length, 0))
  const groupOf = Int16Array.from(levels.flatMap((group, g) => group.reads.map(() => g)))
  const dbs = Float64Array.from(reads, r => r.db)
  const logOf = (r: number, density: number) => Math.log(orSlip(density, reads[r]!.any))
  const drawnBy = levels.map(group => levelled(group, plan.drawn, plan))
  const drawn = Float64Array.from(drawnBy.flatMap(l => l.each))
  const base = sum(drawnBy.map(l => l.together))
  const none = sum(reads.map((_, r) => logOf(r, NO_LEVEL)))
  const under = base - sum(reads.map((_, r) => logOf(r, MOST_LEVEL))) - sum(levels.map(({ reads: of }) => isFew(of.length) ? MOST_OVER_SETTINGS : 0))
  // What a level that many dB from what it would be comes to, each found when it is first asked for.
  const table = new Float64Array(reads.length * STEPS).fill(NaN)
  const logAt = (r: number, db: number): number => {
    const step = Math.max(0, Math.min(STEPS - 1, ((db - FROM_DB) / STEP_DB + 0.5) | 0))
    const known = table[r * STEPS + step]!
    return known === known ? known : table[r * STEPS + step] = logOf(r, levelDensity(FROM_DB + step * STEP_DB, 0))
  }
  const scratch = levels.map(group => new Float64Array(group.reads.length))
  const offBoth = new Float64Array(reads.length)
  const muteBoth = new Float64Array(reads.length)

  return {
    base, under,
    of: ({ outcome }) => {
      if (reads.length === 0) return NONE
      const offs = Float64Array.from(reads, ({ nodeId }) => offDb(nodeId, outcome, plan))
      const mute = Float64Array.from(reads, ({ nodeId }) => muteAt(nodeId, outcome, plan))
      const by = levels.map(group => levelled(group, outcome, plan))
      const delta = Float64Array.from(by.flatMap(l => l.each), (log, r) => log - drawn[r]!)
      const at = Int16Array.from(reads.flatMap((_, r) => Math.abs(offs[r]!) > MOVED_DB || mute[r]! > 0 ? [r] : []))
      const sorted = levels.map(({ reads: of }, g) => Float64Array.from(of, (_, k) => dbs[firsts[g]! + k]! - heardDb(offs[firsts[g]! + k]!)).sort())
      return {
        at, delta, sum: sum(by.map(groupLog)) - base, on: sum(by.map(l => l.together)) - base, offDb: offs, mute, lineMute: lineMute(outcome),
        settingDb: Float64Array.from(sorted, all => middleOf(all.slice())), leeway: Math.min(...sorted.map(leewayOf)),
        moved: Math.max(...levels.map((_, g) => at.reduce((n, r) => n + Number(groupOf[r] === g), 0))),
        silent: new Set(plan.speakers.filter(id => offDb(id, outcome, plan) <= NEIGHBOURS_DB)),
      }
    },
    atMost: (a, b) => -under - a.sum - b.sum,
    shared: (a, b) => reads.length === 0 ? 0 : onOfBoth(a, b),
  }

  /** Of all levels together with both, against what each comes to by itself. */
  function onOfBoth(a: LevelsBy, b: LevelsBy): number {
    const isSilent = a.silent.size + b.silent.size >= plan.speakers.length && plan.speakers.every(id => a.silent.has(id) || b.silent.has(id))
    if (isSilent) return none - base - a.sum - b.sum
    const [many, few] = a.at.length < b.at.length ? [b, a] : [a, b]
    let on: number
    if (few.moved <= many.leeway) {
      // Whatever one does to so few, the setting is what the other makes it.
      on = base + a.on + b.on
      for (let k = 0; k < few.at.length; k++) {
        const r = few.at[k]!
        on += levelOf(r, many.settingDb[groupOf[r]!]!, a.offDb[r]! + b.offDb[r]!, muteOf(a.mute[r]!, b.mute[r]!)) - drawn[r]! - a.delta[r]! - b.delta[r]!
      }
    }
    else {
      for (let r = 0; r < offBoth.length; r++) {
        offBoth[r] = a.offDb[r]! + b.offDb[r]!
        muteBoth[r] = muteOf(a.mute[r]!, b.mute[r]!)
      }
      on = 0
      for (let g = 0; g < levels.length; g++) on += logOfGroup(g)
    }
    const mute = muteOf(a.lineMute, b.lineMute)
    return (mute === 0 ? on : logSum([Math.log(1 - mute) + on, Math.log(mute) + none])) - base - a.sum - b.sum
  }

  function logOfGroup(g: number): number {
    const [first, all] = [firsts[g]!, scratch[g]!]
    for (let k = 0; k < all.length; k++) all[k] = dbs[first + k]! - heardDb(offBoth[first + k]!)
    const logs: number[] = []
    for (const setting of settingsOf(all)) {
      let log = 0
      for (let r = first; r < first + all.length; r++) log += levelOf(r, setting, offBoth[r]!, muteBoth[r]!)
      logs.push(log)
    }
    return overSettings(logs)
  }

  function levelOf(r: number, settingDb: number, off: number, mute: number): number {
    const db = dbs[r]! - settingDb
    const here = heardDb(off)
    return mute > 0 ? logOf(r, levelBy(db, { offDb: here, mute })) : logAt(r, db - here)
  }
}
/** So many levels may be moved, whatever to, before the setting is another. Of a few any of them may be it. */
function leewayOf(sorted: Float64Array): number {
  const half = (sorted.length - 1) / 2
  const [low, high] = [Math.floor(half), Math.ceil(half)]
  if (isFew(sorted.length)) return 0
  let leeway = 0
  while (sorted[high + leeway + 1]! - sorted[high]! < MOVED_DB && sorted[low]! - sorted[low - leeway - 1]! < MOVED_DB) leeway++
  return leeway
}
const muteOf = (one: number, other: number): number => one === 0 && other === 0 ? 0 : 1 - (1 - one) * (1 - other)
const sum = (logs: ArrayLike<number>): number => {
  let total = 0
  for (let k = 0; k < logs.length; k++) total += logs[k]!
  return total
}
const NO_FIGURES = new Float64Array(0)
const NONE: LevelsBy = {
  at: new Int16Array(0), delta: NO_FIGURES, sum: 0, offDb: NO_FIGURES, mute: NO_FIGURES, lineMute: 0, on: 0, settingDb: NO_FIGURES, leeway: 0, moved: 0,
  silent: new Set(),
}
