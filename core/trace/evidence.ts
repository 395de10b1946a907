import type { JudgedReading } from '#core/check/proof'
import { METER_HZ } from '#core/check/readingBands'
import { isWrong } from '#core/check/verdict'
import type { Fault } from '#core/faults/fault'
import type { FaultKind, Reading, ReadingKind } from '#core/job/schema'
import { howFacts } from '#core/job/sections/readings/hows'
import { isGroup, type SpeakerNode, type WiringNode } from '#core/network/tree'
import { SHORT_OHM } from '#core/quantity/tolerance'
import { ANY_TURNED, besideChance, besideDb, turnedChance, turnedThrough } from './ears'
import { lookAnything, lookChance, swapChance } from './eyes'
import { actsOn, changed, type Outcome, type Plan, type Told } from './outcome'

/**
 * What is read otherwise than in ohms: by ear, by eye, yes or no. What is read in ohms hangs on what the units of a model are, and is weighed together
 * (weigh.ts).
 */

/** A dial is read otherwise than it stands as often as this. Common practice, no source. */
const MISREAD = 0.01
/** Which of its other positions it is then read as, nobody knows: each is as likely. A dial of which nothing is stated has five. */
const misreadAs = (load: SpeakerNode['load'] | undefined): number => MISREAD / Math.max(1, (load?.kind === 'tap' && load.tapsW.length > 0 ? load.tapsW.length : 5) - 1)

/** Speakers of lines by their names, found once each: every dial of a long line is asked of every one of hundreds. */
const speakersById = new WeakMap<WiringNode, Map<string, SpeakerNode>>()
/** A speaker of a line that may have a fault in it. */
function speakerIn(root: WiringNode, nodeId: string): SpeakerNode | null {
  let by = speakersById.get(root)
  if (!by) {
    speakersById.set(root, by = new Map())
    noteSpeakers(root, by)
  }
  return by.get(nodeId) ?? null
}
function noteSpeakers(node: WiringNode, by: Map<string, SpeakerNode>): void {
  if (node.kind === 'speaker') by.set(node.id, node)
  for (const { node: child } of isGroup(node) ? node.children : []) noteSpeakers(child, by)
}

/** A reading that a way round, or a short, hardly gives. */
const HARDLY = 0.02
/**
 * Through transformers an ohmmeter tells whether there is a way round (`way`: every winding some copper), and whether one goes round
 * the windings (`bare`: windings open), which reads as its own copper alone.
 */
function likeNotOpen({ value }: Pick<Reading, 'value'>, { way, bare }: ReturnType<Outcome['wayRound']>): number {
  if (value.is === 'open') return way.state === 'open' ? 1 : 0
  if (value.is !== 'ohm' || way.state === 'open') return 0
  if (bare.state === 'open') return value.ohm < SHORT_OHM ? HARDLY : 1
  const bareOhm = bare.state === 'short' ? 0 : bare.ohm
  return value.ohm >= bareOhm / 2 - SHORT_OHM && value.ohm <= 2 * bareOhm + SHORT_OHM ? 1 : HARDLY
}

/** What is printed for another line voltage is other watts on this one. */
const isSameDial = (read: Dial, stands: Dial): boolean => Math.abs(read.tapW * (stands.ratedV / read.ratedV) ** 2 - stands.tapW) <= 0.06 * stands.tapW
interface Dial { tapW: number, ratedV: number }

/** What is wrong with the dial itself, or with which speaker hangs there. */
const OF_DIALS: ReadonlySet<FaultKind> = new Set(['wrong-tap', 'wrong-scale', 'drops-exchanged'])
/**
 * The load of a speaker by its dial, with these faults in its line: where the speaker itself is broken, and behind a break or a short, where it hangs in no
 * line any more, the dial stands as it stood.
 */
function dialWith(nodeId: string, { wiring, faults }: Pick<Outcome, 'wiring' | 'faults'>, { output, others }: Plan): SpeakerNode['load'] | undefined {
  const here = speakerIn(wiring, nodeId)
  const isDial = (f: Fault) => f.nodeId !== nodeId || OF_DIALS.has(f.kind)
  if (here && faults.every(isDial)) return here.load
  const moves = faults.filter(f => isDial(f) && speakerIn(changed(output.wiring, [f], others), nodeId) !== null)
  return speakerIn(changed(output.wiring, moves, others), nodeId)?.load
}

type Like = (judged: JudgedReading, outcome: Told, plan: Plan) => number

/** Of bare pairs: what hangs on them now says nothing of what was read before. */
const saysNothing: Like = () => 1

// Of the unit alone it says nothing of the run to it.
const turned: Like = ({ reading: { value, nodeId } }, outcome, plan) => {
  if (!('how' in value)) return 1
  if (howFacts(value.how).proves === 'unit') return value.is === 'reversed' ? turnedChance(value.is, nodeId!, value.against, outcome, plan) : 1
  // Behind a transformer a battery moves nothing that is seen, whatever is wrong: it speaks for nothing, and for nothing unknown either.
  if (value.is === 'cannot-tell' && value.how === 'battery-run' && speakerIn(plan.drawn.wiring, nodeId!)?.load.kind === 'tap') return ANY_TURNED[value.is]
  return turnedThrough(value, nodeId!, outcome, plan)
}

