import { add, complex, divide, lusolve, matrix, multiply, type Complex } from 'mathjs'
import { writeSpice } from '#core/format/spice'
import { asCurve } from '#core/network/element'
import { leadOhm } from '#core/network/cable'
import { compile } from '#core/network/compile'
import { solve } from '#core/network/solve'
import { flowAt, makeSolver } from '#core/network/solver'
import { isGroup, type Child, type WiringNode } from '#core/network/tree'
import { motionalLadder, seeded } from '#core/testing/trees'
import { runNgspice } from '../tests/outside/ngspice'
import { medianMs, quantile } from './timing'

export interface SweepRow { drops: number, frequencies: number, oursMs: number, spiceMs: number, ratio: number }
/** How much longer ten times the drops take, 240 frequencies each, turn and turn about. */
export function growthOfTen(): number {
  const list = sweep(240)
  const [small, large] = [200, 2000].map((drops) => {
    const tree = motionalLadder(seeded(drops), drops)
    return () => {
      const solver = makeSolver(compile(tree, asCurve))
      for (const f of list) solve(solver, f, 10)
    }
  })
  const rounds = Array.from({ length: 15 }, () => medianMs(large!, 200) / medianMs(small!, 200))
  return quantile(rounds, 0.5)
}

export interface DenseRow { nodes: number, oursMs: number, denseMs: number }

const PER_DECADE = 80
/** 240 frequencies from 20 Hz at 80 to the decade. */
const sweep = (count: number) => Array.from({ length: count }, (_, k) => 20 * 10 ** (k / PER_DECADE))

/** Both walks at every frequency, laying the tree flat included, beside ngspice's own AC-analysis time for the same netlist and frequencies. */
export function sweepRows(): SweepRow[] {
  return [20, 200, 2000].flatMap(drops => [1, 240].map((frequencies) => {
    const tree = motionalLadder(seeded(drops), drops)
    const list = sweep(frequencies)
    const netlist = writeSpice(tree, 'bench', { headV: 10, fromHz: 20, toHz: frequencies === 1 ? 20 : list.at(-1)! * 1.0001, perDecade: PER_DECADE })
    const ours = () => {
      const solver = makeSolver(compile(tree, asCurve))
      for (const f of list) solve(solver, f, 10)
    }
    medianMs(ours, 800)
    // Turn and turn about: a shared machine is now fast, now slow, and a ratio of two different minutes says nothing.
    // The machine is slow for seconds on end: enough rounds to see it both ways.
    const round = () => ({ oursMs: medianMs(ours, 150), spiceMs: runNgspice(netlist, []).acSeconds * 1000 })
    const rounds = Array.from({ length: frequencies === 1 ? 7 : 21 }, round)
    const of = (pick: (round: { oursMs: number, spiceMs: number }) => number) => quantile(rounds.map(pick), 0.5)
    return { drops, frequencies, oursMs: of(r => r.oursMs), spiceMs: of(r => r.spiceMs), ratio: of(r => r.spiceMs / r.oursMs) }
  }))
}

/** The same chain as a dense nodal system, solved by mathjs `lusolve`, at one frequency. */
export function denseRows(): DenseRow[] {
  return [20, 60, 100].map((nodes) => {
    const tree = motionalLadder(seeded(nodes), nodes)
    const oursMs = medianMs(() => solve(makeSolver(compile(tree, asCurve)), 1000, 10), 500)
    const { y, b } = nodal(tree, 1000, 10)
    const denseMs = medianMs(() => lusolve(matrix(y), matrix(b)), 2500)
    checkSame(tree, y, b)
    return { nodes, oursMs, denseMs }
  })
}

/** Admittance matrix and source currents of a chain; node k is its kth drop. */
function nodal({ node }: Child<WiringNode>, frequencyHz: number, headV: number): { y: Complex[][], b: Complex[][] } {
  if (!isGroup(node)) throw new Error('a chain is wanted')
  const n = node.children.length
  const y = Array.from({ length: n }, () => Array.from({ length: n }, () => complex(0, 0)))
  const b = Array.from({ length: n }, () => [complex(0, 0)])
  const put = (i: number, j: number, value: Complex) => { y[i]![j] = add(y[i]![j]!, value) as Complex }
  node.children.forEach(({ lead, node: drop }, k) => {
    const g = complex(1 / leadOhm(lead), 0)
    put(k, k, g)
    if (k === 0) b[0]![0] = multiply(g, headV) as Complex
    else {
      put(k - 1, k - 1, g)
      put(k, k - 1, multiply(g, -1) as Complex)
      put(k - 1, k, multiply(g, -1) as Complex)
    }
    if (drop.kind !== 'speaker') throw new Error('speakers are wanted')
    if (drop.load.kind !== 'motional') throw new Error('single speakers are wanted')
    const e = asCurve(drop.load)
    if (e.kind !== 'motional') throw new Error('motional speakers are wanted')
    const motional = divide(complex(e.resOhm, 0), complex(1, e.qms * (frequencyHz / e.fsHz - e.fsHz / frequencyHz))) as Complex
    put(k, k, divide(1, add(complex(e.reOhm, 2 * Math.PI * frequencyHz * e.leH), motional)) as Complex)
  })
  return { y, b }
}

/** A benchmark of two different answers would be worth nothing. */
function checkSame(tree: Child<WiringNode>, y: Complex[][], b: Complex[][]): void {
  const solver = makeSolver(compile(tree, asCurve))
  solve(solver, 1000, 10)
  const [last] = (lusolve(matrix(y), matrix(b)).toArray() as Complex[][]).at(-1)!
  const { vRe, vIm } = flowAt(solver, solver.circuit.count - 1)
  const off = Math.hypot(last!.re - vRe, last!.im - vIm)
  if (!(off < 1e-9)) throw new Error(`the dense solve differs by ${off} V`)
}
