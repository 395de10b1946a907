import type { JudgedReading, LineProof } from '#core/check/proof'
import { isOverloadedBy } from '#core/check/overload'
import type { Output } from '#core/job/schema'
import { isHeard } from '#core/job/sections/readings/kinds'
import { speakersOf } from '#core/job/tree'
import { EVIDENCE } from './evidence'
import { faultAt, type Fault, type FaultDefinition } from '#core/faults/fault'
import { FAULTS } from '#core/faults/index'
import { withSlip } from './likelihood'
import { cutsOut, isSomethingElse, outcomeOf, planOf, silentAt, type Outcome, type Plan } from './outcome'

/** A fault, or none (`fault` null: the line is as drawn), and how well it explains the readings. */
export interface Suspect {
  fault: Fault | null
  /** Posterior probability under the single-fault assumption; all suspects of a line sum to one. */
  probability: number
  /** Logarithm of how well it explains the readings, whatever its prior: what reads alike has the same. */
  fit: number
  /** Impedance at the head that it would make, Ω; null when open or short, or not to be said. */
  lineOhm: number | null
  /** The output would be overloaded by it. */
  isOverload: boolean
}

/** Prior weight of "as drawn" beside the sum of all faults, before any reading. Common practice, no source. */
const AS_DRAWN_PRIOR = 10
/** Prior weight of a fault that is not in the list, several at once included. Common practice, no source. */
const SOMETHING_ELSE_PRIOR = 3

/**
 * Every single fault of the line, each solved as the changed network it is, compared with the readings that still
 * describe the line, ranked; beside them the line as drawn, and something that is not in the list, which explains any reading
 * a little. Works in logarithms; the probabilities sum to one.
 */
export function rankSuspects(output: Output, proof: LineProof): Suspect[] {
  const steps = rankInSteps(output, proof)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

/**
 * The same in steps, one hypothesis each, so that an interface can breathe between them on a long line.
 * Yields the share done, 0 to 1.
 */
export function* rankInSteps(output: Output, proof: LineProof): Generator<number, Suspect[]> {
  const readings = [...proof.standing.values()].filter(j => !j.stale)
  const plan = planOf(output, proof)
  const all = hypothesesOf(output)
  const scored: (Omit<Suspect, 'probability'> & { log: number })[] = []
  for (const { fault, definition, logPrior } of all) {
    const outcome = outcomeOf(output, fault, definition)
    const fit = isSomethingElse(fault) ? fitOfAnything(readings, plan.watts.size) : fitOf(readings, outcome, plan)
    const { head } = outcome.solved
    scored.push({ fault, fit, log: logPrior + fit, lineOhm: head.state === 'finite' && !isSomethingElse(fault) ? head.ohm : null, isOverload: !isSomethingElse(fault) && isOverloadedBy(output, head) })
    yield scored.length / all.length
  }
  const most = Math.max(...scored.map(s => s.log))
  const total = scored.reduce((sum, s) => sum + Math.exp(s.log - most), 0)
  return scored
    .map(({ log, ...suspect }) => ({ ...suspect, probability: Math.exp(log - most) / total }))
    .sort((a, b) => b.probability - a.probability)
}

interface Hypothesis { fault: Fault | null, definition: FaultDefinition | null, logPrior: number }

/** As drawn, every fault of every kind, and anything else. Each kind's weight is shared out among its places: many variants do not make it likelier. */
function hypothesesOf(output: Output): Hypothesis[] {
  const speakers = speakersOf(output.wiring)
  return [
    { fault: null, definition: null, logPrior: Math.log(AS_DRAWN_PRIOR) },
    { fault: faultAt('something-else', null), definition: null, logPrior: Math.log(SOMETHING_ELSE_PRIOR) },
    ...FAULTS.flatMap((definition) => {
      const candidates = definition.candidates(output, speakers)
      return candidates.map((fault): Hypothesis => ({ fault, definition, logPrior: Math.log(definition.prior / candidates.length) }))
    }),
  ]
}

function fitOf(readings: readonly JudgedReading[], outcome: Outcome, plan: Plan): number {
  const apart = readings.reduce((sum, reading) => sum + Math.log(withSlip(EVIDENCE[reading.reading.kind].like(reading, outcome, plan))), 0)
  return apart + hearing(readings, cutsOut(outcome, plan), nodeId => silentAt(nodeId, outcome, plan))
}

/** All that was heard, together: an amplifier that cuts out silences every speaker at once, or none. */
function hearing(readings: readonly JudgedReading[], cut: number, silentOf: (nodeId: string) => number): number {
  const heard = readings.filter(j => isHeard(j.reading.kind))
  if (heard.length === 0) return 0
  const logOf = (chance: (nodeId: string) => number) => heard.reduce((sum, { reading: { value, nodeId } }) => {
    const silent = chance(nodeId!)
    return sum + Math.log(withSlip(value.is === 'silent' ? silent : 1 - silent))
  }, 0)
  return logSum([[cut, logOf(() => 1)], [1 - cut, cut === 1 ? 0 : logOf(silentOf)]])
}

/** Of something else: everything plays, everything is silent, or neither; a meter may show anything. */
function fitOfAnything(readings: readonly JudgedReading[], speakers: number): number {
  const heard = readings.filter(j => isHeard(j.reading.kind))
  const silent = heard.filter(j => j.reading.value.is === 'silent').length
  const all = (chance: number) => silent * Math.log(withSlip(chance)) + (heard.length - silent) * Math.log(withSlip(1 - chance))
  const apart = readings.reduce((sum, { reading: { kind, value }, predicted }) => sum + Math.log(EVIDENCE[kind].likeAnything(value, predicted, speakers)), 0)
  return apart + (heard.length === 0 ? 0 : logSum([[0.5, all(0)], [0.3, all(1)], [0.2, all(0.5)]]))
}

/** Logarithm of a weighted sum of what is given in logarithms. */
function logSum(parts: [weight: number, log: number][]): number {
  const most = Math.max(...parts.filter(([weight]) => weight > 0).map(([, log]) => log))
  return most + Math.log(parts.reduce((sum, [weight, log]) => weight > 0 ? sum + weight * Math.exp(log - most) : sum, 0))
}
