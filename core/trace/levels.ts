import type { JudgedReading } from '#core/check/proof'
import { LEVEL_OFF_DB, levelClass } from '#core/check/levels'
import type { Speaker } from '#core/job/schema'
import type { Loudness } from '#core/job/sections/readings/schema'
import { speakersOf } from '#core/job/tree'
import type { Chance } from '#core/quantity/seeded'
import { bell, logSum, normalAt, normalBelow } from './chances'
import { offDb, silentChance, type Acting } from './ears'
import { middleOf } from './middle'
import { orSlip } from './ohms'
import { actsOn, type Plan } from './outcome'

/** What the level meter reads of a line with faults in it. */

/** By the meter, speakers that are alike lie about so far apart at ears, dB: one sigma. Common practice, no source. */
const METER_DB = 1.2
/** A level that is none of this: somebody talked. Common practice, no source. */
const STRAY_LEVEL = 0.03
/** Where nothing plays a meter reads its neighbours, dB under what is planned. Common practice, no source. */
export const NEIGHBOURS_DB = -15
const ANY_DB = 1 / 25
/** Of something that is not in the list few speakers of many are another level. Common practice, no source. */
const ODD_LEVEL = 0.05

/** Density of a level that many dB from what it would be, with one that is `off`; and of any. */
export const levelDensity = (readDb: number, off: number): number => (1 - STRAY_LEVEL) * bell(readDb - off, METER_DB) + STRAY_LEVEL * ANY_DB
export const anyLevelDensity = (readDb: number): number => (1 - ODD_LEVEL) * bell(readDb, METER_DB) + ODD_LEVEL * ANY_DB
/** Density of a level where there is none to read; and the most that any comes to. */
export const NO_LEVEL = STRAY_LEVEL * ANY_DB
export const MOST_LEVEL = (1 - STRAY_LEVEL) * bell(0, METER_DB) + NO_LEVEL

/** How far a speaker is off its plan, dB, no quieter than its neighbours are there; and how often it says nothing, whatever its watts. */
export interface LevelAt { offDb: number, mute: number }
export const heardDb = (db: number): number => db > NEIGHBOURS_DB ? db : NEIGHBOURS_DB
const readDb = (nodeId: string, outcome: Acting, plan: Plan): number => heardDb(offDb(nodeId, outcome, plan))
export const levelAt = (nodeId: string, outcome: Acting, plan: Plan): LevelAt => ({ offDb: readDb(nodeId, outcome, plan), mute: muteAt(nodeId, outcome, plan) })
export const levelBy = (readDb: number, { offDb, mute }: LevelAt): number =>
  (1 - mute) * levelDensity(readDb, offDb) + (mute > 0 ? mute * levelDensity(readDb, NEIGHBOURS_DB) : 0)
/** A level as it may be read. */
export function levelDrawn({ offDb, mute }: LevelAt, chance: Chance): number {
  const middle = chance() < mute ? NEIGHBOURS_DB : offDb
  const isStray = chance() < STRAY_LEVEL
  return isStray ? (chance() - 0.6) / ANY_DB : middle + METER_DB * normalAt(Math.min(1 - 1e-9, Math.max(1e-9, chance())))
}

/** How often what is wrong at a speaker, or in the run to it, silences it; what is wrong at the rack silences all at once, or none. */
export const muteAt = (nodeId: string, { faults, definitions }: Pick<Acting, 'faults' | 'definitions'>, plan: Plan): number => {
  const here = definitions.flatMap((d, k) => d.acts !== 'line' && d.heard?.silent && actsOn(plan, faults[k]!, d, nodeId) ? [d.heard.silent] : [])
  return 1 - here.reduce((plays, silent) => plays * (1 - silent), 1)
}
/** What is wrong silences a speaker by itself, now and then. */
export const mutes = ({ definitions }: Pick<Acting, 'definitions'>): boolean => definitions.some(d => d.acts !== 'line' && (d.heard?.silent ?? 0) > 0)
export const lineMute = ({ definitions }: Pick<Acting, 'definitions'>): number =>
  1 - definitions.reduce((plays, d) => plays * (1 - (d.acts === 'line' ? d.heard?.silent ?? 0 : 0)), 1)

/** Chance that none of them plays, the amplifier's cutting out apart: then nobody reads a level. */
export function silenceOf(ids: readonly string[], outcome: Acting, plan: Plan): number {
  const mute = lineMute(outcome)
  return mute + (1 - mute) * ids.reduce((product, id) => {
    const none = silentChance(offDb(id, outcome, plan))
    return product * (none + (1 - none) * muteAt(id, outcome, plan))
  }, 1)
}

/** Levels that are read of speakers alike, alike and at one setting. That setting nobody knows. */
export interface LevelGroup { reads: readonly LevelRead[], /** All together by something that no list has, as a logarithm. */ anyLog: number }
/** `db`: brought to the watts that are planned. `any`: how likely it is by something that no list has, and by a slip. */
export interface LevelRead { judged: JudgedReading, nodeId: string, db: number, any: number }

