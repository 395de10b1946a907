import type { Chain, FaultKind, Output, Speaker } from '#core/job/schema'
import type { WiringNode } from '#core/network/tree'

/** One single fault at one place. */
export interface Fault {
  kind: FaultKind
  nodeId: string
  /** Watts of the tap that it really stands on, for a wrong tap; null otherwise. */
  tapW: number | null
}

/** What an ohmmeter on the coil of the faulty speaker finds. */
export type CoilOutcome = 'right' | 'open' | 'high'

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
}
