import { compile, Kind, VALUES_PER_NODE, valuesOf, type Circuit } from './compile'
import { passingOf, type View } from './element'
import { seenAtHead, solve } from './solve'
import { flowAt, makeSolver, type Seen, type Solver } from './solver'
import type { Child, Through, WiringNode } from './tree'

/** What one speaker gets. Magnitudes; power is real power, Re(V·I*). */
export interface Drop { id: string, volts: number, amps: number, powerW: number }

/** What goes into a control or a transformer and what comes out of it, W real; `id` is that of the group behind it. */
export interface Passed { id: string, inW: number, outW: number }

export interface LineSolution {
  head: Seen
  /** Every speaker and every fault node, in wiring order. */
  drops: Drop[]
  /** Real power into the head, W. */
  headPowerW: number
  /** Every control and transformer. */
  passed: Passed[]
  /** Of the head's power, what the leads turn into heat, W. */
  lostW: number
}

/** Solves one line at one frequency for a head voltage. */
export function solveLine(root: Child<WiringNode>, view: View, frequencyHz: number, headV: number): LineSolution {
  return solveCircuit(compile(root, view), frequencyHz, headV)
}

/** The same line laid flat already. */
export function solveCircuit(circuit: Circuit, frequencyHz: number, headV: number): LineSolution {
  const solver = makeSolver(circuit)
  const head = solve(solver, frequencyHz, headV)
  const drops = dropsOf(solver)
  const headPowerW = head.state === 'finite' ? headV ** 2 * head.re / head.ohm ** 2 : 0
  const passed = passedOf(solver)
  const usedW = drops.reduce((sum, drop) => sum + drop.powerW, 0) + passed.reduce((sum, p) => sum + p.inW - p.outW, 0)
  return { head, drops, passed, headPowerW, lostW: Math.max(0, headPowerW - usedW) }
}

/**
 * The line with programme of equal power an octave at its head (pink), `headV` rms, at frequencies evenly spaced on a log axis: powers are the mean over
 * the band (trapezoids), volts and amps rms; the head is what it is where it is lowest. For a line whose parts share the band between them.
 */
export function solveOver(circuit: Circuit, frequenciesHz: ArrayLike<number>, headV: number): LineSolution {
  let sum: LineSolution | null = null
  const last = frequenciesHz.length - 1
  for (let k = 0; k <= last; k++) {
    const weight = (k === 0 || k === last ? 0.5 : 1) / last
    const one = solveCircuit(circuit, frequenciesHz[k]!, headV)
    // Open and short do not come and go with frequency.
    if (one.head.state !== 'finite') return one
    if (!sum) sum = { ...one, drops: one.drops.map(d => ({ ...d, volts: 0, amps: 0, powerW: 0 })), passed: one.passed.map(p => ({ ...p, inW: 0,
      outW: 0 })), headPowerW: 0, lostW: 0 }
    if (sum.head.state === 'finite' && one.head.ohm < sum.head.ohm) sum.head = one.head
    sum.headPowerW += one.headPowerW * weight
    sum.lostW += one.lostW * weight
    sum.drops.forEach((drop, d) => {
      const { volts, amps, powerW } = one.drops[d]!
      drop.volts = Math.hypot(drop.volts, volts * Math.sqrt(weight))
      drop.amps = Math.hypot(drop.amps, amps * Math.sqrt(weight))
      drop.powerW += powerW * weight
    })
    sum.passed.forEach((passed, p) => {
      passed.inW += one.passed[p]!.inW * weight
      passed.outW += one.passed[p]!.outW * weight
    })
  }
  return sum!
}

/** The same line otherwise: as if no lead had resistance, with other things before its groups. Shares all else with the circuit it is made of. */
export function otherwise(circuit: Circuit, { isLeadless, through }: { isLeadless: boolean, through: ((groupId: string) => Through) | null }): Circuit {
  const leadOhm = isLeadless ? new Float64Array(circuit.count) : circuit.leadOhm
  if (!through || circuit.throughs.length === 0) return { ...circuit, leadOhm }
  const values = circuit.values.slice()
  for (const i of circuit.throughs) {
    values.set(valuesOf(passingOf(through(circuit.ids[i]!))), i * VALUES_PER_NODE)
  }
  return { ...circuit, leadOhm, values }
}

