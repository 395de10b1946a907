import { solvedOutward } from '#core/check/onChain'
import { dcrAt, METER_HZ, solvedAsRead, throughWindings } from '#core/check/readingBands'
import { isGroup, type SpeakerNode, type WiringNode } from '#core/network/tree'
import type { JudgedReading } from '#core/check/proof'
import type { Predicted } from '#core/check/predict'
import type { ReadingKind, ReadingValue } from '#core/job/schema'
import { headOf } from '#core/network/line'
import { COIL_OUTCOMES } from '#core/faults/fault'
import { coilOutcome, likeAnyOhm, likeAnyWay, likeNotOpen, likeOhm, type Spread } from './likelihood'
import { coilChances, cutsOut, silentAt, type Outcome, type Plan } from './outcome'

/** What each kind of reading says of faults. All that a trace knows of a kind stands here. */
export interface Evidence {
  /** How likely it is as it was read, with this fault in the line. */
  like: (judged: JudgedReading, outcome: Outcome, plan: Plan) => number
  /** The same of something that is not in the list; of so many speakers on the line. */
  likeAnything: (value: ReadingValue, predicted: Predicted | null, speakers: number) => number
  /** What may be read with this fault in the line, each with its chance; null: it is never asked for. `nodeId` is the speaker where it is read at one. */
  readsAs: ((outcome: Outcome, plan: Plan, nodeId: string) => Chances) | null
}
export type Chances = Partial<Record<string, number>>

/** A fault of no known kind shows at a coil as often as this, at one of them all. Common practice, no source. */
const AT_A_COIL = 0.4

/** A coil is within 0.70 to 0.90 of its nominal about 0.80. Common practice, no source. */
const DCR_SPREAD: Spread = { factor: 1, low: 0.06, high: 0.06 }

/** Line impedances that a meter tells apart. */
function steps(ohm: number, spread: number): string {
  return String(Math.round(Math.log(ohm) / (2 * spread)))
}

/** A dial is read for another as often as this. Common practice, no source. */
const MISREAD = 0.005
/** A cone, a tester or two ears are wrong as often as this. Common practice, no source. */
const MISSEEN = 0.03

/** Which way round a speaker shows itself, by itself or beside another. */
function turnedChances(nodeId: string, against: string | null, { fault }: Outcome): Chances {
  const isAt = fault !== null && fault.nodeId !== null && (fault.nodeId === nodeId || fault.nodeId === against)
  // A cone that two coils hold stands still.
  if (isAt && fault.kind === 'coil-opposed') return { 'right-way': 0.5, 'reversed': 0.5 }
  const reversed = isAt && fault.kind === 'turned-round' ? 1 - MISSEEN : MISSEEN
  return { 'right-way': 1 - reversed, reversed }
}

/** A speaker of a line that may have a fault in it. */
function speakerIn(node: WiringNode, nodeId: string): SpeakerNode | null {
  if (node.kind === 'speaker') return node.id === nodeId ? node : null
  for (const child of isGroup(node) ? node.children : []) {
    const found = speakerIn(child.node, nodeId)
    if (found) return found
  }
  return null
}

/** Two speakers that should be alike: by ear 3 dB is plain and 1 dB is not. Common practice, no source. */
const EAR_DB = 1.2
function besideChances(nodeId: string, besideId: string, outcome: Outcome, plan: Plan): Chances {
  return offChances(levelDb(nodeId, outcome, plan) - levelDb(besideId, outcome, plan))
}
const levelDb = (id: string, outcome: Outcome, plan: Plan): number =>
  10 * Math.log10(Math.max(1e-6, (outcome.watts().get(id) ?? 0) / (plan.watts.get(id) || 1)))
/** How it is judged beside another of which it is so many decibels off. */
function offChances(offDb: number): Chances {
  // Steps of an ear as smooth edges at two decibels to either side.
  const [louder, quieter] = [offDb - 2, -offDb - 2].map(over => 1 / (1 + Math.exp(-over / EAR_DB * 2))) as [number, number]
  return { louder, quieter, alike: Math.max(0, 1 - louder - quieter) }
}

const turned: Evidence = {
  like: ({ reading: { value, nodeId } }, outcome) => 'how' in value && value.is !== 'cannot-tell' ? turnedChances(nodeId!, value.against, outcome)[value.is] ?? 0 : 1,
  likeAnything: value => value.is === 'cannot-tell' ? 1 : 0.5,
  readsAs: (outcome, _, nodeId) => turnedChances(nodeId, null, outcome),
}
/** Of bare pairs: what hangs on them now says nothing of what was read before. */
const ofBarePair: Evidence = { like: () => 1, likeAnything: () => 1, readsAs: null }

