import { SOUNDS, type Sound } from '#core/job/sections/readings/schema'
import type { PolarityHow, ReadingValue } from '#core/job/schema'
import type { Seen } from '#core/network/solver'
import { step } from './chances'
import { actsOn, type Outcome, type Plan } from './outcome'

/** What is heard of a line with faults in it. */

/** What is noted of a speaker that is right: ears and pens err. Common practice, no source. */
const RIGHT: Record<Sound, number> = { 'plays': 0.966, 'silent': 0.004, 'quiet': 0.01, 'thin': 0.006, 'scratchy': 0.006, 'hum': 0.005, 'comes-and-goes': 0.003 }
/** What else is noted of one that is heard as a fault makes it heard: each of the others. */
const STRAY = 0.006

/** A speaker this many dB under its plan is as likely as not noted as silent; a few dB to either side decide. Common practice, no source. */
const SILENT_DB = -25
const SILENT_SOFT_DB = 4
/** Chance that a speaker so many dB off its plan is heard as silent. */
export const silentChance = (offDb: number): number => offDb === -Infinity ? 1 : step((SILENT_DB - offDb) / SILENT_SOFT_DB)

/**
 * This much under its plan it is as likely as not noted as quiet, with nothing beside it to compare. Common practice, no source: 3 dB are plain beside a
 * neighbour, not by themselves.
 */
const QUIET_DB = -5.5
const QUIET_SOFT_DB = 1.2
const NOTED = 0.85

/** An amplifier that sees this part of the planned load protects itself as likely as not. Common practice, no source. */
const CUTS_OUT = 0.4
const CUTS_OUT_SOFT = 0.07
/** Chance that the amplifier goes into protection, and the whole line is silent. */
export function cutOutChance(head: Seen, planned: Seen): number {
  if (head.state !== 'finite') return head.state === 'short' ? 1 : 0
  return planned.state === 'finite' ? step((CUTS_OUT - head.ohm / planned.ohm) / CUTS_OUT_SOFT) : 0
}

/** From this part of the plan on it cuts out in less than one of a thousand. */
export const NOT_CUT_FROM = CUTS_OUT + CUTS_OUT_SOFT * Math.log(999)

/** How far a speaker is off its plan, dB; -Infinity where nothing arrives. Where nothing was planned it is taken as it is. */
export function offDb(nodeId: string, outcome: Pick<Outcome, 'watts' | 'definitions'>, plan: Pick<Plan, 'watts'>): number {
  // What a fault of the rack does to the sound is said by how it is heard.
  if (outcome.definitions.some(d => d.kind === 'lines-exchanged')) return 0
  const [nowW, thenW] = [outcome.watts().get(nodeId) ?? 0, plan.watts.get(nodeId) ?? 0]
  return nowW <= 0 || thenW <= 0 ? -Infinity : 10 * Math.log10(nowW / thenW)
}

/** What ears and a level meter go by. */
export type Acting = Pick<Outcome, 'faults' | 'definitions' | 'watts'>
export type Heard = Partial<Record<Sound, number>>

/** How what acts on a speaker makes it heard; null where that is by its watts alone. Of two faults both. */
export function heardOf(nodeId: string, { faults, definitions }: Pick<Outcome, 'faults' | 'definitions'>, plan: Pick<Plan, 'onward' | 'within'>): Heard | null {
  const acting = definitions.filter((d, k) => d.heard !== undefined && actsOn(plan, faults[k]!, d, nodeId)).map(d => d.heard!)
  if (acting.length < 2) return acting[0] ?? null
  return bothHeard(acting[0]!, acting[1]!)
}

/** Two that act on one speaker: whatever is worse is noted, and it plays only where both let it play. */
export function bothHeard(one: Heard, other: Heard): Heard {
  const mixed = SOUNDS.map(s => s === 'plays' ? (one.plays ?? 0) * (other.plays ?? 0) : ((one[s] ?? 0) + (other[s] ?? 0)) / 2)
  const total = mixed.reduce((a, b) => a + b, 0)
  return Object.fromEntries(SOUNDS.map((s, k) => [s, mixed[k]! / total]))
}

/** Chance of each sound at a speaker, the amplifier's cutting out apart. */
export const soundChance = (sound: Sound, levelDb: number, heard: Heard | null): number =>
  atLevel(sound, levelDb, heard === null ? RIGHT[sound] : STRAY + (1 - SOUNDS.length * STRAY) * (heard[sound] ?? 0))

/** A sound that has this chance where the watts are as planned: so far off them it is quiet, or silent, for some. */
function atLevel(sound: Sound, levelDb: number, base: number): number {
  const silent = silentChance(levelDb)
  const quiet = NOTED * step((QUIET_DB - levelDb) / QUIET_SOFT_DB)
  const audible = (1 - quiet) * base + (sound === 'quiet' ? quiet : 0)
  return (sound === 'silent' ? silent : 0) + (1 - silent) * audible
}
/** What was noted is silence, each time. */
export const isSilence = (sounds: readonly Sound[]): boolean => sounds.every(is => is === 'silent')

