import type { Lead } from './cable'

/** What one coil or transformer is to the line, as far as it is known. */
export type SingleLoad
  /** Only the label is known: taken as a resistance of its nominal impedance. */
  = | { kind: 'nominal', nominalOhm: number }
  /** Small-signal parameters of the drive unit (Small, JAES 1972). */
    | { kind: 'motional', nominalOhm: number, reOhm: number, leH: number, fsHz: number, qms: number, qes: number }
  /**
   * A transformer set to `tapW` as printed for a line of `ratedV`; 0 W is its off position. `insertionDb`: what it loses on the way
   * to the driver; `tapMeans`: whether the watts printed are what the line gives or what the driver gets. Nulls are not stated.
   */
    | { kind: 'tap', tapW: number, ratedV: number, tapsW: number[], insertionDb: number | null, tapMeans: TapMeans | null }

export type TapMeans = 'line-gives' | 'driver-gets'

/** What stands between a line and a group: all of the group hangs behind it. Nulls are not stated. */
export type Through
  /**
   * A volume control: a tapped autotransformer that gives on what arrives, `setDb` less ('off': nothing; not stated is taken as fully
   * up). Rated `ratingW` on a line of `lineV`; `insertionDb` is its loss fully up at that load.
   */
  = | { kind: 'control', setDb: number | 'off' | null, ratingW: number | null, lineV: number | null, insertionDb: number | null }
  /** A line transformer by itself, feeding a low-impedance group made for `secondaryOhm`. 0 W is its off position. */
    | { kind: 'transformer', tapW: number, ratedV: number, secondaryOhm: number, insertionDb: number | null, tapMeans: TapMeans | null }

/** What a speaker is to the line: one load, or several coils or drivers behind one pair of terminals. */
export type Load = SingleLoad | { kind: 'members', joined: 'series' | 'parallel', members: Exclude<SingleLoad, { kind: 'tap' }>[] }

/** A child hangs at the end of a lead; null is a lead that nobody has stated. */
export interface Child<N> { lead: Lead | null, node: N }

export interface SpeakerNode { kind: 'speaker', id: string, load: Load }

export type GroupKind = 'series' | 'chain' | 'star'

export interface GroupNode {
  /**
   * series: one current through all children. chain: each lead runs on from the child before, each child across the
   * line there. star: every lead starts at this place.
   */
  kind: GroupKind
  id: string
  children: Child<WiringNode>[]
  /** A control or a transformer at its head; without one it hangs on the line as it is. */
  through?: Through
}

/** Nothing connected, or both conductors joined: cases of their own, never very large or very small numbers. */
export interface FaultNode { kind: 'open' | 'short', id: string }

/** The wiring of one amplifier output as the solver sees it. */
export type WiringNode = SpeakerNode | GroupNode | FaultNode

export function isGroup<N extends { kind: string }>(node: N): node is Extract<N, { kind: GroupKind }> {
  return node.kind === 'series' || node.kind === 'chain' || node.kind === 'star'
}

/** A speaker of several members as the group that they are, for solving; its members bear its id with a number. */
export function membersOf({ id, load }: SpeakerNode & { load: { kind: 'members' } }): GroupNode {
  return { kind: load.joined === 'series' ? 'series' : 'star', id, children: load.members.map((member, k) => ({ lead: null, node: { kind: 'speaker', id: `${id}/${k + 1}`, load: member } })) }
}

export const isUnit = (node: WiringNode): node is SpeakerNode & { load: { kind: 'members' } } => node.kind === 'speaker' && node.load.kind === 'members'

/** The single loads that a load is made of. */
export function singleLoads(load: Load): SingleLoad[] {
  return load.kind === 'members' ? load.members : [load]
}

/** Nominal impedance of a load without a transformer: of members what they come to together, by their labels. */
export function nominalOhmOf(load: Exclude<Load, { kind: 'tap' }>): number {
  if (load.kind !== 'members') return load.nominalOhm
  return load.joined === 'series'
    ? load.members.reduce((sum, m) => sum + m.nominalOhm, 0)
    : 1 / load.members.reduce((sum, m) => sum + 1 / m.nominalOhm, 0)
}