export const EVIDENCE: Record<ReadingKind, Evidence> = {
  'line-impedance': {
    like: ({ reading: { value, frequencyHz } }, outcome, plan) => {
      const hz = frequencyHz ?? METER_HZ
      return likeOhm(value, outcome.headAt(hz), plan.spreadAt(hz))
    },
    likeAnything: likeAnyOhm,
    readsAs: ({ solved: { head } }, plan) => ({ [head.state === 'finite' ? steps(head.ohm, plan.spreadAt(METER_HZ).high) : head.state]: 1 }),
  },
  'line-dcr': {
    like: ({ reading: { value }, predicted }, outcome) => {
      const root = { lead: null, node: outcome.wiring }
      const seen = headOf(root, dcrAt('expected'), 0)
      return predicted?.low == null ? likeNotOpen(value, headOf(root, throughWindings, 0), seen) : likeOhm(value, seen, DCR_SPREAD)
    },
    likeAnything: (value, predicted) => predicted?.low == null ? likeAnyWay(value) : likeAnyOhm(value),
    // Through transformers it says “not open” at most, and of loads no more than the impedance does.
    readsAs: null,
  },
  'coil-dcr': {
    like: ({ reading: { value, nodeId }, predicted }, outcome) => {
      const read = coilOutcome(value, predicted)
      return read === null ? 1 : coilChances(nodeId!, outcome)[read] ?? 0
    },
    likeAnything: (value, predicted, speakers) => {
      const read = coilOutcome(value, predicted)
      const odd = AT_A_COIL / speakers
      return read === null ? 1 : read === 'right' ? 1 - odd : odd / (COIL_OUTCOMES.length - 1)
    },
    readsAs: (outcome, _, nodeId) => coilChances(nodeId, outcome),
  },
  'leg-earth': ofBarePair,
  'pair-apart': ofBarePair,
  'pair-through': ofBarePair,
  // From a place outward the rest of the line is off: whatever is before it is out of it.
  'outward-impedance': {
    like: ({ reading: { value, nodeId, frequencyHz } }, { wiring }, plan) => {
      const outward = isGroup(wiring) ? solvedOutward(wiring, nodeId!) : null
      const hz = frequencyHz ?? METER_HZ
      return outward === null ? 1 : likeOhm(value, solvedAsRead(outward, hz).head, plan.spreadAt(hz))
    },
    likeAnything: likeAnyOhm,
    readsAs: null,
  },
  'head-volts-amps': {
    like: ({ reading: { value, frequencyHz } }, outcome, plan) => {
      const hz = frequencyHz ?? METER_HZ
      return value.is === 'volts-amps' ? likeOhm({ is: 'ohm', ohm: value.volts / value.amps }, outcome.headAt(hz), plan.spreadAt(hz)) : 1
    },
    likeAnything: value => value.is === 'volts-amps' ? likeAnyOhm({ is: 'ohm', ohm: value.volts / value.amps }) : 1,
    // A tone into what may be broken: it is never asked for.
    readsAs: null,
  },
  'tap-found': {
    like: ({ reading: { value, nodeId }, predicted }, { wiring }) => {
      if (value.is !== 'tap' || !predicted?.tap) return 1
      const found = speakerIn(wiring, nodeId!)?.load
      // On its low-impedance position no watts are read; where the speaker itself is broken its dial is as drawn.
      if (found && found.kind !== 'tap') return MISREAD
      const { tapW, ratedV } = found ?? predicted.tap
      // What is printed for another line voltage is other watts on this one.
      const hereW = value.tapW * (ratedV / value.ratedV) ** 2
      return Math.abs(hereW - tapW) <= 0.06 * tapW ? 1 - MISREAD : MISREAD
    },
    // A dial that stands otherwise is a dial that stands otherwise, hardly anything else.
    likeAnything: (value, predicted) => value.is === 'tap' && predicted?.tap && value.tapW !== predicted.tap.tapW ? MISREAD : 1 - MISREAD,
    readsAs: null,
  },
  'beside': {
    like: ({ reading: { value, nodeId } }, outcome, plan) => 'besideId' in value ? besideChances(nodeId!, value.besideId, outcome, plan)[value.is] ?? 0 : 1,
    likeAnything: () => 1 / 3,
    readsAs: null,
  },
  // Against those like it, of which one at most is broken: the middle of them is as drawn.
  'level': {
    like: ({ reading: { nodeId }, verdict: { code } }, outcome, plan) => code === 'louder' || code === 'quieter' || code === 'alike' ? offChances(levelDb(nodeId!, outcome, plan))[code] ?? 0 : 1,
    likeAnything: (_, predicted) => predicted?.level?.besideDb == null ? 1 : 1 / 3,
    readsAs: null,
  },
  'polarity': turned,
  'polarity-heard': turned,
  // What is heard is heard together, not one by one: an amplifier that cuts out silences all (rank.ts).
  'sound': {
    // Thin beside its neighbours: one of two is the other way round. Common practice, no source.
    like: ({ reading: { value } }, { fault }) => value.is !== 'thin' ? 1 : fault?.kind === 'turned-round' ? 0.4 : 0.08,
    likeAnything: value => value.is === 'thin' ? 0.2 : 1,
    readsAs: (outcome, plan, nodeId) => {
      const cut = cutsOut(outcome, plan)
      const silent = cut + (1 - cut) * silentAt(nodeId, outcome, plan)
      return { silent, plays: 1 - silent }
    },
  },
}

/** In which order they are asked for: of those that tell as much, what is heard takes no meter. */
export const ASKED = (Object.keys(EVIDENCE) as ReadingKind[]).sort((a, b) => Number(b === 'sound') - Number(a === 'sound'))
