import { checkKey, type JudgedReading, type LineProof } from '#core/check/proof'
import { isWrong } from '#core/check/verdict'
import { METER_HZ } from '#core/check/readingBands'
import { definitionOf } from '#core/faults/index'
import type { Fault, FaultDefinition } from '#core/faults/fault'
import type { Output, Reading, Repair } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { onceEach } from '#core/quantity/once'
import { deviationsOf } from './deviations'
import { cutOutChance, offDb } from './ears'
import { actsOn, outcomeOf, planOf, type Outcome, type Plan } from './outcome'

/**
 * What was read before a repair still tells where what was repaired had no part in it: forty that were listened at are not walked by once more because one
 * of them was mended. What is proved is another matter: that is read after the repair. What lost: everything read before the last repair forgotten, which
 * sent whoever had found one of two faults along the whole line again.
 */
export interface Telling { standing: readonly JudgedReading[], /** Every reading that does, oldest first. */ history: readonly Reading[] }

type Read = Pick<LineProof, 'standing' | 'history' | 'repairs'>
const known = new WeakMap<Read, Telling>()

export function stillTelling(output: Output, proof: Read): Telling {
  const before = known.get(proof)
  if (before) return before
  const tells = tellsStill(output, proof)
  const telling: Telling = { standing: [...proof.standing.values()].filter(j => tells(j.reading)), history: proof.history.filter(tells) }
  known.set(proof, telling)
  return telling
}

/** Something that describes the line as it is now reads wrong. */
export const isWrongNow = (output: Output, proof: Read): boolean => stillTelling(output, proof).standing.some(j => isWrong(j.verdict))

function tellsStill(output: Output, { repairs, standing }: Read): (reading: Reading) => boolean {
  // The line is solved only where something was read before a repair.
  const plan = onceEach((_: 'plan') => planOf(output, deviationsOf(output, new Map(), new Set())))
  const put = onceEach((repair: Repair) => outcomesOf(plan('plan'), repair))
  const isCutNow = onceEach((_: 'now') => isCutOut(plan('plan'), standing.get(checkKey('line-impedance', null))))
  return reading => repairs.every(repair => reading.at >= repair.at
    || (mayTell(reading) && !(BY_EAR.has(reading.kind) && isCutNow('now')) && isUntouched(plan('plan'), reading, put(repair))))
}

/** The head, read since, is so low that the amplifier rather cuts out than not: a short that a break had hidden. Whatever played before does not now. */
function isCutOut({ drawn }: Plan, head: JudgedReading | undefined): boolean {
  if (!head || head.stale || head.reading.value.is !== 'ohm') return false
  const { ohm } = head.reading.value
  return cutOutChance({ state: 'finite', re: ohm, im: 0, ohm }, drawn.solved.head) > 0.5
}

/** Kinds that are read at one speaker; what is read at the rack is of the whole line. */
const AT_ONE: ReadonlySet<Reading['kind']> = new Set(['coil-dcr', 'tap-found', 'looked', 'swapped'])
const BY_EAR: ReadonlySet<Reading['kind']> = new Set(['sound', 'level', 'beside', 'polarity', 'polarity-heard'])
const mayTell = ({ kind, nodeId }: Reading): boolean => nodeId !== null && (AT_ONE.has(kind) || BY_EAR.has(kind) || kind === 'outward-impedance')

interface Put { fault: Fault, definition: FaultDefinition, outcome: Outcome }
/** The line with what was repaired in it, in each of its sizes; none where nobody can say what that was. */
function outcomesOf(plan: Plan, { fault: kind, nodeId }: Repair): Put[] {
  const definition = definitionOf(kind)
  if (definition === null) return []
  return definition.candidates(plan.output, speakersOf(plan.output.wiring), []).filter(f => f.nodeId === nodeId)
    .map(fault => ({ fault, definition, outcome: outcomeOf(plan, [fault]) }))
}

function isUntouched(plan: Plan, reading: Reading, put: readonly Put[]): boolean {
  if (put.length === 0) return false
  const { value } = reading
  const other = 'besideId' in value ? value.besideId : 'withId' in value ? value.withId : null
  const places = other === null ? [reading.nodeId!] : [reading.nodeId!, other]
  if (AT_ONE.has(reading.kind)) return put.every(p => places.every(id => !isAt(plan, p, id)))
  if (BY_EAR.has(reading.kind)) return put.every(p => places.every(id => !isHeardWith(plan, p, id)) && !(isSilence(reading) && cutsOut(plan, p)))
  return put.every(({ outcome }) => isSeenAlike(plan.drawn, outcome, reading))
}

/** It is at a speaker; of what is nowhere on the line: it changes what hangs there. */
const isAt = ({ drawn }: Plan, { fault, outcome }: Put, id: string): boolean => fault.nodeId === null
  ? outcome.wiring !== drawn.wiring
  : fault.nodeId === id || fault.withId === id

/** An amplifier that has cut out makes silence, and nothing else. */
const isSilence = ({ value }: Reading): boolean => value.is === 'silent' || value.is === 'cannot-tell'
const CUTS_OUT = 1e-3
const cutsOut = ({ drawn }: Plan, { outcome }: Put): boolean => cutOutChance(outcome.solved.head, drawn.solved.head) > CUTS_OUT

/** An ear may find something otherwise with it, from here on, dB. */
const HEARD_DB = 0.5
function isHeardWith(plan: Plan, { fault, definition, outcome }: Put, id: string): boolean {
  return ((definition.heard !== undefined || definition.isReversed === true) && actsOn(plan, fault, definition, id))
    || !(Math.abs(offDb(id, outcome, plan)) <= HEARD_DB)
}

/** A meter tells no less than this from each other. */
const SEEN_ALIKE = 0.01
function isSeenAlike(drawn: Outcome, outcome: Outcome, { nodeId, frequencyHz }: Reading): boolean {
  const place = { nodeId, frequencyHz: frequencyHz ?? METER_HZ }
  const [then, now] = [drawn.sight(place)?.seen, outcome.sight(place)?.seen]
  if (!then || !now) return false
  return then === now || (then.state === 'finite' && now.state === 'finite' && Math.abs(Math.log(now.ohm / then.ohm)) < SEEN_ALIKE)
}