function passedOf(solver: Solver): Passed[] {
  const { circuit } = solver
  const realW = (i: number) => {
    const { vRe, vIm, iRe, iIm } = flowAt(solver, i)
    return vRe * iRe + vIm * iIm
  }
  return circuit.throughs.map(i => ({ id: circuit.ids[i]!, inW: realW(i), outW: realW(circuit.children[circuit.childStart[i]!]!) }))
}

function dropsOf(solver: Solver): Drop[] {
  const { circuit } = solver
  const drops: Drop[] = []
  let memberEnd = 0
  for (let i = 0; i < circuit.count; i++) {
    const isUnit = circuit.units.has(i)
    if (circuit.kind[i]! >= Kind.Series && !isUnit) continue
    // The members of a unit are counted in it.
    if (i < memberEnd) continue
    if (isUnit) memberEnd = i + 1 + circuit.childStart[i + 1]! - circuit.childStart[i]!
    const { vRe, vIm, iRe, iIm } = flowAt(solver, i)
    drops.push({ id: circuit.ids[i]!, volts: Math.hypot(vRe, vIm), amps: Math.hypot(iRe, iIm), powerW: vRe * iRe + vIm * iIm })
  }
  return drops
}

/** Impedance at the head, one frequency. */
export function headOf(root: Child<WiringNode>, view: View, frequencyHz: number): Seen {
  return seenAtHead(makeSolver(compile(root, view)), frequencyHz)
}

/** Frequencies evenly spaced on a log axis, both ends included. */
export function logFrequencies(fromHz: number, toHz: number, count: number): Float64Array {
  return Float64Array.from({ length: count }, (_, k) => fromHz * (toHz / fromHz) ** (k / (count - 1)))
}

/**
 * The hearing range, 40 to a decade: close enough together that no dip between two resonances lies hidden between neighbours
 * (20 to a decade said 2.46 Ω of two drivers in parallel that go down to 2.38). Each dip is then looked for between its neighbours.
 */
export const HEARD_HZ: readonly [number, number] = [20, 20_000]
const AUDIBLE = logFrequencies(...HEARD_HZ, 121)

/**
 * Own points of curves that are looked at one by one. Of two hundred curves, each on frequencies of its own, forty thousand took seconds; where there are more,
 * they are taken 400 to a decade, nearer together than the points of any curve that is kept, and each dip is looked for between its neighbours all the same.
 */
const MOST_OWN = 4000
const THINNED_A_DECADE = 400

/** What is looked at for the dips of a circuit: a measured curve has its own points besides. */
function lookedAt({ curves }: Circuit, looked: Float64Array): { hz: Float64Array, isThinned: boolean } {
  if (curves.length === 0) return { hz: looked, isThinned: false }
  const [from, to] = [looked[0]!, looked.at(-1)!]
  const isThinned = curves.reduce((sum, { curve }) => sum + curve.lnHz.length, 0) > MOST_OWN
  const own = isThinned
    ? logFrequencies(from, to, 2 + Math.ceil(THINNED_A_DECADE * Math.log10(to / from)))
    : curves.flatMap(({ curve }) => Array.from(curve.lnHz, Math.exp)).filter(hz => hz > from && hz < to)
  return { hz: Float64Array.from(new Set([...looked, ...own])).sort(), isThinned }
}
/** Of many curves only dips whose sample is so near the lowest one are narrowed down. */
const NEAR_LOWEST = 0.25
/** As close together as over the whole of it. */
function between([fromHz, toHz]: readonly [number, number]): Float64Array {
  return fromHz <= HEARD_HZ[0] && toHz >= HEARD_HZ[1] ? AUDIBLE : logFrequencies(fromHz, toHz, 2 + Math.ceil(40 * Math.log10(toHz / fromHz)))
}
/** Narrows the place of a dip to a ten-thousandth of the step between two frequencies. */
const NARROWINGS = 16
const GOLDEN = (Math.sqrt(5) - 1) / 2

