import type { Lead } from './cable'

/** What one coil or transformer is to the line, as far as it is known. */
export type SingleLoad
  /** Only the label is known: taken as a resistance of its nominal impedance. */
  = | { kind: 'nominal', nominalOhm: number }
  /** Small-signal parameters of the drive unit (Small, JAES 1972). */
    | { kind: 'motional', nominalOhm: number, reOhm: number, leH: number, fsHz: number, qms: number, qes: number }
  /** Measured: points by rising frequency, their phase null where none was measured; `reOhm` its DC resistance, null where that is not known. */
    | { kind: 'curve', nominalOhm: number, reOhm: number | null, points: CurvePoint[] }
  /**
   * A transformer set to `tapW` as printed for a line of `ratedV`; 0 W is its off position. `insertionDb`: what it loses on the way
   * to the driver; `tapMeans`: whether the watts printed are what the line gives or what the driver gets. Nulls are not stated.
   */
    | { kind: 'tap', tapW: number, ratedV: number, tapsW: number[], insertionDb: number | null, tapMeans: TapMeans | null }

/** Frequency, Hz; magnitude, Ω; phase, degrees. */
export type CurvePoint = [frequencyHz: number, ohm: number, phaseDeg: number | null]

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
  /** In the way to the group: a capacitor without loss; a coil with the resistance of its copper, null where that is not stated. */
    | { kind: 'capacitor', capacitanceF: number }
    | { kind: 'inductor', inductanceH: number, resistanceOhm: number | null }

/** One coil or driver of several. */
export type Member = Extract<SingleLoad, { kind: 'nominal' | 'motional' }>

/** What hangs between one pair of terminals: one load, or several coils or drivers behind them. */
export type WiredLoad = SingleLoad | { kind: 'members', joined: 'series' | 'parallel', members: Member[] }

/** A cabinet as one jack and one position of its switch leave it; `plays`: whether all of its drivers are between those terminals, or a half of them. */
export interface CabinetPosition { jack: string, switchTo: string, plays: 'all' | 'half', load: Exclude<WiredLoad, { kind: 'tap' | 'curve' }> }

/** What a speaker is to the line. */
export type Load = WiredLoad
  /** A cabinet with jacks and a switch, plugged in at position `at`. */
  | { kind: 'cabinet', at: number, positions: CabinetPosition[] }
  /** One coil of the unit named `unit`, which has `of` coils, each with a pair of terminals of its own. */
  | { kind: 'coil', unit: string, of: number, coil: Member }

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

/** What is between its terminals as it is plugged and switched now. */
export function asWired(load: Load): WiredLoad {
  switch (load.kind) {
    case 'cabinet': return load.positions[load.at]!.load
    case 'coil': return load.coil
    default: return load
  }
}

type Members = Extract<WiredLoad, { kind: 'members' }>
/** A speaker of several members as the group that they are, for solving; its members bear its id with a number. */
export function membersOf(id: string, load: Members): GroupNode {
  return { kind: load.joined === 'series' ? 'series' : 'star', id, children: load.members.map((member, k) => ({ lead: null, node: { kind: 'speaker', id: `${id}/${k + 1}`, load: member } })) }
}

/** Its members, where a node is a speaker of several. */
export function unitOf(node: WiringNode): Members | null {
  if (node.kind !== 'speaker') return null
  const wired = asWired(node.load)
  return wired.kind === 'members' ? wired : null
}

/** The single loads that a load is made of. */
export function singleLoads(load: Load): SingleLoad[] {
  const wired = asWired(load)
  return wired.kind === 'members' ? wired.members : [wired]
}

/** Nominal impedance of a load without a transformer: of members what they come to together, by their labels. */
export function nominalOhmOf(load: Exclude<Load, { kind: 'tap' }>): number {
  const wired = asWired(load) as Exclude<WiredLoad, { kind: 'tap' }>
  if (wired.kind !== 'members') return wired.nominalOhm
  return wired.joined === 'series'
    ? wired.members.reduce((sum, m) => sum + m.nominalOhm, 0)
    : 1 / wired.members.reduce((sum, m) => sum + 1 / m.nominalOhm, 0)
}
