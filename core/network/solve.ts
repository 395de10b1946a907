import { feedChain, foldChain } from './chain'
import { Kind, VALUES_PER_NODE, type Circuit } from './compile'
import { lookUp } from './curve'
import { put, State, write, type Seen, type Solver } from './solver'

/**
 * One walk from the ends to the head: the impedance of every node at one frequency, and the head's.
 * Series adds impedances, star adds admittances, a chain is carried from its end.
 * Source: Kirchhoff; Small, JAES 1972, for the motional speaker. O(nodes), no matrix.
 * Motional speakers that hang on no chain come first, in a loop of their own: none waits for another, and the processor overlaps them (measured: the
 * whole walk took twice as long with speakers and groups in one loop).
 */
export function seenAtHead(solver: Solver, frequencyHz: number): Seen {
  const { circuit, z, zState } = solver
  const { kind, groups, leadOhm } = circuit
  seeMotional(solver, frequencyHz)
  if (circuit.curves.length > 0) seeCurves(solver, frequencyHz)
  const omega = 2 * Math.PI * frequencyHz
  for (let g = groups.length - 1; g >= 0; g--) {
    const p = groups[g]!
    if (kind[p] === Kind.Chain) foldChain(solver, p, frequencyHz)
    else if (kind[p] === Kind.Star) foldStar(solver, p)
    else if (kind[p] === Kind.Series) foldSeries(solver, p)
    else foldThrough(solver, p, omega)
  }
  if (zState[0] === State.Open) return { state: 'open' }
  const re = z[0]! + leadOhm[0]!
  if (zState[0] === State.Short && leadOhm[0] === 0) return { state: 'short' }
  return { state: 'finite', re, im: z[1]!, ohm: Math.hypot(re, z[1]!) }
}

/** Re + jωLe + Res / (1 + jx), x = Qms(f/fs − fs/f). */
function seeMotional({ circuit, z }: Solver, frequencyHz: number): void {
  const { motional, values } = circuit
  const omega = 2 * Math.PI * frequencyHz
  const period = 1 / frequencyHz
  for (let m = 0; m < motional.length; m++) {
    const i = motional[m]!
    const at = i * VALUES_PER_NODE
    const x = values[at + 2]! * frequencyHz - values[at + 3]! * period
    const res = values[at + 4]! / (1 + x * x)
    z[2 * i] = values[at]! + res
    z[2 * i + 1] = omega * values[at + 1]! - res * x
  }
}

/** Each curve is looked up once, however many go by it. */
function seeCurves({ circuit, z }: Solver, frequencyHz: number): void {
  const lnHz = Math.log(frequencyHz)
  for (const { curve, factor, beyondOhm, nodes } of circuit.curves) {
    const at = lookUp(curve, lnHz)
    const re = at ? factor * at.ohm * Math.cos(at.phase) : beyondOhm
    const im = at ? factor * at.ohm * Math.sin(at.phase) : 0
    for (let k = 0; k < nodes.length; k++) {
      z[2 * nodes[k]!] = re
      z[2 * nodes[k]! + 1] = im
    }
  }
}

function foldSeries({ circuit, z, zState }: Solver, p: number): void {
  const { children, childStart, leadOhm } = circuit
  let re = 0
  let im = 0
  let state = State.Short
  for (let k = childStart[p]!; k < childStart[p + 1]!; k++) {
    const c = children[k]!
    if (zState[c] === State.Open) {
      state = State.Open
      break
    }
    if (zState[c] === State.Finite || leadOhm[c]! > 0) state = State.Finite
    re += z[2 * c]! + leadOhm[c]!
    im += z[2 * c + 1]!
  }
  // Nothing in it is a way through nothing: an empty group is open, whatever its kind.
  if (childStart[p] === childStart[p + 1]) state = State.Open
  write(z, zState, p, re, im, state)
}

function foldStar({ circuit, z, zState }: Solver, p: number): void {
  const { children, childStart, leadOhm } = circuit
  let gRe = 0
  let gIm = 0
  let state = State.Open
  for (let k = childStart[p]!; k < childStart[p + 1]!; k++) {
    const c = children[k]!
    if (zState[c] === State.Open) continue
    const re = z[2 * c]! + leadOhm[c]!
    if (zState[c] === State.Short && re === 0) return write(z, zState, p, 0, 0, State.Short)
    const im = z[2 * c + 1]!
    const inverse = 1 / (re * re + im * im)
    gRe += re * inverse
    gIm -= im * inverse
    state = State.Finite
  }
  const square = gRe * gRe + gIm * gIm
  write(z, zState, p, state === State.Finite ? gRe / square : 0, state === State.Finite ? -gIm / square : 0, state)
}

/** Reactance of a coil and a capacitor in series, Ω. Source: circuit text. */
function reactanceOf({ values }: Circuit, p: number, omega: number): number {
  const elastance = values[p * VALUES_PER_NODE + 3]!
  return omega * values[p * VALUES_PER_NODE + 2]! - (elastance === 0 ? 0 : elastance / omega)
}