/** So often a second listening finds what is there as it was at the first; else as though it were the first. Common practice, no source. */
const SAME_AGAIN = 0.6
/** What is noted of a speaker by how it sounds in truth. */
const notedOf = (is: Sound, truth: Sound): number => truth === 'plays' ? RIGHT[is] : STRAY + (is === truth ? 1 - SOUNDS.length * STRAY : 0)

/** How a speaker sounds in truth, whoever hears it. */
const trueSound = (sound: Sound, levelDb: number, heard: Heard | null): number =>
  atLevel(sound, levelDb, heard === null ? Number(sound === 'plays') : heard[sound] ?? 0)

/**
 * Chance of all that was noted of one speaker, oldest first. One listening more tells a slip of an ear from what is there; it is no evidence of its own,
 * since what is there mostly sounds as it did.
 */
export const soundsChance = (sounds: readonly Sound[], levelDb: number, heard: Heard | null): number =>
  several(sounds, is => trueSound(is, levelDb, heard), is => soundChance(is, levelDb, heard))

function several(sounds: readonly Sound[], truth: (is: Sound) => number, once: (is: Sound) => number): number {
  const anew = sounds.reduce((product, is) => product * once(is), 1)
  if (sounds.length < 2) return anew
  const same = SOUNDS.reduce((sum, t) => sum + truth(t) * sounds.reduce((product, is) => product * notedOf(is, t), 1), 0)
  return SAME_AGAIN * same + (1 - SAME_AGAIN) * anew
}
/** The same of something that is not in the list, and of a slip. */
export const anySounds = (sounds: readonly Sound[]): number => several(sounds, is => ANY_SOUND[is], is => ANY_SOUND[is])

/** What is noted of something that is not in the list. Common practice, no source. */
export const ANY_SOUND: Record<Sound, number> = { 'plays': 0.62, 'silent': 0.12, 'quiet': 0.08, 'thin': 0.06, 'scratchy': 0.06, 'hum': 0.03, 'comes-and-goes': 0.03 }

/** How far one speaker is off its plan against another, dB; nothing where nothing arrives at either. */
export function besideDb(nodeId: string, besideId: string, outcome: Pick<Outcome, 'watts' | 'definitions'>, plan: Pick<Plan, 'watts'>): number {
  const [here, there] = [offDb(nodeId, outcome, plan), offDb(besideId, outcome, plan)]
  return here === there ? 0 : Math.max(SILENCE_DB, here) - Math.max(SILENCE_DB, there)
}
/** Silence as a figure, where it is held against something. */
export const SILENCE_DB = -99

/** Two speakers that should be alike: by ear 3 dB is plain and 1 dB is not. Common practice, no source. */
const EAR_DB = 0.6
/** How it is judged beside another of which it is so many decibels off. */
export function besideChance(is: 'louder' | 'alike' | 'quieter', off: number): number {
  // Steps of an ear as smooth edges at two decibels to either side.
  const louder = EAR_STRAY + (1 - 3 * EAR_STRAY) * step((off - 2) / EAR_DB)
  const quieter = EAR_STRAY + (1 - 3 * EAR_STRAY) * step((-off - 2) / EAR_DB)
  return is === 'louder' ? louder : is === 'quieter' ? quieter : Math.max(EAR_STRAY, 1 - louder - quieter)
}
const EAR_STRAY = 0.02

/** A cone, a tester or two ears are wrong as often as this. Common practice, no source. */
export const MISSEEN = 0.03
/** Nobody can tell, though it plays, as often as this: a tester under a ceiling, a cone behind its grille. Common practice, no source. */
const UNTOLD = 0.25
/**
 * What a signal through the line shows of which way round a speaker is: of one that is silent, by its watts or by what is wrong with it or at the rack,
 * nothing. `untoldOf`: how often nobody can tell of one that plays.
 */
export function turnedThrough({ is, against }: Pick<Turned, 'is' | 'against'>, nodeId: string, outcome: Acting, plan: Plan, untoldOf = UNTOLD): number {
  const plays = (1 - silentChance(offDb(nodeId, outcome, plan))) * (1 - (heardOf(nodeId, outcome, plan)?.silent ?? 0))
  const told = (1 - untoldOf) * plays
  return is === 'cannot-tell' ? 1 - told : told * turnedChance(is, nodeId, against, outcome, plan)
}
type Turned = Extract<ReadingValue, { how: PolarityHow }>
/** The same of something that is not in the list. */
export const ANY_TURNED = { 'right-way': 0.72, 'reversed': 0.03, 'cannot-tell': UNTOLD } as const

/** Which way round a speaker shows itself, by itself or beside another. */
export function turnedChance(is: 'right-way' | 'reversed', nodeId: string, against: string | null, { faults, definitions }: Pick<Outcome, 'faults' | 'definitions'>, plan: Pick<Plan, 'onward' | 'within'>): number {
  let turns = 0
  for (const [k, definition] of definitions.entries()) {
    const fault = faults[k]!
    // A cone that two coils hold stands still.
    if (definition.kind === 'coil-opposed' && (fault.nodeId === nodeId || fault.nodeId === against)) return 0.5
    if (definition.isReversed) turns += Number(actsOn(plan, fault, definition, nodeId)) + Number(against !== null && actsOn(plan, fault, definition, against))
  }
  const isReversed = turns % 2 === 1
  return (is === 'reversed') === isReversed ? 1 - MISSEEN : MISSEEN
}
