import { onceEach } from '#core/quantity/once'
import { NO_LESSONS } from '#core/check/lessons'
import type { Judges } from '#core/check/proof'
import { METER_HZ, solvedAsRead } from '#core/check/readingBands'
import { lineSpread } from '#core/check/spread'
import type { Output } from '#core/job/schema'
import type { LineSolution } from '#core/network/line'
import type { Seen } from '#core/network/solver'
import type { WiringNode } from '#core/network/tree'
import type { Fault, FaultDefinition } from '#core/faults/fault'
import { FAULTS } from '#core/faults/index'
import { cutOutChance, silentChance, spreadOf, type Spread } from './likelihood'

/** A line as drawn, and with a fault in it: what each would show. */

export function isSomethingElse(fault: Fault | null): boolean {
  return fault?.kind === 'something-else'
}

/** The line as drawn: what everything is held against. */
export interface Plan {
  solved: LineSolution
  watts: ReadonlyMap<string, number>
  /** Of its impedance with a tone of so many hertz, with what has been learned of its models. */
  spreadAt: (frequencyHz: number) => Spread
}

export function planOf(output: Output, { lessons }: Pick<Judges, 'lessons'> = { lessons: () => NO_LESSONS }): Plan {
  const solved = solvedAsRead(output.wiring)
  const spreadAt = onceEach((hz: number) => spreadOf(lineSpread(output, hz === METER_HZ ? solved : solvedAsRead(output.wiring, hz), hz, lessons(hz))))
  return { solved, watts: wattsOf(solved), spreadAt }
}

/** The line with a fault in it. */
export interface Outcome {
  fault: Fault | null
  definition: FaultDefinition | null
  wiring: WiringNode
  solved: LineSolution
  /** Its head with another tone. */
  headAt: (frequencyHz: number) => Seen
  /** Power of every speaker for one volt at the head; listed only where something asks. */
  watts: () => ReadonlyMap<string, number>
}

export function outcomeOf(output: Output, fault: Fault | null, definition = FAULTS.find(d => d.kind === fault?.kind) ?? null): Outcome {
  const wiring = fault && definition ? definition.change(output.wiring, fault) : output.wiring
  const solved = solvedAsRead(wiring)
  let watts: Map<string, number> | null = null
  return {
    fault, definition, wiring, solved,
    headAt: onceEach(hz => hz === METER_HZ ? solved.head : solvedAsRead(wiring, hz).head),
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
