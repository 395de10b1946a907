import { byId } from '#core/quantity/known'

/** How loud a space is to be. All: common practice, no source, unless said otherwise. */

export interface SpaceUse {
  id: string
  name: string
  says: string
  /** How far above the noise it should sound, dB: from, to. The upper end is taken where nothing is said: level is trimmed later, capability is not. */
  overDb: readonly [number, number]
  /** Louder than this is not asked of it, dB SPL; null: no such limit. */
  mostDb: number | null
  /** Why not. */
  mostSays?: string
}

/** Speech gets no clearer above this. */
export const SPEECH_MOST_DB = 95
/** Masking stays below speech: above this people raise their voices over it. From memory; common practice, no source. */
export const MASKING_MOST_DB = 48
const SPEECH_SAYS = `gets no clearer above ${SPEECH_MOST_DB} dB. Make it quieter there first.`

export const SPACE_USES = [
  { id: 'quiet-background', name: 'quiet background', says: 'music that nobody has to raise a voice over', overDb: [0, 3], mostDb: null },
  { id: 'lively-background', name: 'lively background', says: 'music that is noticed: shops, bars', overDb: [3, 6], mostDb: null },
  { id: 'foreground', name: 'foreground', says: 'music that people come for', overDb: [8, 10], mostDb: null },
  { id: 'speech', name: 'speech and paging', says: 'calls that must be understood', overDb: [10, 15], mostDb: SPEECH_MOST_DB, mostSays: SPEECH_SAYS },
  { id: 'event', name: 'sport or event', says: 'above a crowd', overDb: [10, 15], mostDb: SPEECH_MOST_DB, mostSays: SPEECH_SAYS },
  {
    id: 'masking', name: 'sound masking', says: 'a low, even sound that hides talk from the next desk; below speech', overDb: [2, 5], mostDb: MASKING_MOST_DB,
    mostSays: `is to stay below speech: ${MASKING_MOST_DB} dB at most.`,
  },
] as const satisfies readonly SpaceUse[]
export type SpaceUseId = (typeof SPACE_USES)[number]['id']
export const SPACE_USE_IDS = SPACE_USES.map(u => u.id) as [SpaceUseId, ...SpaceUseId[]]
export const spaceUse = (id: SpaceUseId): SpaceUse => byId(SPACE_USES, id)

/** What a place is like and about how loud it is, dB(A). From memory; a meter in the room decides. */
export const NOISE_EXAMPLES = [
  { says: 'a still gallery', db: 40 }, { says: 'an office', db: 50 }, { says: 'a shop', db: 58 }, { says: 'a café', db: 65 }, { says: 'a busy bar', db: 75 },
  { says: 'a workshop', db: 80 }, { says: 'a crowd that cheers', db: 92 },
] as const

/**
 * Level that a space is to have on average, dB SPL.
 * @param overDb as the person asks; null: as its use says
 * @returns null while its noise is not known
 */
export function targetDb(use: SpaceUseId, noiseDb: number | null, overDb: number | null): number | null {
  if (noiseDb === null) return null
  const { overDb: [, most], mostDb } = spaceUse(use)
  return overDb === null ? Math.min(noiseDb + most, Math.max(mostDb ?? Infinity, noiseDb)) : noiseDb + overDb
}

/** What is kept for the peaks of programme: so far is its average below what the line gives when it is full. */
export interface PeakSchool { id: string, name: string, says: string, db: number }
export const PEAK_SCHOOLS = [
  { id: 'none', name: 'nothing', says: 'level at full output, as sheets state it: a steady tone', db: 0 },
  { id: 'dense', name: 'dense programme', says: 'compressed music: its average is about a third of its peak', db: 2 },
  { id: 'open', name: 'open programme', says: 'speech and open music: its average is about an eighth of its peak; what is chosen where nothing is said, since a line that clips on every word is no reserve', db: 6 },
] as const satisfies readonly PeakSchool[]
export type PeakSchoolId = (typeof PEAK_SCHOOLS)[number]['id']
export const PEAK_SCHOOL_IDS = PEAK_SCHOOLS.map(p => p.id) as [PeakSchoolId, ...PeakSchoolId[]]
export const DEFAULT_PEAKS: PeakSchoolId = 'open'
export const peakSchool = (id: PeakSchoolId): PeakSchool => byId(PEAK_SCHOOLS, id)

/** Ears above the floor, metres. Common practice, no source. */
export const EARS = [{ says: 'seated', earsM: 1.2 }, { says: 'standing', earsM: 1.65 }] as const
