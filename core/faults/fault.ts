import type { Edit } from '#core/job/edits'
import type { NewId } from '#core/hands/intents'
import type { Chain, FaultKind, Job, Output, Speaker } from '#core/job/schema'
import type { WiringNode } from '#core/network/tree'

/** One single fault. */
export interface Fault {
  kind: FaultKind
  /** The speaker or group it is at; null for one of the whole line. */
  nodeId: string | null
  /** Watts of the tap that it really stands on, for a wrong tap; null otherwise. */
  tapW: number | null
  /** More or less, where a fault of the whole line can go both ways; null otherwise. */
  way: 'up' | 'down' | null
}

export function faultAt(kind: FaultKind, nodeId: string | null, more: Partial<Pick<Fault, 'tapW' | 'way'>> = {}): Fault {
  return { kind, nodeId, tapW: null, way: null, ...more }
}

/** What an ohmmeter on the coil of the faulty speaker finds. */
export const COIL_OUTCOMES = ['right', 'open', 'high', 'low', 'short'] as const
export type CoilOutcome = (typeof COIL_OUTCOMES)[number]

export interface PlanQuestion { job: Job, output: Output, fault: Fault, newId: NewId }

/** A kind of fault: all that the simulator, the ranking and the words need of it. Adding one is one file, its line in the catalogue, its sentence. */
export interface FaultDefinition {
  kind: FaultKind
  /** How common against the others, any scale. Common practice, no source: an order of magnitude, not a statistic. */
  prior: number
  /** Every fault of this kind that this line could have. */
  candidates: (output: Output, speakers: Speaker[]) => Fault[]
  /** The wiring with the fault in it. */
  change: (chain: Chain, fault: Fault) => WiringNode
  /** What the coil of the faulty speaker may read, with probabilities that sum to one. */
  coil: Partial<Record<CoilOutcome, number>>
  /** Part of the watts at its place that reach the speaker itself; the rest heats what is in series with it. Not given: all. */
  ownPart?: number
  /** What is taken for granted at a place because nobody says; null where nothing is. */
  assumes?: (speaker: Speaker) => string | null
  /** Where the line may be meant so, and the drawing is what is wrong: the drawing as the line reads. */
  plan?: (question: PlanQuestion) => Edit | null
}