/** How likely it is as it was read, with these faults in the line; null: it is read in ohms, or heard, or a level. */
export const LIKE: Record<ReadingKind, Like | null> = {
  'line-impedance': null,
  'head-volts-amps': null,
  'outward-impedance': null,
  'coil-dcr': null,
  // Where loads are plain it is ohms as others; through transformers only whether there is a way round.
  'line-dcr': ({ reading }, outcome) => likeNotOpen(reading, outcome.wayRound()),
  'leg-earth': ({ verdict }, { definitions }) => {
    const isLow = isWrong(verdict)
    return definitions.some(d => d.isToEarth) ? isLow ? 0.95 : 0.05 : isLow ? 0.01 : 0.99
  },
  'pair-apart': saysNothing,
  'pair-through': saysNothing,
  'tap-found': ({ reading: { value, nodeId }, predicted }, outcome, plan) => {
    if (value.is !== 'tap' || !predicted?.tap) return 1
    const drawn = speakerIn(plan.drawn.wiring, nodeId!)?.load
    // On its low-impedance position no watts are read.
    if (outcome.faults.some(f => f.nodeId === nodeId && f.kind === 'low-impedance-position')) return misreadAs(drawn)
    const found = dialWith(nodeId!, outcome, plan)
    return isSameDial(value, found?.kind === 'tap' ? found : predicted.tap) ? 1 - MISREAD : misreadAs(drawn)
  },
  'beside': ({ reading: { value, nodeId } }, outcome, plan) => {
    if (!('besideId' in value)) return 1
    return besideChance(value.is, besideDb(nodeId!, value.besideId, outcome, plan))
  },
  // Of one setting all that were read are weighed together.
  'level': null,
  'looked': ({ reading: { value, nodeId } }, outcome) => value.is === 'seen' ? lookChance(value.fault, nodeId, outcome) : lookChance(null, nodeId, outcome),
  'swapped': ({ reading: { value, nodeId } }, outcome) => 'withId' in value ? swapChance(value.is, nodeId!, outcome) : 1,
  'polarity': turned,
  'polarity-heard': turned,
  // All that was heard of a speaker is weighed together: an amplifier that cuts out silences all at once.
  'sound': null,
}

/** The same of something that is not in the list, and of a slip. */
export const likeAnything = ({ reading: { kind, value }, predicted, verdict }: JudgedReading): number => {
  switch (kind) {
    case 'beside': return 1 / 3
    case 'polarity': case 'polarity-heard': return 'how' in value && (value.is !== 'cannot-tell' || howFacts(value.how).proves !== 'unit') ? ANY_TURNED[value.is] : 1
    // A dial that stands otherwise is a dial that stands otherwise, hardly anything else.
    case 'tap-found': return value.is === 'tap' && predicted?.tap && !isSameDial(value, predicted.tap) ? misreadAs(undefined) : 1 - MISREAD
    case 'looked': return lookAnything(value.is === 'seen' ? value.fault : null)
    case 'swapped': return 0.5
    case 'leg-earth': return isWrong(verdict) ? 0.1 : 0.9
    case 'line-dcr': return value.is === 'ohm' && value.ohm >= SHORT_OHM ? 0.8 : 0.1
    default: return 1
  }
}

/** Readings of one place on several days that lie further apart than this are unsteady: meters and hands are within a twentieth. Common practice, no source. */
const UNSTEADY = Math.log(1.15)
/** How often the spread of several days is noted as such: where it is unsteady, and where it is not. Common practice, no source. */
const SEEN_UNSTEADY = 0.65
const STRAY_UNSTEADY = 0.02

export interface Spread { nodeId: string | null, kind: ReadingKind, isUnsteady: boolean, readings: number }

/** What readings of several days at one place say by their spread: of coils, and of the line with one tone. */
export function spreadsOf(history: readonly Reading[]): Spread[] {
  const places = new Map<string, Reading[]>()
  for (const r of history) if (r.kind === 'coil-dcr' || (r.kind === 'line-impedance' && (r.frequencyHz ?? METER_HZ) === METER_HZ)) {
    const key = `${r.kind} ${r.nodeId ?? ''}`
    places.set(key, [...places.get(key) ?? [], r])
  }
  return [...places.values()].filter(all => new Set(all.map(r => r.at.slice(0, 10))).size > 1).map((all) => {
    const ohms = all.flatMap(r => r.value.is === 'ohm' ? [r.value.ohm] : [])
    const isOpenToo = ohms.length < all.length
    const isUnsteady = ohms.length > 0 && (isOpenToo || Math.log((Math.max(...ohms) + 0.1) / (Math.min(...ohms) + 0.1)) > UNSTEADY)
    return { nodeId: all[0]!.nodeId, kind: all[0]!.kind, isUnsteady, readings: all.length }
  })
}

/** The same of something that is not in the list, and of a slip. */
export const SPREAD_OF_ANYTHING = 0.5
export function likeSpread({ nodeId, isUnsteady }: Spread, { definitions, faults }: Pick<Outcome, 'definitions' | 'faults'>, plan: Plan): number {
  const moves = definitions.some((d, k) => d.isUnsteady === true && (nodeId === null || actsOn(plan, faults[k]!, d, nodeId)))
  const chance = moves ? SEEN_UNSTEADY : STRAY_UNSTEADY
  return isUnsteady ? chance : 1 - chance
}
