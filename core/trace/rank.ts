import { impedanceAt, dcrAt, IMPEDANCE_BANDS } from '#core/check/bands'
import { METER_HZ } from '#core/check/predict'
import type { JudgedReading, LineProof } from '#core/check/proof'
import type { Output } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { headOf, solveLine, type LineSolution } from '#core/network/line'
import type { Seen } from '#core/network/solve'
import { SHORT_OHM } from '#core/quantity/tolerance'
import type { WiringNode } from '#core/network/tree'
import type { CoilOutcome, Fault, FaultDefinition } from './fault'
import { FAULTS } from './faults'

/** A fault, or none (`fault` null: the line is as drawn), and how well it explains the readings. */
export interface Suspect {
  fault: Fault | null
  /** Posterior probability under the single-fault assumption; all suspects of a line sum to one. */
  probability: number
  /** Impedance at the head that it would make, Ω; null when open or short. */
  lineOhm: number | null
}

/** Prior weight of "as drawn" beside the sum of all faults, before any reading. Common practice, no source. */
const AS_DRAWN_PRIOR = 10
/** Every load at the middle of its band. */
const EXPECTED = impedanceAt('expected')
/** A reading noted wrong, at the wrong place, or a fault of no kind known here: what any outcome is worth at the least. */
const SLIP = 1e-4
/** A speaker that gets this many dB less than planned is heard as silent. Common practice, no source. */
const SILENT_DB = -25
/** Part of the planned load under which an amplifier protects itself. Common practice, no source. */
const CUTS_OUT_BELOW = 0.4

/**
 * Every single fault of the line, each solved as the changed network it is, compared with the readings that still
 * describe the line, ranked. Works in logarithms; the probabilities sum to one.
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
  const planned = solveLine({ lead: null, node: output.wiring }, EXPECTED, METER_HZ, 1)
  const plannedLevels = levelsOf(planned)
  const all = hypothesesOf(output)
  const scored: { fault: Fault | null, lineOhm: number | null, log: number }[] = []
  for (const { fault, definition, logPrior } of all) {
    const wiring = fault && definition ? definition.change(output.wiring, fault) : output.wiring
    const solved = solveLine({ lead: null, node: wiring }, EXPECTED, METER_HZ, 1)
    const context: Context = { fault, definition, wiring, head: solved.head, plannedHead: planned.head, plannedLevels, levels: once(() => levelsOf(solved)) }
    const log = readings.reduce((sum, reading) => sum + Math.log(SLIP + (1 - SLIP) * likelihood(reading, context)), logPrior)
    scored.push({ fault, lineOhm: solved.head.state === 'finite' ? solved.head.ohm : null, log })
    yield scored.length / all.length
  }
  const most = Math.max(...scored.map(s => s.log))
  const total = scored.reduce((sum, s) => sum + Math.exp(s.log - most), 0)
  return scored
    .map(({ fault, log, lineOhm }) => ({ fault, lineOhm, probability: Math.exp(log - most) / total }))
    .sort((a, b) => b.probability - a.probability)
}

interface Hypothesis { fault: Fault | null, definition: FaultDefinition | null, logPrior: number }

/** As drawn, and every fault of every kind. Each kind's weight is shared out among its places: many variants do not make it likelier. */
function hypothesesOf(output: Output): Hypothesis[] {
  const speakers = speakersOf(output.wiring)
  return [
    { fault: null, definition: null, logPrior: Math.log(AS_DRAWN_PRIOR) },
    ...FAULTS.flatMap((definition) => {
      const candidates = definition.candidates(output, speakers)
      return candidates.map((fault): Hypothesis => ({ fault, definition, logPrior: Math.log(definition.prior / candidates.length) }))
    }),
  ]
}

interface Context {
  fault: Fault | null
  definition: FaultDefinition | null
  wiring: WiringNode
  head: Seen
  plannedHead: Seen
  plannedLevels: ReadonlyMap<string, number>
  /** Power of every speaker with the fault in; listed only where a reading asks. */
  levels: () => ReadonlyMap<string, number>
}

function once<T>(make: () => T): () => T {
  let made: { value: T } | null = null
  return () => (made ??= { value: make() }).value
}

function likelihood({ reading, predicted }: JudgedReading, context: Context): number {
  const { value } = reading
  switch (reading.kind) {
    case 'line-impedance': {
      const relative = predicted?.low != null && predicted.expected != null && predicted.high != null
        ? (predicted.high - predicted.low) / predicted.expected / 2
        : IMPEDANCE_BANDS.tap.high - 1
      return likeOhm(value, context.head, relative / 2)
    }
    case 'line-dcr': {
      if (predicted?.low == null) return likeNotOpen(value, context.head)
      const seen = headOf({ lead: null, node: context.wiring }, dcrAt('expected'), 0)
      return likeOhm(value, seen, 0.06)
    }
    case 'coil-dcr': return likeCoil(reading.nodeId!, value, predicted, context)
    case 'sound': return likeSound(reading.nodeId!, value, context)
  }
}

/** Normal in the logarithm of the ratio; `sigma` is half the band, the band being two sigma wide to each side. */
function likeOhm(value: JudgedReading['reading']['value'], seen: Seen, sigma: number): number {
  if (value.is === 'open') return seen.state === 'open' ? 1 : 0
  if (value.is !== 'ohm') return 0
  if (seen.state === 'short') return value.ohm < SHORT_OHM ? 1 : 0
  if (seen.state === 'open') return 0
  // A meter shows its own leads and cannot tell small values apart: never surer than 0.1 Ω.
  const difference = Math.log((value.ohm + 0.1) / (seen.ohm + 0.1)) / sigma
  return Math.exp(-difference * difference / 2)
}

/** Through transformers an ohmmeter tells only whether there is a way round. */
function likeNotOpen(value: JudgedReading['reading']['value'], seen: Seen): number {
  if (value.is === 'open') return seen.state === 'open' ? 1 : 0
  if (value.is === 'ohm' && value.ohm < SHORT_OHM) return seen.state === 'short' ? 1 : 0
  return seen.state === 'open' ? 0 : 1
}

function likeCoil(nodeId: string, value: JudgedReading['reading']['value'], predicted: JudgedReading['predicted'], { fault, definition }: Context): number {
  const outcome: CoilOutcome | null = value.is === 'open'
    ? 'open'
    : value.is !== 'ohm' || predicted?.low == null || predicted.high == null
      ? null
      : value.ohm > predicted.high * 1.05 ? 'high' : value.ohm < predicted.low * 0.95 ? null : 'right'
  const chances = fault?.nodeId === nodeId && definition ? definition.coil : { right: 1 }
  return outcome === null ? SLIP : chances[outcome] ?? 0
}

function likeSound(nodeId: string, value: JudgedReading['reading']['value'], context: Context): number {
  const now = context.levels().get(nodeId) ?? 0
  const then = context.plannedLevels.get(nodeId) ?? 0
  const silent = cutsOut(context) || now <= 0 || then <= 0 || 10 * Math.log10(now / then) < SILENT_DB
  return (value.is === 'silent') === silent ? 1 : 0
}

/** An amplifier that sees much less than planned goes into protection, and the whole line is silent. */
function cutsOut({ head, plannedHead }: Context): boolean {
  if (head.state !== 'finite') return head.state === 'short'
  return plannedHead.state === 'finite' && head.ohm < CUTS_OUT_BELOW * plannedHead.ohm
}

/** Power of every speaker for one volt at the head. */
function levelsOf(solved: LineSolution): Map<string, number> {
  return new Map(solved.drops.map(d => [d.id, d.powerW]))
}
