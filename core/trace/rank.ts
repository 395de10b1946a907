import { dcrAt, impedanceAt, throughWindings, METER_HZ } from '#core/check/bands'
import type { JudgedReading, LineProof } from '#core/check/proof'
import type { Output } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { headOf, solveLine, type LineSolution } from '#core/network/line'
import type { WiringNode } from '#core/network/tree'
import { COIL_OUTCOMES, faultAt, type Fault, type FaultDefinition } from './fault'
import { FAULTS } from './faults'
import { coilOutcome, cutOutChance, likeAnyOhm, likeAnyWay, likeNotOpen, likeOhm, silentChance, spreadOf, withSlip, type Spread } from './likelihood'

/** A fault, or none (`fault` null: the line is as drawn), and how well it explains the readings. */
export interface Suspect {
  fault: Fault | null
  /** Posterior probability under the single-fault assumption; all suspects of a line sum to one. */
  probability: number
  /** Logarithm of how well it explains the readings, whatever its prior: what reads alike has the same. */
  fit: number
  /** Impedance at the head that it would make, Ω; null when open or short, or not to be said. */
  lineOhm: number | null
}

/** Prior weight of "as drawn" beside the sum of all faults, before any reading. Common practice, no source. */
const AS_DRAWN_PRIOR = 10
/** Prior weight of a fault that is not in the list, several at once included. Common practice, no source. */
const SOMETHING_ELSE_PRIOR = 3
/** Every load at the middle of its band. */
export const EXPECTED = impedanceAt('expected')

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
  const plan = planOf(output)
  const all = hypothesesOf(output)
  const scored: (Omit<Suspect, 'probability'> & { log: number })[] = []
  for (const { fault, definition, logPrior } of all) {
    const outcome = outcomeOf(output, fault, definition)
    const fit = isSomethingElse(fault) ? fitOfAnything(readings, plan.watts.size) : fitOf(readings, outcome, plan)
    const { head } = outcome.solved
    scored.push({ fault, fit, log: logPrior + fit, lineOhm: head.state === 'finite' && !isSomethingElse(fault) ? head.ohm : null })
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

export function isSomethingElse(fault: Fault | null): boolean {
  return fault?.kind === 'something-else'
}

/** The line as drawn: what everything is held against. */
export interface Plan { solved: LineSolution, watts: ReadonlyMap<string, number>, spread: Spread }

export function planOf(output: Output): Plan {
  const solved = solveLine({ lead: null, node: output.wiring }, EXPECTED, METER_HZ, 1)
  return { solved, watts: wattsOf(solved), spread: spreadOf(output, solved) }
}

/** The line with a fault in it. */
export interface Outcome {
  fault: Fault | null
  definition: FaultDefinition | null
  wiring: WiringNode
  solved: LineSolution
  /** Power of every speaker for one volt at the head; listed only where something asks. */
  watts: () => ReadonlyMap<string, number>
}

export function outcomeOf(output: Output, fault: Fault | null, definition = FAULTS.find(d => d.kind === fault?.kind) ?? null): Outcome {
  const wiring = fault && definition ? definition.change(output.wiring, fault) : output.wiring
  const solved = solveLine({ lead: null, node: wiring }, EXPECTED, METER_HZ, 1)
  let watts: Map<string, number> | null = null
  return {
    fault, definition, wiring, solved,
    watts: () => {
      if (watts) return watts
      watts = wattsOf(solved)
      // What stands in series with a speaker at its place takes its share.
      if (fault?.nodeId && definition?.ownPart !== undefined) watts.set(fault.nodeId, (watts.get(fault.nodeId) ?? 0) * definition.ownPart)
      return watts
    },
  }
}

/** Power of every speaker for one volt at the head. */
function wattsOf(solved: LineSolution): Map<string, number> {
  return new Map(solved.drops.map(d => [d.id, d.powerW]))
}

/** Chance that a speaker is heard as silent, the amplifier's cutting out apart. */
export function silentAt(nodeId: string, outcome: Outcome, plan: Plan): number {
  return silentChance(outcome.watts().get(nodeId) ?? 0, plan.watts.get(nodeId) ?? 0)
}

export function cutsOut(outcome: Outcome, plan: Plan): number {
  return cutOutChance(outcome.solved.head, plan.solved.head)
}

/** What the coil of a speaker may read with the fault in it. */
export function coilChances(nodeId: string, { fault, definition }: Pick<Outcome, 'fault' | 'definition'>): FaultDefinition['coil'] {
  return fault?.nodeId === nodeId && definition ? definition.coil : { right: 1 }
}

function fitOf(readings: readonly JudgedReading[], outcome: Outcome, plan: Plan): number {
  const apart = readings.reduce((sum, reading) => sum + Math.log(withSlip(likelihood(reading, outcome, plan))), 0)
  return apart + hearing(readings, cutsOut(outcome, plan), nodeId => silentAt(nodeId, outcome, plan))
}

/** All that was heard, together: an amplifier that cuts out silences every speaker at once, or none. */
function hearing(readings: readonly JudgedReading[], cut: number, silentOf: (nodeId: string) => number): number {
  const heard = readings.filter(j => j.reading.kind === 'sound')
  if (heard.length === 0) return 0
  const logOf = (chance: (nodeId: string) => number) => heard.reduce((sum, { reading: { value, nodeId } }) => {
    const silent = chance(nodeId!)
    return sum + Math.log(withSlip(value.is === 'silent' ? silent : 1 - silent))
  }, 0)
  return logSum([[cut, logOf(() => 1)], [1 - cut, cut === 1 ? 0 : logOf(silentOf)]])
}

/** A fault of no known kind shows at a coil as often as this, at one of them all. Common practice, no source. */
const AT_A_COIL = 0.4

/** Of something else: everything plays, everything is silent, or neither; a meter may show anything. */
function fitOfAnything(readings: readonly JudgedReading[], speakers: number): number {
  const heard = readings.filter(j => j.reading.kind === 'sound')
  const silent = heard.filter(j => j.reading.value.is === 'silent').length
  const all = (chance: number) => silent * Math.log(withSlip(chance)) + (heard.length - silent) * Math.log(withSlip(1 - chance))
  const apart = readings.reduce((sum, { reading: { kind, value }, predicted }) => {
    switch (kind) {
      case 'sound': return sum
      case 'line-impedance': return sum + Math.log(likeAnyOhm(value))
      case 'line-dcr': return sum + Math.log(predicted?.low == null ? likeAnyWay(value) : likeAnyOhm(value))
      case 'coil-dcr': {
        const read = coilOutcome(value, predicted)
        const odd = AT_A_COIL / speakers
        return sum + (read === null ? 0 : Math.log(read === 'right' ? 1 - odd : odd / (COIL_OUTCOMES.length - 1)))
      }
    }
  }, 0)
  return apart + (heard.length === 0 ? 0 : logSum([[0.5, all(0)], [0.3, all(1)], [0.2, all(0.5)]]))
}

/** Logarithm of a weighted sum of what is given in logarithms. */
function logSum(parts: [weight: number, log: number][]): number {
  const most = Math.max(...parts.filter(([weight]) => weight > 0).map(([, log]) => log))
  return most + Math.log(parts.reduce((sum, [weight, log]) => weight > 0 ? sum + weight * Math.exp(log - most) : sum, 0))
}

function likelihood({ reading, predicted }: JudgedReading, outcome: Outcome, plan: Plan): number {
  const { value } = reading
  switch (reading.kind) {
    case 'line-impedance': return likeOhm(value, outcome.solved.head, plan.spread)
    case 'line-dcr': {
      const root = { lead: null, node: outcome.wiring }
      const seen = headOf(root, dcrAt('expected'), 0)
      return predicted?.low == null ? likeNotOpen(value, headOf(root, throughWindings, 0), seen) : likeOhm(value, seen, DCR_SPREAD)
    }
    case 'coil-dcr': {
      const read = coilOutcome(value, predicted)
      return read === null ? 1 : coilChances(reading.nodeId!, outcome)[read] ?? 0
    }
    // Heard together, not one by one.
    case 'sound': return 1
  }
}

/** A coil is within 0.70 to 0.90 of its nominal about 0.80. Common practice, no source. */
const DCR_SPREAD: Spread = { low: 0.06, high: 0.06 }
