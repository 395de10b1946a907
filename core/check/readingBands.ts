import { curveOf, lookUp } from '#core/network/curve'
import { asCurve, LOWEST_OF_NOMINAL, type View } from '#core/network/element'
import { solveLine, type LineSolution } from '#core/network/line'
import type { SingleLoad, WiringNode } from '#core/network/tree'

/** Frequency of a usual impedance meter. Common practice, no source. */
export const METER_HZ = 1000

/** How far a right reading may lie from what is computed, as factors. Each with its source. */
interface Band { low: number, expected: number, high: number, source: string }

export const IMPEDANCE_BANDS = {
  /** Tap windings and an impedance meter together. */
  tap: { low: 0.9, expected: 1, high: 1.1, source: 'transformers and meter within a tenth: common practice, no source' },
  /** Known curve: meter, and the spread between units of one kind. */
  motional: { low: 0.9, expected: 1, high: 1.1, source: 'units of one kind within a tenth: common practice, no source' },
  /** Measured: its meter and this one, and the spread between units of one kind. */
  curve: { low: 0.9, expected: 1, high: 1.1, source: 'a measured curve, units of one kind within a tenth: common practice, no source' },
  /** Label alone: never under 0.8 of it; at 1 kHz a coil's inductance often lifts it well above. */
  nominal: { low: LOWEST_OF_NOMINAL, expected: 1, high: 1.5, source: 'not under 0.8 of the label (IEC 60268-5); up to 1.5 of it: common practice, no source' },
} as const satisfies Record<string, Band>

export const DCR_BANDS = {
  nominal: { low: 0.7, expected: 0.8, high: 0.9, source: 'a coil reads 0.70 to 0.90 of its nominal: common practice, no source' },
  motional: { low: 0.9, expected: 1, high: 1.1, source: 'its stated Re, within a tenth: common practice, no source' },
  curve: { low: 0.9, expected: 1, high: 1.1, source: 'its measured resistance, within a tenth: common practice, no source' },
} as const satisfies Record<string, Band>

/** Which band the impedance of a load has at the meter's frequency: a curve that does not reach there says no more than its label. */
export function bandAt(load: SingleLoad): keyof typeof IMPEDANCE_BANDS {
  return load.kind === 'curve' && lookUp(curveOf(load.points), Math.log(METER_HZ)) === null ? 'nominal' : load.kind
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

/** Impedance view with every load moved to one edge of its band. */
export function impedanceAt(edge: Edge): View {
  return (load) => {
    const factor = IMPEDANCE_BANDS[bandAt(load)][edge]
    const element = asCurve(load)
    switch (element.kind) {
      case 'open': return element
      case 'resistor': return { kind: 'resistor', ohm: element.ohm * factor }
      case 'curve': return { ...element, factor, beyondOhm: element.beyondOhm * factor }
      case 'motional': return { ...element, reOhm: element.reOhm * factor, leH: element.leH * factor, resOhm: element.resOhm * factor }
    }
  }
}

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

const EXPECTED = impedanceAt('expected')
/** A line as an impedance meter should see it, every load at the middle of its band, for one volt at the head. */
export const solvedAsRead = (node: WiringNode): LineSolution => solveLine({ lead: null, node }, EXPECTED, METER_HZ, 1)
