import { nominalOhmOf, type Load, type SingleLoad } from './tree'

/** What the solver can compute with. */
export type Element
  = | { kind: 'resistor', ohm: number }
    | { kind: 'motional', reOhm: number, leH: number, fsHz: number, qms: number, resOhm: number }
    | { kind: 'open' }

/** A way to look at a load: as its label says, as its curve goes, as an ohmmeter sees it. */
export type View = (load: SingleLoad) => Element

const OPEN: Element = { kind: 'open' }

/** Impedance of a tap, V²/P. Source: definition of power. 0 W is the off position. */
function tapElement(load: Extract<SingleLoad, { kind: 'tap' }>): Element {
  return load.tapW === 0 ? OPEN : { kind: 'resistor', ohm: load.ratedV ** 2 / load.tapW }
}

/** As labelled: every speaker a resistance of its nominal impedance or of its tap. */
export const asLabelled: View = load =>
  load.kind === 'tap' ? tapElement(load) : { kind: 'resistor', ohm: load.nominalOhm }

/** What a whole speaker is by its label, Ω; null for one that is off. */
export function labelledOhm(load: Load): number | null {
  if (load.kind !== 'tap') return nominalOhmOf(load)
  const element = tapElement(load)
  return element.kind === 'resistor' ? element.ohm : null
}

/** As far as its curve is known: the motional model where there is one, the label elsewhere. */
export const asCurve: View = load => load.kind === 'motional'
  ? { kind: 'motional', reOhm: load.reOhm, leH: load.leH, fsHz: load.fsHz, qms: load.qms, resOhm: load.reOhm * load.qms / load.qes }
  : asLabelled(load)

/** The part of nominal below which the curve may not fall inside the rated range. Source: IEC 60268-5. */
export const LOWEST_OF_NOMINAL = 0.8

/** The curve where it is known, elsewhere the lowest value that the label permits. */
export const asLowest: View = (load) => {
  const element = asCurve(load)
  return element.kind === 'resistor' ? { kind: 'resistor', ohm: LOWEST_OF_NOMINAL * element.ohm } : element
}
