import type { Lead } from './cable'

/** What a speaker is to the line, as far as it is known. */
export type Load
  /** Only the label is known: taken as a resistance of its nominal impedance. */
  = | { kind: 'nominal', nominalOhm: number }
  /** Small-signal parameters of the drive unit (Small, JAES 1972). */
    | { kind: 'motional', nominalOhm: number, reOhm: number, leH: number, fsHz: number, qms: number, qes: number }
  /** A transformer set to `tapW` as printed for a line of `ratedV`; 0 W is its off position. */
    | { kind: 'tap', tapW: number, ratedV: number, tapsW: number[] }

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
}

/** Nothing connected, or both conductors joined: cases of their own, never very large or very small numbers. */
export interface FaultNode { kind: 'open' | 'short', id: string }

/** The wiring of one amplifier output as the solver sees it. */
export type WiringNode = SpeakerNode | GroupNode | FaultNode

export function isGroup<N extends { kind: string }>(node: N): node is Extract<N, { kind: GroupKind }> {
  return node.kind === 'series' || node.kind === 'chain' || node.kind === 'star'
}