/** Of one speaker alone nothing is told. */
export function levelGroups(readings: readonly JudgedReading[], { output, watts }: Pick<Plan, 'output' | 'watts'>): LevelGroup[] {
  const byId = new Map(speakersOf(output.wiring).map(s => [s.id, s]))
  const groups = new Map<string, Omit<LevelRead, 'any'>[]>()
  for (const judged of readings) {
    const { nodeId, value } = judged.reading
    const [speaker, watt] = [byId.get(nodeId ?? ''), watts.get(nodeId ?? '') ?? 0]
    if (value.is !== 'level' || !speaker || watt <= 0) continue
    const key = levelClass(speaker, judged.reading)
    groups.set(key, [...groups.get(key) ?? [], { judged, nodeId: speaker.id, db: value.db - 10 * Math.log10(watt) }])
  }
  return [...groups.values()].filter(reads => reads.length > 1).map((reads) => {
    const dbs = Float64Array.from(reads, r => r.db)
    const anyLog = overSettings(Array.from(settingsOf(dbs.slice()), at => dbs.reduce((log, db) => log + Math.log(anyLevelDensity(db - at)), 0)))
    const setting = middleOf(dbs)
    return { reads: reads.map(r => ({ ...r, any: anyLevelDensity(r.db - setting) })), anyLog }
  })
}
/** Speakers of which levels are held against each other. */
export const likeSpeakers = (a: Speaker, b: Speaker): boolean => levelClass(a, null) === levelClass(b, null)

/**
 * Settings of levels, by what each of them would make it: that which makes the middle of them right. Of a few every one that may be, a decibel apart, since two
 * leave it open. What lost: each level held against the middle of those that were read beside it. Of three with one silent that lies between what plays and
 * what does not, and what is right was out by seven decibels; of two each told once more what the other had told.
 */
export function settingsOf(each: Float64Array): Float64Array {
  if (!isFew(each.length)) return Float64Array.of(middleOf(each))
  let [least, most] = [Infinity, -Infinity]
  for (const db of each) [least, most] = [Math.min(least, db), Math.max(most, db)]
  const from = Math.ceil(least - AROUND_DB)
  const settings = new Float64Array(Math.floor(most + AROUND_DB) - from + 1)
  for (let k = 0; k < settings.length; k++) settings[k] = from + k
  return settings
}
const A_FEW = 6
const AROUND_DB = 3
export const isFew = (count: number): boolean => count <= A_FEW
/** Together, at all of the settings; logarithms. No more than this above what each is at most. */
export const overSettings = (logs: readonly number[]): number => logs.length === 1 ? logs[0]! : logSum(logs)
export const MOST_OVER_SETTINGS = 1.5

/** Levels with these faults: the logarithm of all together; of each, at the setting that is likeliest; of each where there is none to read. */
interface Levelled { together: number, each: number[], none: number[], mute: number }
export function levelled({ reads }: LevelGroup, outcome: Acting, plan: Plan): Levelled {
  const none = reads.map(r => Math.log(orSlip(NO_LEVEL, r.any)))
  if (plan.speakers.every(id => readDb(id, outcome, plan) <= NEIGHBOURS_DB)) return { together: sum(none), each: none, none, mute: 1 }
  const ats = reads.map(r => levelAt(r.nodeId, outcome, plan))
  const tried = Array.from(settingsOf(Float64Array.from(reads, (r, k) => r.db - ats[k]!.offDb)), setting =>
    reads.map((r, k) => Math.log(orSlip(levelBy(r.db - setting, ats[k]!), r.any))))
  const sums = tried.map(sum)
  return { together: overSettings(sums), each: tried[sums.indexOf(Math.max(...sums))]!, none, mute: lineMute(outcome) }
}
const sum = (logs: readonly number[]): number => logs.reduce((a, b) => a + b, 0)
/** All that was read, so often silenced at once. Lost: each group by itself, as though one of two could play. */
export const silencedLog = (on: number, none: number, mute: number): number => mute === 0 ? on : logSum([Math.log(1 - mute) + on, Math.log(mute) + none])
export function levelsLog(groups: readonly LevelGroup[], outcome: Acting, plan: Plan): number {
  const all = groups.map(group => levelled(group, outcome, plan))
  return silencedLog(sum(all.map(l => l.together)), sum(all.flatMap(l => l.none)), lineMute(outcome))
}

/** So far a speaker is off its plan, dB, against the middle of the others: what all do alike nobody sees by a meter at one setting. */
export function levelOffDb(nodeId: string, outcome: Acting, plan: Plan): number {
  const all = sortedOf(outcome, plan)
  const own = readDb(nodeId, outcome, plan)
  const half = (all.length - 2) / 2
  if (half < 0) return 0
  const at = all.indexOf(own)
  const other = (k: number) => all[k < at ? k : k + 1]!
  return own - (other(Math.floor(half)) + other(Math.ceil(half))) / 2
}
const sorted = new WeakMap<Acting, Float64Array>()
function sortedOf(outcome: Acting, plan: Plan): Float64Array {
  const known = sorted.get(outcome)
  if (known) return known
  const all = Float64Array.from(plan.speakers, id => readDb(id, outcome, plan)).sort()
  sorted.set(outcome, all)
  return all
}

/** How a level is judged against the middle of the others, with one that is so many dB off. */
export function levelChance(is: Loudness, off: number): number {
  const [louder, quieter] = [normalBelow((off - LEVEL_OFF_DB) / METER_DB), normalBelow((-off - LEVEL_OFF_DB) / METER_DB)]
  const chance = is === 'louder' ? louder : is === 'quieter' ? quieter : 1 - louder - quieter
  return STRAY_LEVEL / 3 + (1 - STRAY_LEVEL) * chance
}
