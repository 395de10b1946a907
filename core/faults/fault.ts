import type { Edit } from '#core/job/edits'
import type { NewId } from '#core/hands/intents'
import type { FaultKind, Job, Output, Sound, Speaker } from '#core/job/schema'
import type { WiringNode } from '#core/network/tree'

/** One single fault. */
export interface Fault {
  kind: FaultKind
  /** The speaker, group or control that it is at; null for one of the whole line, or of the rack. */
  nodeId: string | null
  /** Watts of the tap that it really stands on, for a wrong tap; null otherwise. */
  tapW: number | null
  /** More or less, where it can go both ways; null otherwise. */
  way: 'up' | 'down' | null
  /** How much, where a fault comes in all sizes: of what, its definition says; null otherwise. */
  amount: number | null
  /** The speaker, or the output, that it is exchanged with; null otherwise. */
  withId: string | null
}

export function faultAt(kind: FaultKind, nodeId: string | null, more: Partial<Omit<Fault, 'kind' | 'nodeId'>> = {}): Fault {
  return { kind, nodeId, tapW: null, way: null, amount: null, withId: null, ...more }
}

/** What an ohmmeter on the coil of the faulty speaker finds. */
export const COIL_OUTCOMES = ['right', 'open', 'high', 'low', 'short'] as const
export type CoilOutcome = (typeof COIL_OUTCOMES)[number]

export interface PlanQuestion { job: Job, output: Output, fault: Fault, newId: NewId }

/** A kind of fault: all that the simulator, the ranking and the search for tests need of it. Adding one is one file, its line in the catalogue, its words. */
export interface FaultDefinition {
  kind: FaultKind
  /** How common against the others, any scale. Common practice, no source: an order of magnitude, not a statistic. */
  prior: number
  /** Why so common: what it takes for it to happen. */
  why: string
  /** Every fault of this kind that this line could have; `others`: the other lines of its job. */
  candidates: (output: Output, speakers: Speaker[], others?: readonly Output[]) => Fault[]
  /** The wiring with the fault in it; `others` as for the candidates. */
  change: (wiring: WiringNode, fault: Fault, others?: readonly Output[]) => WiringNode
  /** What the coil of the faulty speaker may read, with probabilities that sum to one. */
  coil: Partial<Record<CoilOutcome, number>>
  /** Part of the watts at its place that reach the speaker itself. Not given: all. */
  ownPart?: number
  /** How what it acts on is heard, whatever its watts are: chances that sum to one. Not given: by its watts alone. */
  heard?: Partial<Record<Sound, number>>
  /** What of the line it acts on beside its watts: the speaker it is at, all behind it, or every speaker of the line. Not given: its place, and all in it. */
  acts?: 'place' | 'onward' | 'line'
  /** What it acts on moves the other way round. */
  isReversed?: boolean
  /**
   * How often it is seen by who opens its place, or looks at the control or the rack, and knows what to look for. Not given: never. Common practice,
   * no source.
   */
  looks?: number
  /** It goes where the unit goes, its transformer and its dial with it. */
  isOfUnit?: boolean
  /** Its size is told by what the line is: it is put in before others are. */
  isOfTheLine?: boolean
  /** A leg of the pair reads low to earth. */
  isToEarth?: boolean
  /** What is read of it one day may be otherwise on another. */
  isUnsteady?: boolean
  /** What is taken for granted at a place because nobody says; null where nothing is. */
  assumes?: (speaker: Speaker) => string | null
  /** Where the line may be meant so, and the drawing is what is wrong: the drawing as the line reads. */
  plan?: (question: PlanQuestion) => Edit | null
}