/** |Z| at a head, and where it is so. */
export interface OhmAt { ohm: number, frequencyHz: number }

/** The lowest |Z| at the head between two frequencies (the hearing range) and where it lies; null for a head that is open or short. */
export function lowestAtHead(root: Child<WiringNode>, view: View, withinHz: readonly [number, number] = HEARD_HZ): OhmAt | null {
  return lowestOfCircuit(compile(root, view), withinHz)
}

/** The highest, likewise, of a line laid flat. */
export function highestOfCircuit(circuit: Circuit, withinHz: readonly [number, number] = HEARD_HZ): OhmAt | null {
  const upsideDown = lowestOfCircuit(circuit, withinHz, ohm => -ohm)
  return upsideDown && { ...upsideDown, ohm: -upsideDown.ohm }
}

function lowestOfCircuit(circuit: Circuit, withinHz: readonly [number, number], of: (ohm: number) => number = ohm => ohm): OhmAt | null {
  const solver = makeSolver(circuit)
  // Open and short do not come and go with frequency.
  const looked = between(withinHz)
  if (seenAtHead(solver, looked[0]!).state !== 'finite') return null
  const ohmAt = (frequencyHz: number) => {
    const head = seenAtHead(solver, frequencyHz)
    return of(head.state === 'finite' ? head.ohm : Infinity)
  }
  // Where nothing depends on frequency one look is enough.
  if (!circuit.isOfFrequency) return { ohm: ohmAt(looked[0]!), frequencyHz: looked[0]! }
  const { hz: frequenciesHz, isThinned } = lookedAt(circuit, looked)
  const ohms = frequenciesHz.map(ohmAt)
  const least = ohms.reduce((a, b) => Math.min(a, b), Infinity)
  const worth = isThinned ? least + NEAR_LOWEST * Math.abs(least) : Infinity
  let lowest = { ohm: Infinity, frequencyHz: 0 }
  ohms.forEach((ohm, k) => {
    if (ohm > worth || ohm > (ohms[k - 1] ?? Infinity) || ohm > (ohms[k + 1] ?? Infinity)) return
    const dip = dipBetween(ohmAt, frequenciesHz[Math.max(0, k - 1)]!, frequenciesHz[Math.min(ohms.length - 1, k + 1)]!)
    for (const at of [dip, { ohm, frequencyHz: frequenciesHz[k]! }]) if (at.ohm < lowest.ohm) lowest = at
  })
  return lowest
}

/** The least of a curve with one dip between two frequencies, by golden section on a log axis. */
function dipBetween(ohmAt: (frequencyHz: number) => number, fromHz: number, toHz: number): OhmAt {
  let [low, high] = [Math.log(fromHz), Math.log(toHz)]
  const at = (x: number) => ({ x, ohm: ohmAt(Math.exp(x)) })
  let a = at(high - GOLDEN * (high - low))
  let b = at(low + GOLDEN * (high - low))
  for (let k = 0; k < NARROWINGS; k++) {
    if (a.ohm < b.ohm) {
      high = b.x
      b = a
      a = at(high - GOLDEN * (high - low))
    }
    else {
      low = a.x
      a = b
      b = at(low + GOLDEN * (high - low))
    }
  }
  const { x, ohm } = a.ohm < b.ohm ? a : b
  return { ohm, frequencyHz: Math.exp(x) }
}

/** Level lost between two voltages, dB (negative is a loss). Source: definition of the decibel. */
export function levelDb(volts: number, reference: number): number {
  return 20 * Math.log10(volts / reference)
}

/** Volts across and amps through every node, by its id, for one volt at the head; and the head. Complex. */
export function flowsOf(root: Child<WiringNode>, view: View, frequencyHz: number): { head: Seen, flows: Map<string, Flow> } {
  const circuit = compile(root, view)
  const solver = makeSolver(circuit)
  const head = solve(solver, frequencyHz, 1)
  const flows = new Map<string, Flow>()
  for (let i = 0; i < circuit.count; i++) if (!flows.has(circuit.ids[i]!)) flows.set(circuit.ids[i]!, flowAt(solver, i))
  return { head, flows }
}
export type Flow = ReturnType<typeof flowAt>
