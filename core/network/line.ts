import { compile, Kind } from './compile'
import type { View } from './element'
import { flowAt, makeSolver, seenAtHead, solve, type Seen, type Solver } from './solve'
import type { Child, WiringNode } from './tree'

/** What one speaker gets. Magnitudes; power is real power, I²·Re(Z). */
export interface Drop { id: string, volts: number, amps: number, powerW: number }

export interface LineSolution {
  head: Seen
  /** Every speaker and every fault node, in wiring order. */
  drops: Drop[]
  /** Real power into the head, W. */
  headPowerW: number
  /** Of it, what the leads turn into heat, W. */
  lostW: number
}

/** Solves one line at one frequency for a head voltage. */
export function solveLine(root: Child<WiringNode>, view: View, frequencyHz: number, headV: number): LineSolution {
  const solver = makeSolver(compile(root, view))
  const head = solve(solver, frequencyHz, headV)
  const drops = dropsOf(solver)
  const headPowerW = head.state === 'finite' ? headV ** 2 * head.re / head.ohm ** 2 : 0
  const usedW = drops.reduce((sum, drop) => sum + drop.powerW, 0)
  return { head, drops, headPowerW, lostW: Math.max(0, headPowerW - usedW) }
}

function dropsOf(solver: Solver): Drop[] {
  const { circuit, z } = solver
  const drops: Drop[] = []
  for (let i = 0; i < circuit.count; i++) {
    if (circuit.kind[i]! >= Kind.Series) continue
    const { vRe, vIm, iRe, iIm } = flowAt(solver, i)
    const square = iRe ** 2 + iIm ** 2
    drops.push({ id: circuit.ids[i]!, volts: Math.hypot(vRe, vIm), amps: Math.sqrt(square), powerW: square * z[2 * i]! })
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

/** The hearing range, 20 to a decade: fine enough that the dip beside a resonance of Qms 10 is met within 1 %. */
const AUDIBLE = logFrequencies(20, 20_000, 61)

/** The lowest |Z| at the head between 20 Hz and 20 kHz and where it lies; null for a head that is open or short. */
export function lowestAtHead(root: Child<WiringNode>, view: View): { ohm: number, frequencyHz: number } | null {
  const circuit = compile(root, view)
  const solver = makeSolver(circuit)
  // Without a motional speaker nothing depends on frequency: one look is enough.
  const frequencies = circuit.kind.includes(Kind.Motional) ? AUDIBLE : AUDIBLE.subarray(0, 1)
  let lowest: { ohm: number, frequencyHz: number } | null = null
  for (const frequencyHz of frequencies) {
    const head = seenAtHead(solver, frequencyHz)
    if (head.state !== 'finite') return null
    if (!lowest || head.ohm < lowest.ohm) lowest = { ohm: head.ohm, frequencyHz }
  }
  return lowest
}

/** Level lost between two voltages, dB (negative is a loss). Source: definition of the decibel. */
export function levelDb(volts: number, reference: number): number {
  return 20 * Math.log10(volts / reference)
}
