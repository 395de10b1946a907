import { Kind, VALUES_PER_NODE, type Circuit } from './compile'

/** What is worked with while a circuit is solved; the walks are in solve.ts and chain.ts. */

export const enum State { Finite, Open, Short }

/** Impedance seen into a pair of terminals. Open and short are states, not numbers. */
export type Seen = { state: 'finite', re: number, im: number, ohm: number } | { state: 'open' } | { state: 'short' }

/**
 * The working arrays of one circuit, made once and used for every frequency.
 * z: a node alone, without its lead; a motional speaker right on a chain has none here, chain.ts finds it where it is used.
 * v: volts across a node. i: amps through it. Complex, peak or rms as the head is given.
 * Few arrays with their parts side by side: with one array a part the processor ran out of registers for their
 * addresses (measured: a third slower).
 */
export interface Solver {
  circuit: Circuit
  /** Per node: z, real and imaginary. */
  z: Float64Array
  zState: Uint8Array
  /** Per node: v, i. Between the walks, at a chain's child: v, i as carried from the chain's end, in a measure of its own. */
  flow: Float64Array
  /** At the place at hand of a chain: v, and i going on past it. */
  carried: Float64Array
  /** Per chain: i into it as carried. */
  chainAmps: Float64Array
  /** Per chain: how often what was carried had to be brought down; and, among its children's places, from which on each time. */
  lowered: Int32Array
  loweredAt: Int32Array
}

export function makeSolver(circuit: Circuit): Solver {
  const n = circuit.count
  const solver: Solver = {
    circuit, z: new Float64Array(2 * n), zState: new Uint8Array(n), flow: new Float64Array(4 * n),
    carried: new Float64Array(4), chainAmps: new Float64Array(2 * n), lowered: new Int32Array(n), loweredAt: new Int32Array(n),
  }
  // What no frequency changes is written once.
  for (let i = 0; i < n; i++) {
    const kind = circuit.kind[i]!
    if (kind === Kind.Resistor) {
      solver.z[2 * i] = circuit.values[i * VALUES_PER_NODE]!
      solver.zState[i] = solver.z[2 * i] === 0 ? State.Short : State.Finite
    }
    else if (kind === Kind.Open) solver.zState[i] = State.Open
    else if (kind === Kind.Short) solver.zState[i] = State.Short
  }
  return solver
}

/** Notes the impedance of a group; one that is exactly nothing is a short. */
export function write(z: Float64Array, zState: Uint8Array, p: number, re: number, im: number, state: State): void {
  z[2 * p] = state === State.Finite ? re : 0
  z[2 * p + 1] = state === State.Finite ? im : 0
  zState[p] = state === State.Finite && re === 0 && im === 0 ? State.Short : state
}

export function put(flow: Float64Array, c: number, vRe: number, vIm: number, iRe: number, iIm: number): void {
  flow[4 * c] = vRe
  flow[4 * c + 1] = vIm
  flow[4 * c + 2] = iRe
  flow[4 * c + 3] = iIm
}

/** Volts across and amps through node i after `solve`. */
export function flowAt({ flow }: Solver, i: number): { vRe: number, vIm: number, iRe: number, iIm: number } {
  return { vRe: flow[4 * i]!, vIm: flow[4 * i + 1]!, iRe: flow[4 * i + 2]!, iIm: flow[4 * i + 3]! }
}
