import { curveOf, type Curve } from './curve'
import { asWired, nominalOhmOf, type Load, type SingleLoad, type Through } from './tree'

/** What the solver can compute with. */
export type Element
  = | { kind: 'resistor', ohm: number }
    | { kind: 'motional', reOhm: number, leH: number, fsHz: number, qms: number, resOhm: number }
  /** A measured curve times `factor`; beyond its ends a resistance of `beyondOhm`. */
    | { kind: 'curve', curve: Curve, factor: number, beyondOhm: number }
    | { kind: 'open' }

/** A way to look at a load: as its label says, as its curve goes, as an ohmmeter sees it. */
export type View = (load: SingleLoad) => Element

const OPEN: Element = { kind: 'open' }

type Tap = Extract<SingleLoad, { kind: 'tap' }>
/** What states the loss of a transformer. */
type Lossy = Pick<Tap, 'tapW' | 'insertionDb' | 'tapMeans'>

/** The part of its power that a transformer gives on; null where its loss is not stated. Source: definition of the decibel. */
export function efficiencyOf({ insertionDb }: Pick<Lossy, 'insertionDb'>): number | null {
  return insertionDb === null ? null : 10 ** (-insertionDb / 10)
}

/** What a tap draws at the voltage printed for it, W: what is printed, or more where that is what the driver gets. */
export function drawnAtRatedW(load: Lossy): number {
  return load.tapMeans === 'driver-gets' ? load.tapW / (efficiencyOf(load) ?? 1) : load.tapW
}

/** Impedance of a tap, V²/P. Source: definition of power. 0 W is the off position. */
function tapElement(load: Tap): Element {
  return load.tapW === 0 ? OPEN : { kind: 'resistor', ohm: load.ratedV ** 2 / drawnAtRatedW(load) }
}

/**
 * An ideal ratio (volts out per volt in) behind a resistance, a coil and a capacitor in series on the side of the line; ratio 0 is off.
 * `elastance` is 1 / farad, so that none is zero.
 */
export interface Passing { ratio: number, seriesOhm: number, seriesH: number, elastance: number }
const passing = (ratio: number, seriesOhm: number, seriesH = 0, elastance = 0): Passing => ({ ratio, seriesOhm, seriesH, elastance })

/**
 * A control or a transformer as the solver has it: its loss is the copper's, one resistance on the line's side. Of a control it is of the size by which
 * the load that it is rated for loses what is stated, power with it against power without (insertion loss, IEC 60050); with less behind it less is lost.
 * A transformer's tap draws its watts, and gives on less its loss. A loss not stated, or without the rating
 * that sizes it, is not counted. Source: the equivalent circuit of a transformer, magnetising branch left out.
 */
export function passingOf(through: Through): Passing {
  if (through.kind === 'control') {
    const { setDb, ratingW, lineV } = through
    if (setDb === 'off') return passing(0, 0)
    const efficiency = efficiencyOf(through)
    // V²·Z / (Z + R)² against V² / Z.
    const seriesOhm = efficiency === null || ratingW === null || lineV === null ? 0 : lineV ** 2 / ratingW * (1 / Math.sqrt(efficiency) - 1)
    return passing(10 ** (-(setDb ?? 0) / 20), seriesOhm)
  }
  if (through.kind === 'capacitor') return passing(1, 0, 0, 1 / through.capacitanceF)
  if (through.kind === 'inductor') return passing(1, through.resistanceOhm ?? 0, through.inductanceH)
  if (through.tapW === 0) return passing(0, 0)
  const drawnOhm = through.ratedV ** 2 / drawnAtRatedW(through)
  const efficiency = efficiencyOf(through) ?? 1
  return passing(Math.sqrt(through.secondaryOhm / (efficiency * drawnOhm)), (1 - efficiency) * drawnOhm)
}

/** Whether what passes it hangs on the frequency. */
export const isReactive = (through: Through): through is Extract<Through, { kind: 'capacitor' | 'inductor' }> => through.kind === 'capacitor' || through.kind === 'inductor'

/** As labelled: every speaker a resistance of its nominal impedance or of its tap. */
export const asLabelled: View = load =>
  load.kind === 'tap' ? tapElement(load) : { kind: 'resistor', ohm: load.nominalOhm }

/** What a whole speaker is by its label, Ω; null for one that is off. */
export function labelledOhm(load: Load): number | null {
  const wired = asWired(load)
  if (wired.kind !== 'tap') return nominalOhmOf(wired)
  const element = tapElement(wired)
  return element.kind === 'resistor' ? element.ohm : null
}

/** As far as its curve is known: the motional model or what was measured where there is one, the label elsewhere. */
export const asCurve: View = (load) => {
  switch (load.kind) {
    case 'motional': return { kind: 'motional', reOhm: load.reOhm, leH: load.leH, fsHz: load.fsHz, qms: load.qms, resOhm: load.reOhm * load.qms / load.qes }
    case 'curve': return { kind: 'curve', curve: curveOf(load.points), factor: 1, beyondOhm: load.nominalOhm }
    default: return asLabelled(load)
  }
}

/** The part of nominal below which the curve may not fall inside the rated range. Source: IEC 60268-5. */
export const LOWEST_OF_NOMINAL = 0.8

/** The curve where it is known, elsewhere the lowest value that the label permits. */
export const asLowest: View = (load) => {
  const element = asCurve(load)
  if (element.kind === 'curve') return { ...element, beyondOhm: LOWEST_OF_NOMINAL * element.beyondOhm }
  return element.kind === 'resistor' ? { kind: 'resistor', ohm: LOWEST_OF_NOMINAL * element.ohm } : element
}
