import type { Job, Output, Reading, Speaker } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { wattSensitivityDb, wattsDb } from '#core/room/tap'
import { solvedAsRead } from './readingBands'

/**
 * A sound level at a place: held against those that were read under others like it, since a room adds to all of them; absolutely only as a lower bound, what
 * the direct sound of the speaker alone must bring.
 */
export interface LevelPlan {
  /** The middle of what was read under others like it, each brought to the watts of this one, dB; null: none was read so. */
  besideDb: number | null
  /** Of so many. */
  of: number
  /** What the direct sound alone must bring, dB; null where that is not known, or not to be compared. */
  atLeastDb: number | null
}

/** Two equal speakers of one room differ by a decibel or so at ears; half the tap is three. Common practice, no source. */
export const LEVEL_OFF_DB = 2
/** What a plain meter, a sheet's sensitivity and a place that is not quite under it may be off together, dB. Common practice, no source. */
const DIRECT_OFF_DB = 4

/** Level at ears under a speaker for one watt, dB: where its place, its height and its sensitivity are known, and it points straight down. */
export type AtEars = ReadonlyMap<string, number>
export function atEarsDb({ kinds, spaces, amplifiers }: Pick<Job, 'kinds' | 'spaces' | 'amplifiers'>): AtEars {
  const wattDb = new Map(kinds.map(kind => [kind.id, wattSensitivityDb(kind.model)]))
  const speakers = outputsOf({ amplifiers }).flatMap(o => speakersOf(o.wiring))
  const kindOf = new Map(speakers.flatMap(s => s.kindId === null ? [] : [[s.id, s.kindId] as const]))
  return new Map(spaces.flatMap(({ spots, heightM, earsM }) => spots.flatMap((spot) => {
    const kindId = spot.nodeId === null ? undefined : kindOf.get(spot.nodeId)
    const db = kindId === undefined ? null : wattDb.get(kindId) ?? null
    const aboveM = (spot.heightM ?? heightM) - earsM
    // Nearer than this no ear is, and the law of the distance does not hold.
    return db === null || spot.aim !== null || aboveM < 0.25 ? [] : [[spot.nodeId!, db - 20 * Math.log10(aboveM)] as const]
  })))
}

/**
 * What a level that was read on a line is held against.
 * @param all the readings of that line that were not taken back; of each place the last one counts
 */
export function levelsOn(output: Output, all: readonly Reading[], atEars: AtEars = NOWHERE): (reading: Reading) => LevelPlan {
  const speakers = new Map(speakersOf(output.wiring).map(s => [s.id, s]))
  const watts = new Map(solvedAsRead(output.wiring).drops.map(d => [d.id, d.powerW]))
  const inTime = all.filter(r => r.kind === 'level').sort((a, b) => a.at < b.at ? -1 : 1)
  const last = [...new Map(inTime.map(r => [r.nodeId, r])).values()]
  return reading => levelPlan({ reading, last, speakers, watts, atEars })
}
interface Known { reading: Reading, last: readonly Reading[], speakers: ReadonlyMap<string, Speaker>, watts: ReadonlyMap<string, number>, atEars: AtEars }

function levelPlan({ reading, last, speakers, watts, atEars }: Known): LevelPlan {
  const { value, nodeId } = reading
  const here = nodeId === null ? undefined : speakers.get(nodeId)
  if (value.is !== 'level' || !here) return { besideDb: null, of: 0, atLeastDb: null }
  const ownW = watts.get(here.id) ?? 0
  const beside = last.flatMap((other) => {
    const speaker = other.nodeId === null || other.nodeId === nodeId ? undefined : speakers.get(other.nodeId)
    const w = speaker ? watts.get(speaker.id) ?? 0 : 0
    if (!speaker || w <= 0 || ownW <= 0 || !isLike(here, speaker) || other.value.is !== 'level' || !isTakenAlike(reading, other)) return []
    return [other.value.db + wattsDb(ownW / w)]
  }).sort((a, b) => a - b)
  const earsDb = atEars.get(here.id)
  // A tone stands in waves; a weighted noise and a programme are another figure than a sheet's.
  const isDirect = value.signal === 'pink-noise' && value.weighting !== 'A' && value.headV !== null && ownW > 0 && earsDb !== undefined
  return { besideDb: middleOf(beside), of: beside.length, atLeastDb: isDirect ? earsDb + wattsDb(ownW * value.headV! ** 2) - DIRECT_OFF_DB : null }
}
const NOWHERE: AtEars = new Map()

/** One kind of speaker, or one name where no kind is said. */
const isLike = (a: Speaker, b: Speaker): boolean => likeKey(a) === likeKey(b)
const likeKey = ({ kindId, name, load }: Speaker): string => kindId === null ? `named ${load.kind} ${name}` : `kind ${kindId}`

/** The same weighting and signal, on one day, at the same volts: where they were not read, at the one setting that the day's walk had. */
const isTakenAlike = (a: Reading, b: Reading): boolean => b.value.is === 'level' && takenKey(a) === takenKey(b)
const takenKey = ({ value, at }: Reading): string | null => value.is === 'level' ? [value.weighting, value.signal, value.headV, at.slice(0, 10)].join(' ') : null

/** Levels that may be held against each other are of one class; by the speaker alone where no reading is given. */
export const levelClass = (speaker: Speaker, reading: Reading | null): string => reading === null ? likeKey(speaker) : `${likeKey(speaker)} ${takenKey(reading)}`

function middleOf(sorted: readonly number[]): number | null {
  const half = (sorted.length - 1) / 2
  return sorted.length === 0 ? null : (sorted[Math.floor(half)]! + sorted[Math.ceil(half)]!) / 2
}
