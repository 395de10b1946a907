import { asJudged } from '#core/network/label'
import { compile, type Circuit } from '#core/network/compile'
import { highestOfCircuit, logFrequencies, otherwise, solveCircuit, solveOver, type LineSolution, type OhmAt } from '#core/network/line'
import { METER_HZ } from '#core/check/readingBands'
import type { Band, LineThrough, Output } from '#core/job/schema'
import { lossless, throughsOf, turnedUp, type Hangs, type ThroughGroup } from './behind'
import { bandHz, playedHz } from './playedBand'

/**
 * A line as hands can make it: each control stands anywhere from off to fully up, whatever is drawn. Taps of transformers are set with a tool and
 * stand as they are drawn. All for one volt at the head: the network is linear.
 */
export interface Positions {
  /** Controls and transformers with those behind each, and for each speaker those before it. */
  hangs: Hangs
  /** As it is drawn; `bare` as if no lead had resistance. */
  unit: LineSolution
  bare: LineSolution
  /** Every control fully up; `upBare` without leads and without the loss of a control. Where there is no control, these are the same. */
  up: LineSolution
  upBare: LineSolution
  /** The highest |Z| over what is played with controls set so; null: open or short. */
  highest: (set: Settings) => OhmAt | null
  /** With controls set so. */
  at: (set: Settings) => LineSolution
}

/** Where capacitors and coils part the band: eight to an octave over the hearing range is close enough for means of power. */
const LOOKED_AT = 81

/** By what is judged loads are the same at every frequency; only what stands in the way of groups is not. */
const solvedAtOneVolt = (circuit: Circuit, band: Band | null): LineSolution => circuit.isReactive
  ? solveOver(circuit, logFrequencies(...bandHz(band), LOOKED_AT), 1)
  : solveCircuit(circuit, METER_HZ, 1)

/** Positions of controls by the group behind each, dB down; one that is not named is off. */
export type Settings = ReadonlyMap<string, number>
export const fullyUpAt = (ids: Iterable<string>): Settings => new Map([...ids].map(id => [id, 0]))

export function positionsOf({ wiring, band }: Pick<Output, 'wiring' | 'band'>): Positions {
  const circuit = compile({ lead: null, node: wiring }, asJudged)
  const hangs = throughsOf(wiring)
  const throughs = new Map(hangs.all.map(s => [s.nodeId, s.through]))
  const as = (change: (through: LineThrough, id: string) => LineThrough, isLeadless = false) =>
    otherwise(circuit, { isLeadless, through: throughs.size === 0 ? null : id => change(throughs.get(id)!, id) })
  const solved = (changed: Circuit) => solvedAtOneVolt(changed, band)
  const unit = solved(circuit)
  const bare = solved(as(through => through, true))
  const isDown = hangs.all.some(({ through }) => through.kind === 'control' && through.setDb !== 0 && through.setDb !== null)
  const circuitAt = (set: Settings) => as((through, id) => through.kind === 'control' ? { ...through, setDb: set.get(id) ?? 'off' } : through)
  return {
    hangs, unit, bare,
    up: isDown ? solved(as(turnedUp)) : unit,
    upBare: hangs.all.length === 0 ? bare : solved(as(through => lossless(turnedUp(through)), true)),
    highest: set => highestOfCircuit(circuitAt(set), playedHz(band)),
    at: set => solved(circuitAt(set)),
  }
}

/** Controls among these. */
export const controlIds = (groups: readonly ThroughGroup[]): string[] => groups.filter(g => g.through.kind === 'control').map(g => g.nodeId)