/** Z / n² behind what stands in series. Source: the ideal transformer. */
function foldThrough({ circuit, z, zState }: Solver, p: number, omega: number): void {
  const c = circuit.children[circuit.childStart[p]!]!
  const ratio = circuit.values[p * VALUES_PER_NODE]!
  const seriesOhm = circuit.values[p * VALUES_PER_NODE + 1]!
  const reactance = reactanceOf(circuit, p, omega)
  // A capacitor lets no direct current through.
  if (ratio === 0 || zState[c] === State.Open || !Number.isFinite(reactance)) return write(z, zState, p, 0, 0, State.Open)
  if (zState[c] === State.Short) return write(z, zState, p, seriesOhm, reactance, State.Finite)
  const scale = 1 / (ratio * ratio)
  write(z, zState, p, z[2 * c]! * scale + seriesOhm, z[2 * c + 1]! * scale + reactance, State.Finite)
}

/**
 * Both walks: after it, `v` and `i` of the solver hold volts and amps of every node for `headV` at the head.
 * With the head open or short nothing flows that has a number, and all are zero. Where physics leaves a division open
 * (several opens in one series, several shorts across one place) it is taken as equal; no power is affected.
 */
export function solve(solver: Solver, frequencyHz: number, headV: number): Seen {
  const head = seenAtHead(solver, frequencyHz)
  const { circuit, flow } = solver
  const { kind, groups, leadOhm } = circuit
  const omega = 2 * Math.PI * frequencyHz
  if (head.state !== 'finite') {
    if (head.state === 'short') {
      flow.fill(0)
      return head
    }
    put(flow, 0, headV, 0, 0, 0)
  }
  else {
    const square = head.re * head.re + head.im * head.im
    flow[2] = headV * head.re / square
    flow[3] = -headV * head.im / square
    flow[0] = headV - flow[2]! * leadOhm[0]!
    flow[1] = -flow[3]! * leadOhm[0]!
  }
  for (let g = 0; g < groups.length; g++) {
    const p = groups[g]!
    if (kind[p] === Kind.Chain) feedChain(solver, p)
    else if (kind[p] === Kind.Star) feedStar(solver, p)
    else if (kind[p] === Kind.Series) feedSeries(solver, p)
    else feedThrough(solver, p, omega)
  }
  return head
}

function feedSeries({ circuit, z, zState, flow }: Solver, p: number): void {
  const { children, childStart } = circuit
  const from = childStart[p]!
  const to = childStart[p + 1]!
  let opens = 0
  for (let k = from; k < to; k++) if (zState[children[k]!] === State.Open) opens++
  for (let k = from; k < to; k++) {
    const c = children[k]!
    if (opens > 0) {
      // No current: the whole of the volts stands across what is open.
      const part = zState[c] === State.Open ? 1 / opens : 0
      put(flow, c, flow[4 * p]! * part, flow[4 * p + 1]! * part, 0, 0)
      continue
    }
    flow[4 * c + 2] = flow[4 * p + 2]!
    flow[4 * c + 3] = flow[4 * p + 3]!
    flow[4 * c] = flow[4 * p + 2]! * z[2 * c]! - flow[4 * p + 3]! * z[2 * c + 1]!
    flow[4 * c + 1] = flow[4 * p + 2]! * z[2 * c + 1]! + flow[4 * p + 3]! * z[2 * c]!
  }
}

function feedStar({ circuit, z, zState, flow }: Solver, p: number): void {
  const { children, childStart, leadOhm } = circuit
  const from = childStart[p]!
  const to = childStart[p + 1]!
  const isShort = (c: number) => zState[c] === State.Short && leadOhm[c] === 0
  let shorts = 0
  if (zState[p] === State.Short) for (let k = from; k < to; k++) if (isShort(children[k]!)) shorts++
  for (let k = from; k < to; k++) {
    const c = children[k]!
    if (isShort(c)) {
      put(flow, c, 0, 0, flow[4 * p + 2]! / shorts, flow[4 * p + 3]! / shorts)
      continue
    }
    if (zState[c] === State.Open) {
      put(flow, c, flow[4 * p]!, flow[4 * p + 1]!, 0, 0)
      continue
    }
    const re = z[2 * c]! + leadOhm[c]!
    const im = z[2 * c + 1]!
    const inverse = 1 / (re * re + im * im)
    const iRe = (flow[4 * p]! * re + flow[4 * p + 1]! * im) * inverse
    const iIm = (flow[4 * p + 1]! * re - flow[4 * p]! * im) * inverse
    put(flow, c, flow[4 * p]! - iRe * leadOhm[c]!, flow[4 * p + 1]! - iIm * leadOhm[c]!, iRe, iIm)
  }
}

function feedThrough({ circuit, flow }: Solver, p: number, omega: number): void {
  const c = circuit.children[circuit.childStart[p]!]!
  const ratio = circuit.values[p * VALUES_PER_NODE]!
  const seriesOhm = circuit.values[p * VALUES_PER_NODE + 1]!
  if (ratio === 0) return put(flow, c, 0, 0, 0, 0)
  const [iRe, iIm] = [flow[4 * p + 2]!, flow[4 * p + 3]!]
  const x = reactanceOf(circuit, p, omega)
  if (!Number.isFinite(x)) return put(flow, c, 0, 0, 0, 0)
  put(flow, c, ratio * (flow[4 * p]! - iRe * seriesOhm + iIm * x), ratio * (flow[4 * p + 1]! - iIm * seriesOhm - iRe * x), iRe / ratio, iIm / ratio)
}
