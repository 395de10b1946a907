import { bothHeard, heardOf, isSilence, offDb, soundsChance, type Heard } from './ears'
import { orSlip } from './ohms'
import type { Touches } from './pairBound'
import type { Single } from './rank'
import type { Weigher } from './weigh'

/** What two faults do to ears, found from what each does by itself: decibels added, and of what acts on a speaker both. */

/** Ears that find something otherwise with a fault; of every ear by how much, dB (no number where it does nothing). */
export interface Ears extends Touches { db: Float64Array, heard: (Heard | null)[] }
export interface PairEars {
  /** Something was heard, by an ear or a meter. */
  isHeard: boolean
  /** Logarithms of what was heard: at each ear with nothing wrong, of all of them, and where the amplifier silences all. */
  rightLogs: readonly number[]
  allRight: number
  allSilent: number
  of: (single: Single) => Ears
  /** What both do to ears that both touch, against what each does by itself. */
  shared: (a: Ears, b: Ears) => number
}

/** An ear is touched by a fault from here on, dB. */
const TOUCHED_DB = 0.5

/** An ear's steps: from where nothing is heard for certain to as loud as any. At -60 it is not certain by as much as pens slip. */
const DB_LEAST = -100
const DB_STEPS = 4 * 130
const stepOf = (db: number): number => db <= DB_LEAST ? 0 : Math.min(DB_STEPS - 1, (4 * (db - DB_LEAST) + 0.5) | 0)

export function pairEars({ plan, playedLog, parts: { heard: hearing } }: Pick<Weigher, 'plan' | 'playedLog' | 'parts'>): PairEars {
  const count = hearing.length
  const earLog = (r: number, db: number, acting: Heard | null) => Math.log(orSlip(soundsChance(hearing[r]!.sounds, db, acting), hearing[r]!.any))
  const rightLogs = hearing.map((_, r) => earLog(r, 0, null))
  // In steps of a quarter of a decibel: by watts alone, and by what acts there, each found when it is first asked for.
  const tableNew = () => new Float64Array(count * DB_STEPS).fill(NaN)
  const byWatts = tableNew()
  const byActing = new Map<Heard, Float64Array>()
  const actingTable = (acting: Heard): Float64Array => byActing.get(acting) ?? byActing.set(acting, tableNew()).get(acting)!
  const logAt = (table: Float64Array, r: number, db: number, acting: Heard | null): number => {
    const step = stepOf(db)
    const known = table[r * DB_STEPS + step]!
    return known === known ? known : table[r * DB_STEPS + step] = earLog(r, DB_LEAST + step / 4, acting)
  }
  return {
    isHeard: count > 0 || playedLog < 0, rightLogs,
    allRight: rightLogs.reduce((a, b) => a + b, 0),
    allSilent: hearing.reduce((sum, { sounds, any }) => sum + Math.log(orSlip(isSilence(sounds) ? 1 : 0, any)), playedLog),
    of: ({ fault, definition, outcome }) => {
      const ears: Ears = {
        at: new Int16Array(0), db: new Float64Array(count).fill(NaN), heard: hearing.map(() => null), delta: new Float64Array(count), sum: 0,
      }
      const touched: number[] = []
      hearing.forEach(({ nodeId }, r) => {
        const db = offDb(nodeId, outcome, plan)
        const acting = heardOf(nodeId, { faults: [fault], definitions: [definition] }, plan)
        if (acting === null && Math.abs(db) <= TOUCHED_DB) return
        touched.push(r)
        ears.db[r] = db
        ears.heard[r] = acting
        ears.sum += ears.delta[r] = earLog(r, db, acting) - rightLogs[r]!
      })
      ears.at = Int16Array.from(touched)
      return ears
    },
    shared: (a, b) => {
      let more = 0
      const { at } = a.at.length < b.at.length ? a : b
      for (let k = 0; k < at.length; k++) {
        const r = at[k]!
        const db = a.db[r]! + b.db[r]!
        // One of them does nothing here.
        if (db !== db) continue
        const one = a.heard[r]!
        const other = b.heard[r]!
        const acting = one ?? other
        const log = one !== null && other !== null
          ? earLog(r, db, bothHeard(one, other))
          : logAt(acting === null ? byWatts : actingTable(acting), r, db, acting)
        more += log - rightLogs[r]! - a.delta[r]! - b.delta[r]!
      }
      return more
    },
  }
}
