import { Kind, VALUES_PER_NODE } from './compile'
import { put, State, write, type Solver } from './solver'

/** Both walks along a chain. */

/**
 * A ladder from its far end: one volt is taken to stand there, and volts and amps are carried to the head by Kirchhoff's two laws
 * alone; `feedChain` brings them to what the head gives. What lost: folding impedances, Z_k = R_k + (Zdrop_k ∥ Z_{k+1}), where each step waits
 * for the division of the one before and the way down is a walk of the same kind (both walks, 2,000 drops at 240 frequencies: 17.6 ms, so 11.9).
 */
export function foldChain(solver: Solver, p: number, frequencyHz: number): void {
  const { circuit, z, zState, flow, carried, chainAmps, loweredAt, lowered } = solver
  const { children, childStart, leadOhm } = circuit
  const first = childStart[p]!
  put(carried, 0, 1, 0, 0, 0)
  lowered[p] = 0
  // Children from here on lie behind a short and have been told so.
  let dead = childStart[p + 1]!
  let k = dead
  while (k > first) {
    const stop = Math.max(first, k - STRETCH)
    k = carryOn(solver, k, stop, frequencyHz)
    while (isGreat(carried)) {
      for (let part = 0; part < 4; part++) carried[part]! /= MOST
      loweredAt[first + lowered[p]!++] = k
    }
    if (k === stop) continue
    const c = children[--k]!
    if (zState[c] === State.Open) put(flow, c, carried[0]!, carried[1]!, 0, 0)
    else if (carried[0] === 0 && carried[1] === 0) {
      // Short beside short: each takes the one amp that the first was taken to have.
      put(flow, c, 0, 0, 1, 0)
      carried[2]! += 1
    }
    else {
      // What was carried is nothing beside a short: one amp is taken to flow through it.
      for (let beyond = k + 1; beyond < dead; beyond++) put(flow, children[beyond]!, 0, 0, 0, 0)
      dead = k + 1
      put(flow, c, 0, 0, 1, 0)
      put(carried, 0, 0, 0, 1, 0)
    }
    carried[0]! += leadOhm[c]! * carried[2]!
    carried[1]! += leadOhm[c]! * carried[3]!
  }
  const vRe = carried[0]!
  const vIm = carried[1]!
  const iRe = chainAmps[2 * p] = carried[2]!
  const iIm = chainAmps[2 * p + 1] = carried[3]!
  const square = iRe * iRe + iIm * iIm
  write(z, zState, p, (vRe * iRe + vIm * iIm) / square, (vIm * iRe - vRe * iIm) / square, square === 0 ? State.Open : State.Finite)
}

/**
 * What is carried along a chain is brought down by this much where it is more; in a stretch of so many places it may grow by 10 ** 8 at each and still
 * be a number: ten kilometres of the thinnest cable onto a hundred loads of 0.05 Ω side by side are less.
 */
const MOST = 1e50
const STRETCH = 32
const isGreat = (carried: Float64Array) => Math.abs(carried[0]!) + Math.abs(carried[1]!) + Math.abs(carried[2]!) + Math.abs(carried[3]!) > MOST

/**
 * Carries on from place `k` of `children` down to `stop`, or to behind the first that is not finite: says where it came to. The admittance of a
 * motional speaker (`seeMotional` in solve.ts has the formula) is found where it is used. In a function without calls, so that its numbers stay
 * in the processor.
 */
function carryOn({ circuit, z, zState, flow, carried }: Solver, k: number, stop: number, frequencyHz: number): number {
  const { children, kind, values, leadOhm } = circuit
  const [motional, finite]: [number, number] = [Kind.Motional, State.Finite]
  const omega = 2 * Math.PI * frequencyHz
  const period = 1 / frequencyHz
  // Volts at the place at hand, and amps going on past it.
  let vRe = carried[0]!
  let vIm = carried[1]!
  let iRe = carried[2]!
  let iIm = carried[3]!
  for (; k > stop; k--) {
    const c = children[k - 1]!
    let gRe: number
    let gIm: number
    if (kind[c] === motional) {
      const at = (c * VALUES_PER_NODE) | 0
      const x = values[(at + 2) | 0]! * frequencyHz - values[(at + 3) | 0]! * period
      const q = 1 + x * x
      const resOhm = values[(at + 4) | 0]!
      const re = values[at]! * q + resOhm
      const im = omega * values[(at + 1) | 0]! * q - resOhm * x
      const inverse = q / (re * re + im * im)
      gRe = re * inverse
      gIm = im * inverse
    }
    else {
      if (zState[c] !== finite) break
      const re = z[2 * c]!
      const im = z[2 * c + 1]!
      const inverse = 1 / (re * re + im * im)
      gRe = re * inverse
      gIm = im * inverse
    }
    const dropRe = vRe * gRe + vIm * gIm
    const dropIm = vIm * gRe - vRe * gIm
    const to = c << 2
    flow[to] = vRe
    flow[to | 1] = vIm
    flow[to | 2] = dropRe
    flow[to | 3] = dropIm
    iRe += dropRe
    iIm += dropIm
    const leadHereOhm = leadOhm[c]!
    vRe += leadHereOhm * iRe
    vIm += leadHereOhm * iIm
  }
  carried[0] = vRe
  carried[1] = vIm
  carried[2] = iRe
  carried[3] = iIm
  return k
}

/** What was carried, brought to what the head gives; a chain in which no amp flows is at one volt all along. */
export function feedChain({ circuit, flow, chainAmps, loweredAt, lowered }: Solver, p: number): void {
  const { children, childStart } = circuit
  const first = childStart[p]!
  const iRe = chainAmps[2 * p]!
  const iIm = chainAmps[2 * p + 1]!
  const square = iRe * iRe + iIm * iIm
  let timesRe = square === 0 ? flow[4 * p]! : (flow[4 * p + 2]! * iRe + flow[4 * p + 3]! * iIm) / square
  let timesIm = square === 0 ? flow[4 * p + 1]! : (flow[4 * p + 3]! * iRe - flow[4 * p + 2]! * iIm) / square
  let k = first
  for (let more = lowered[p]!; more >= 0; more--) {
    const to = more > 0 ? loweredAt[first + more - 1]! : childStart[p + 1]!
    for (; k < to; k++) {
      const at = children[k]! << 2
      const vRe = flow[at]!
      const vIm = flow[at | 1]!
      const dropRe = flow[at | 2]!
      const dropIm = flow[at | 3]!
      flow[at] = vRe * timesRe - vIm * timesIm
      flow[at | 1] = vRe * timesIm + vIm * timesRe
      flow[at | 2] = dropRe * timesRe - dropIm * timesIm
      flow[at | 3] = dropRe * timesIm + dropIm * timesRe
    }
    timesRe /= MOST
    timesIm /= MOST
  }
}
