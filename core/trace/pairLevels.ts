import { anyLevelDensity, bothHeard, heardOf, levelBy, levelLike, MOST_LEVEL, NEIGHBOURS_DB, NO_LEVEL, offDb, type Heard } from './ears'
import { orSlip } from './ohms'
import type { Touches } from './pairBound'
import type { Single } from './rank'
import type { Weigher } from './weigh'

/**
 * What two faults do to what the level meter reads, found from what each does by itself: decibels added, held against the middle of all speakers as it is
 * with both. What lost: the middles added, too. Where each takes a third of a line, both take the middle with them, and what nothing is wrong with is the
 * louder.
 */
export interface PairLevels {
  /** How well all levels are explained with nothing wrong; of each, against the most that anything explains it by. */
  base: number
  under: readonly number[]
  of: (single: Single) => LevelsBy
  /** What both do to levels, against what each does by itself; and at most, without working it out. */
  shared: (a: LevelsBy, b: LevelsBy) => number
  atMost: (a: LevelsBy, b: LevelsBy) => number
}
export interface LevelsBy extends Touches {
  /** How far each speaker is off its plan, dB. */
  offDb: Float64Array
  /** The same of all, least first, none quieter than its neighbours are heard there. */
  sortedDb: Float64Array
  /** So many are moved. */
  moved: number
  /** It takes so many that with another it may move the middle: then every level is another. */
  isMany: boolean
  /** Of each reading, how that speaker is heard. */
  heard: readonly (Heard | null)[]
}

/** A speaker that a fault moves by less is as it was, dB. What two such make of each other is a hundredth. */
const MOVED_DB = 0.15
/** What a level comes to, in steps, dB. */
const STEP_DB = 0.05
const FROM_DB = -40
const STEPS = 1800

