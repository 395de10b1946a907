import { offDb } from './ears'
import {
  heardDb, isFew, levelBy, levelDensity, levelled, lineMute, MOST_LEVEL, MOST_OVER_SETTINGS, muteAt, mutes, NEIGHBOURS_DB, NO_LEVEL, overSettings,
  settingsOf, silencedLog,
} from './levels'
import { middleInOrder, middleOf, middleWith, middleWithOne } from './middle'
import { orSlip } from './ohms'
import type { Touches } from './pairBound'
import type { Single } from './rank'
import type { Weigher } from './weigh'

/**
 * What two faults do to what the level meter reads, found from what each does by itself: decibels added, at the setting that both leave. What lost: what each
 * tells by itself, added up. Where each takes a third of a line, both move the setting, and what nothing is wrong with is the louder; such sums held more than
 * nine tenths of all that may be there. And every level anew for every two: of forty read, half of what pairs took.
 */
export interface PairLevels {
  /** How well all levels are explained with nothing wrong. */
  base: number
  of: (single: Single) => LevelsBy
  /** What both do to levels, against what each does by itself; or, where that is less than `least`, anything that is less as well, and not under it. */
  shared: (a: LevelsBy, b: LevelsBy, least?: number) => number
  /** The same with every one of a list from `from` on; or, where that is not quickly said, the most that it can be. */
  atMost: (a: LevelsBy, of: LevelColumns, from: number, into: MostByLevels) => void
}
export interface MostByLevels { log: Float64Array, isExact: Uint8Array }
export const mostByLevels = (count: number): MostByLevels => ({ log: new Float64Array(count), isExact: new Uint8Array(count) })
/** What is asked of every one of a list, side by side. */
export interface LevelColumns {
  moves: Uint8Array
  sum: Float64Array
  still: Int16Array
  /** The one level that it moves, or -1; how it does, and what its group comes to more with it. */
  one: Int16Array
  oneDb: Float64Array
  oneMute: Float64Array
  oneOn: Float64Array
}
export const levelColumns = (list: readonly LevelsBy[]): LevelColumns => ({
  moves: Uint8Array.from(list, l => Number(l.moves)), sum: Float64Array.from(list, l => l.sum), still: Int16Array.from(list, l => l.still),
  one: Int16Array.from(list, l => l.one?.r ?? -1), oneDb: Float64Array.from(list, l => l.one?.db ?? 0), oneMute: Float64Array.from(list, l => l.one?.mute ?? 0),
  oneOn: Float64Array.from(list, l => l.one?.on ?? 0),
})

export interface LevelsBy extends Pick<Touches, 'at' | 'sum'> {
  /** Of each reading, how far its speaker is off its plan, dB, and how often what is wrong there silences it; and all at once. */
  offDb: Float64Array
  mute: Float64Array
  isMuted: boolean
  lineMute: number
  groups: readonly GroupBy[]
  /** Some level is another with it. */
  moves: boolean
  /** The only one. */
  one: { r: number, db: number, mute: number, on: number } | null
  /** Anything plays; how far each speaker is off its plan, dB; how many play for certain, and how many it does not move at all. */
  plays: boolean
  speakerDb: Float64Array
  playing: number
  still: number
}
/** A group of levels with one fault: all together, as a logarithm; what each would make the setting, from the least on, and the setting, dB. */
interface GroupBy {
  on: number
  each: Float64Array
  settingDb: number
  /** It may be put otherwise level by level, at another setting: there are many, and not all are silent. */
  isPlain: boolean
  /** All together at settings about it, each found when it is first asked for. */
  about: Float64Array | null
}

