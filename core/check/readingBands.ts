import { curveOf, lookUp } from '#core/network/curve'
import { asCurve, type View } from '#core/network/element'
import { ORDINARY_DIP } from '#core/network/label'
import { solveLine, type LineSolution } from '#core/network/line'
import type { SingleLoad, WiringNode } from '#core/network/tree'

/** Frequency of a usual impedance meter. Common practice, no source. */
export const METER_HZ = 1000

/**
 * How far the impedance of a unit may lie from what is computed, as factors: `low` to `high` is shared by all units of its model, until one of them was read
 * (lessons.ts); `own` is each unit's about its model, to either side.
 */
interface ImpedanceBand { low: number, high: number, own: number, source: string }

export const IMPEDANCE_BANDS = {
  /** A drive unit behind a transformer is no nearer its label than a plain one; the transformer comes on top. */
  tap: {
    low: ORDINARY_DIP, high: 1.1, own: 0.1,
    source: 'drive units at 0.70 to 1.10 of their label (coils of 0.70 to 0.90 of it, 0.1 to 0.8 mH), alike within a model; each transformer within a tenth: common practice, no source',
  },
  /** Known curve: the sheet against the batch, and the spread between units of one kind; together a tenth. */
  motional: { low: 1 / 1.07, high: 1.07, own: 0.07, source: 'units of one kind within a tenth: common practice, no source' },
  curve: { low: 1 / 1.07, high: 1.07, own: 0.07, source: 'a measured curve, units of one kind within a tenth: common practice, no source' },
  /** Label alone: at 1 kHz a coil's inductance often lifts it well above. */
  nominal: { low: ORDINARY_DIP, high: 1.5, own: 0.1, source: '0.70 to 1.50 of the label, alike within a model: common practice, no source' },
} as const satisfies Record<string, ImpedanceBand>

/** How far a right resistance may lie from what is computed, as factors. Each with its source. */
interface Band { low: number, expected: number, high: number, source: string }

export const DCR_BANDS = {
  nominal: { low: 0.7, expected: 0.8, high: 0.9, source: 'a coil reads 0.70 to 0.90 of its nominal: common practice, no source' },
  motional: { low: 0.9, expected: 1, high: 1.1, source: 'its stated Re, within a tenth: common practice, no source' },
  curve: { low: 0.9, expected: 1, high: 1.1, source: 'its measured resistance, within a tenth: common practice, no source' },
} as const satisfies Record<string, Band>

/** Which band the impedance of a load has at a frequency: a curve that does not reach there says no more than its label. */
export function bandAt(load: SingleLoad, frequencyHz = METER_HZ): keyof typeof IMPEDANCE_BANDS {
  return load.kind === 'curve' && lookUp(curveOf(load.points), Math.log(frequencyHz)) === null ? 'nominal' : load.kind
}

type Coil = Exclude<SingleLoad, { kind: 'tap' }>
/** Which band its DC resistance has, and of what: its own where that is stated, else its label. */
export function copperBand(load: Coil): keyof typeof DCR_BANDS {
  return load.kind === 'curve' && load.reOhm === null ? 'nominal' : load.kind
}
export function copperOf(load: Coil): number {
  return load.kind === 'nominal' ? load.nominalOhm : load.reOhm ?? load.nominalOhm
}

export type Edge = 'low' | 'expected' | 'high'

/** What an ohmmeter sees, with every coil moved to one edge. A transformer's copper is not known and counts as open: ask first. */
export function dcrAt(edge: Edge): View {
  return (load) => {
    if (load.kind === 'tap') return { kind: 'open' }
    return { kind: 'resistor', ohm: copperOf(load) * DCR_BANDS[copperBand(load)][edge] }
  }
}

/** Copper of a transformer's winding, Ω: a few to some tens, and never known. Common practice, no source. It tells a way round from none, and no more. */
const SOME_WINDING_OHM = 10

/** Whether there is a way round, with every winding taken as some copper. Its ohms mean nothing. */
export const throughWindings: View = load => load.kind === 'tap'
  ? load.tapW === 0 ? { kind: 'open' } : { kind: 'resistor', ohm: SOME_WINDING_OHM }
  : dcrAt('expected')(load)

/** A line as an impedance meter should see it, every load at `times` what is known of it, for one volt at the head. */
export function solvedAsRead(node: WiringNode, frequencyHz = METER_HZ, times = 1): LineSolution {
  return solveLine({ lead: null, node }, times === 1 ? asCurve : timesOf(times), frequencyHz, 1)
}

function timesOf(times: number): View {
  return (load) => {
    const element = asCurve(load)
    switch (element.kind) {
      case 'open': return element
      case 'resistor': return { kind: 'resistor', ohm: element.ohm * times }
      case 'curve': return { ...element, factor: times, beyondOhm: element.beyondOhm * times }
      case 'motional': return { ...element, reOhm: element.reOhm * times, leH: element.leH * times, resOhm: element.resOhm * times }
    }
  }
}