export function pairLevels({ plan, parts: { others } }: Pick<Weigher, 'plan' | 'parts'>): PairLevels {
  const numbers = new Map(plan.speakers.map((id, k) => [id, k]))
  const read = others.flatMap(({ reading: { kind, value, nodeId }, predicted }) => kind === 'level' && value.is === 'level' && predicted?.level?.besideDb != null && numbers.has(nodeId!)
    ? [{ id: nodeId!, k: numbers.get(nodeId!)!, db: value.db - predicted.level.besideDb }]
    : [])
  const anys = read.map(({ db }) => anyLevelDensity(db))
  const logOf = (r: number, density: number) => Math.log(orSlip(density, anys[r]!))
  const baseLogs = read.map(({ id, db }, r) => logOf(r, levelLike(db, id, plan.drawn, plan)))
  const silentLog = read.reduce((sum, _, r) => sum + logOf(r, NO_LEVEL), 0)
  const base = baseLogs.reduce((a, b) => a + b, 0)
  const table = new Float64Array(read.length * STEPS).fill(NaN)
  const logAt = (r: number, db: number): number => {
    const step = Math.max(0, Math.min(STEPS - 1, Math.round((db - FROM_DB) / STEP_DB)))
    const known = table[r * STEPS + step]!
    return known === known ? known : table[r * STEPS + step] = logOf(r, levelBy(read[r]!.db, { offDb: FROM_DB + step * STEP_DB, mute: 0 }))
  }
  const count = plan.speakers.length
  const middle = count >> 1
  const both = new Float64Array(count)
  const none: LevelsBy = { at: new Int16Array(0), delta: new Float64Array(0), sum: 0, offDb: both, sortedDb: both, moved: 0, isMany: false, heard: [] }

  const under = baseLogs.map((log, r) => log - logOf(r, MOST_LEVEL))
  const most = -under.reduce((a, b) => a + b, 0)

  return {
    base, under,
    of: ({ outcome }) => {
      if (read.length === 0) return none
      const offs = Float64Array.from(plan.speakers, id => offDb(id, outcome, plan))
      const heard = read.map(({ id }) => heardOf(id, outcome, plan))
      const delta = Float64Array.from(read, ({ id, db }, r) => logOf(r, levelLike(db, id, outcome, plan)) - baseLogs[r]!)
      const moved = offs.reduce((n, db) => n + Number(Math.abs(db) > MOVED_DB), 0)
      const touched = read.flatMap(({ k }, r) => muteOf(heard[r]!) > 0 || Math.abs(offs[k]!) > MOVED_DB ? [r] : [])
      return {
        at: Int16Array.from(touched), delta, sum: delta.reduce((a, b) => a + b, 0), offDb: offs,
        sortedDb: offs.map(heardDb).sort(), moved, isMany: moved > (count - 1) >> 2, heard,
      }
    },
    atMost: (a, b) => a.isMany || b.isMany ? most - a.sum - b.sum : Infinity,
    shared: (a, b) => {
      if (read.length === 0) return 0
      // Of two that take few, or of which one takes too few to matter, the middle is that of the other.
      if (!a.isMany && !b.isMany) return sharedAt(a, b, 0)
      const [many, few] = a.moved < b.moved ? [b, a] : [a, b]
      const [low, high] = [many.sortedDb[middle - few.moved], many.sortedDb[middle + few.moved]]
      if (low !== undefined && high !== undefined && high - low < MOVED_DB) return sharedAt(a, b, many.sortedDb[middle]!)
      return everyOne(a, b, many.sortedDb[middle]!)
    },
  }

  function sharedAt(a: LevelsBy, b: LevelsBy, middleDb: number): number {
    const [few, many] = a.at.length < b.at.length ? [a.at, b.at] : [b.at, a.at]
    let more = 0
    for (let k = 0, n = 0; k < few.length && n < many.length; k++) {
      const r = few[k]!
      while (many[n]! < r) n++
      if (many[n] === r) more += levelOf(a, b, r, middleDb) - baseLogs[r]! - a.delta[r]! - b.delta[r]!
    }
    return more
  }

  function everyOne(a: LevelsBy, b: LevelsBy, middleOfOneDb: number): number {
    let loudestDb = NEIGHBOURS_DB
    for (let k = 0; k < count; k++) loudestDb = Math.max(loudestDb, both[k] = heardDb(a.offDb[k]! + b.offDb[k]!))
    if (loudestDb <= NEIGHBOURS_DB) return silentLog - base - a.sum - b.sum
    const middleDb = chosen(both, middle)
    if (Math.abs(middleDb - middleOfOneDb) < MOVED_DB) return sharedAt(a, b, middleOfOneDb)
    let log = 0
    for (let r = 0; r < read.length; r++) log += levelOf(a, b, r, middleDb)
    return log - base - a.sum - b.sum
  }

  function levelOf(a: LevelsBy, b: LevelsBy, r: number, middleDb: number): number {
    const k = read[r]!.k
    const db = heardDb(a.offDb[k]! + b.offDb[k]!) - middleDb
    const [one, other] = [a.heard[r]!, b.heard[r]!]
    const mute = muteOf(one && other ? bothHeard(one, other) : one ?? other)
    return mute > 0 ? logOf(r, levelBy(read[r]!.db, { offDb: db, mute })) : logAt(r, db)
  }
}
/** What would stand at a place if all were sorted; all are put in another order (Hoare). A sort took four times as long. */
function chosen(all: Float64Array, at: number): number {
  for (let [from, to] = [0, all.length - 1]; from < to;) {
    const pivot = all[at]!
    let [low, high] = [from, to]
    while (low <= high) {
      while (all[low]! < pivot) low++
      while (all[high]! > pivot) high--
      if (low > high) break
      const held = all[low]!
      all[low++] = all[high]!
      all[high--] = held
    }
    if (high < at) from = low
    if (at < low) to = high
  }
  return all[at]!
}
const heardDb = (db: number): number => db > NEIGHBOURS_DB ? db : NEIGHBOURS_DB
const muteOf = (heard: Heard | null): number => heard?.silent ?? 0