/** A speaker that a fault moves by less is as it was, dB. */
const MOVED_DB = 0.15
/** How far a level may be from what it would be, dB, and in what steps that is known: between two of them it is out by .0002 at most. */
const FROM_DB = -45
const STEP_DB = 0.05
const STEPS = 1800
/** How far about a setting another is known, and in what steps, dB: between two of them all levels of forty together are out by .01 at most. */
const ABOUT_DB = 3
const ABOUT_STEP_DB = 0.05
const ABOUT_STEPS = 2 * ABOUT_DB / ABOUT_STEP_DB + 1
/** So many levels that another fault moves as well are put among the others one by one. */
const ONE_BY_ONE = 8

export function pairLevels({ plan, parts: { levels } }: Pick<Weigher, 'plan' | 'parts'>): PairLevels {
  const reads = levels.flatMap(group => group.reads)
  const firsts = levels.map((_, g) => levels.slice(0, g).reduce((n, group) => n + group.reads.length, 0))
  const groupOf = Int16Array.from(levels.flatMap((group, g) => group.reads.map(() => g)))
  const dbs = Float64Array.from(reads, r => r.db)
  const speakerAt = Int16Array.from(reads, r => plan.speakers.indexOf(r.nodeId))
  const logOf = (r: number, density: number) => Math.log(orSlip(density, reads[r]!.any))
  const densities = Float64Array.from({ length: STEPS + 1 }, (_, k) => levelDensity(FROM_DB + k * STEP_DB, 0))
  const logs = reads.map((_, r) => Float64Array.from(densities, density => logOf(r, density)))
  const drawn = levels.map(group => levelled(group, plan.drawn, plan))
  const base = sum(drawn.map(l => l.together))
  const mostAt = Float64Array.from(reads, (_, r) => logOf(r, MOST_LEVEL))
  const mostOn = levels.map((group, g) => sum(mostAt.subarray(firsts[g]!, firsts[g]! + group.reads.length)))
  const none = sum(reads.map((_, r) => logOf(r, NO_LEVEL)))
  // That against the most that anything explains them by.
  const under = base - sum(mostAt) - sum(levels.map(({ reads: of }) => isFew(of.length) ? MOST_OVER_SETTINGS : 0))
  const scratch = levels.map(group => scratchOf(group.reads.length))
  const [was, is] = [new Float64Array(ONE_BY_ONE), new Float64Array(ONE_BY_ONE)]
  const [bothDb, bothMute, bothEach] = [scratchOf(reads.length), scratchOf(reads.length), scratchOf(reads.length)]
  const settingBy = (r: number, off: number) => dbs[r]! - heardDb(off)

  return {
    base,
    of: ({ outcome }) => {
      if (reads.length === 0) return NONE
      const speakerDb = Float64Array.from(plan.speakers, id => offDb(id, outcome, plan))
      const offs = Float64Array.from(speakerAt, k => speakerDb[k]!)
      const mute = new Float64Array(reads.length)
      const isMuted = mutes(outcome)
      if (isMuted) reads.forEach(({ nodeId }, r) => { mute[r] = muteAt(nodeId, outcome, plan) })
      const at: number[] = []
      for (let r = 0; r < reads.length; r++) if (Math.abs(offs[r]!) > MOVED_DB || mute[r]! > 0) at.push(r)
      const all = lineMute(outcome)
      const plays = speakerDb.some(db => db > NEIGHBOURS_DB)
      const groups = levels.map((group, g): GroupBy => {
        const first = firsts[g]!
        const each = Float64Array.from(group.reads, (_, k) => settingBy(first + k, offs[first + k]!)).sort()
        const settingDb = middleInOrder(each)
        const isPlain = plays && !isFew(each.length)
        const on = isPlain ? onAt(g, offs, mute, settingDb) : levelled(group, outcome, plan).together
        return { on, each, settingDb, isPlain, about: null }
      })
      const [r = -1] = at
      return {
        at: Int16Array.from(at), sum: silencedLog(sum(groups.map(of => of.on)), none, all) - base, offDb: offs, mute, isMuted, lineMute: all, groups,
        moves: at.length > 0 || all > 0,
        plays, speakerDb, playing: counted(speakerDb, db => db > NEIGHBOURS_DB + MOVED_DB), still: counted(speakerDb, db => Math.abs(db) <= MOVED_DB),
        one: at.length === 1 && all === 0 ? { r, db: offs[r]!, mute: mute[r]!, on: groups[groupOf[r]!]!.on - drawn[groupOf[r]!]!.together } : null,
      }
    },
    atMost: (a, of, from, { log, isExact }) => {
      for (let n = from; n < of.one.length; n++) {
        const r = of.one[n]!
        const isPut = r >= 0 && isPlainAt(a, groupOf[r]!) && a.playing + of.still[n]! > plan.speakers.length
        const isOther = a.moves && of.moves[n] === 1
        isExact[n] = Number(isPut || !isOther)
        log[n] = !isOther ? 0 : isPut ? withOne(a, r, of.oneDb[n]!, of.oneMute[n]!) - of.oneOn[n]! : -under - a.sum - of.sum[n]!
      }
    },
    shared: (a, b, least = -Infinity) => {
      // What moves no level changes nothing of what the other does.
      if (!a.moves || !b.moves) return 0
      const isSilent = a.playing + b.still <= plan.speakers.length && a.speakerDb.every((db, k) => db + b.speakerDb[k]! <= NEIGHBOURS_DB)
      if (isSilent) return none - base - a.sum - b.sum
      const [many, few] = a.at.length < b.at.length ? [b, a] : [a, b]
      if (few.one !== null && isPlainAt(many, groupOf[few.one.r]!)) return withOne(many, few.one.r, few.one.db, few.one.mute) - few.one.on
      const mute = muteOf(a.lineMute, b.lineMute)
      const leastOn = levels.length === 1 && mute === 0 ? least + base + a.sum + b.sum : -Infinity
      let on = 0
      for (let g = 0; g < levels.length; g++) on += few.at.length > ONE_BY_ONE ? onAnew(g, many, few, leastOn) : onOfGroup(g, many, few)
      return silencedLog(on, none, mute) - base - a.sum - b.sum
    },
  }

  /** A group with both, from what it is with the one that moves more: those that the other moves besides are put elsewhere among them. */
  function onOfGroup(g: number, many: LevelsBy, few: LevelsBy): number {
    const { on, each, isPlain } = many.groups[g]!
    let moved = 0
    for (let k = 0; k < few.at.length; k++) {
      const r = few.at[k]!
      if (groupOf[r] !== g) continue
      if (!isPlain) return onAnew(g, many, few, -Infinity)
      was[moved] = settingBy(r, many.offDb[r]!)
      is[moved++] = settingBy(r, many.offDb[r]! + few.offDb[r]!)
    }
    if (moved === 0) return many.plays ? on + few.groups[g]!.on - drawn[g]!.together : onAnew(g, many, few, -Infinity)
    const setting = middleWith(each, was, is, moved)
    let log = onAbout(g, many, setting)
    for (let k = 0; k < few.at.length; k++) {
      const r = few.at[k]!
      if (groupOf[r] !== g) continue
      const [off, mute] = [many.offDb[r]!, many.mute[r]!]
      log += levelOf(r, setting, off + few.offDb[r]!, muteOf(mute, few.mute[r]!)) - levelOf(r, setting, off, mute)
    }
    return log
  }

  /** What it comes to more with another that moves a single level of it, as most do. */
  function withOne(many: LevelsBy, r: number, db: number, mute: number): number {
    const g = groupOf[r]!
    const { on, each } = many.groups[g]!
    const [off, both, muted] = [many.offDb[r]!, many.offDb[r]! + db, many.mute[r]!]
    const setting = middleWithOne(each, settingBy(r, off), settingBy(r, both))
    return onAbout(g, many, setting) + levelOf(r, setting, both, muteOf(muted, mute)) - levelOf(r, setting, off, muted) - on
  }
  function isPlainAt(by: LevelsBy, g: number): boolean {
    return by.lineMute === 0 && by.groups[g]!.isPlain
  }

  /** A group with one fault, were the setting another. */
  function onAbout(g: number, by: LevelsBy, settingDb: number): number {
    const group = by.groups[g]!
    const step = (settingDb - group.settingDb + ABOUT_DB) / ABOUT_STEP_DB
    if (!(step >= 0 && step < ABOUT_STEPS - 1)) return onAt(g, by.offDb, by.mute, settingDb)
    const about = group.about ??= new Float64Array(ABOUT_STEPS).fill(NaN)
    const at = Math.floor(step)
    for (let k = at; k <= at + 1; k++) if (Number.isNaN(about[k]!)) about[k] = onAt(g, by.offDb, by.mute, group.settingDb - ABOUT_DB + k * ABOUT_STEP_DB)
    return about[at]! + (step - at) * (about[at + 1]! - about[at]!)
  }

  /** A group with both, every level of it; no further than it takes to be under `least`. */
  function onAnew(g: number, a: LevelsBy, b: LevelsBy, least: number): number {
    const [first, all] = [firsts[g]!, scratch[g]!]
    const [aDb, bDb] = [a.offDb, b.offDb]
    for (let k = 0, r = first; k < all.length; k++, r++) bothEach[r] = all[k] = settingBy(r, aDb[r]! + bDb[r]!)
    if (isFew(all.length) || a.isMuted || b.isMuted) {
      for (let k = 0, r = first; k < all.length; k++, r++) {
        bothDb[r] = aDb[r]! + bDb[r]!
        bothMute[r] = muteOf(a.mute[r]!, b.mute[r]!)
      }
      return overSettings(Array.from(settingsOf(all), setting => onAt(g, bothDb, bothMute, setting)))
    }
    const setting = middleOf(all)
    let log = mostOn[g]!
    for (let k = 0, r = first; k < all.length && log >= least; k++, r++) log += logAt(r, bothEach[r]! - setting) - mostAt[r]!
    return log
  }

  function onAt(g: number, offs: Float64Array, mute: Float64Array, settingDb: number): number {
    const end = firsts[g]! + levels[g]!.reads.length
    let log = 0
    for (let r = firsts[g]!; r < end; r++) log += levelOf(r, settingDb, offs[r]!, mute[r]!)
    return log
  }
  function levelOf(r: number, settingDb: number, off: number, mute: number): number {
    const db = dbs[r]! - settingDb
    const here = heardDb(off)
    if (mute > 0) return logOf(r, levelBy(db, { offDb: here, mute }))
    return logAt(r, db - here)
  }
  function logAt(r: number, db: number): number {
    const step = (db - FROM_DB) / STEP_DB
    const table = logs[r]!
    if (!(step >= 0)) return table[0]!
    if (step >= STEPS) return table[STEPS]!
    const at = step | 0
    return table[at]! + (step - at) * (table[at + 1]! - table[at]!)
  }
}
const counted = (all: Float64Array, is: (figure: number) => boolean): number => all.reduce((count, figure) => count + Number(is(figure)), 0)
const scratchOf = (count: number) => new Float64Array(count)
const muteOf = (one: number, other: number): number => one === 0 ? other : other === 0 ? one : 1 - (1 - one) * (1 - other)
const sum = (logs: ArrayLike<number>): number => {
  let total = 0
  for (let k = 0; k < logs.length; k++) total += logs[k]!
  return total
}
const NO_FIGURES = new Float64Array(0)
const NONE: LevelsBy = {
  at: new Int16Array(0), sum: 0, offDb: NO_FIGURES, mute: NO_FIGURES, isMuted: false, lineMute: 0, moves: false, one: null, groups: [],
  plays: true, speakerDb: NO_FIGURES, playing: 0, still: 0,
}
