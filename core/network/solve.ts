import { Kind, VALUES_PER_NODE, type Circuit } from './compile'

export const enum State { Finite, Open, Short }

/** Impedance seen into a pair of terminals. Open and short are states, not numbers. */
export type Seen = { state: 'finite', re: number, im: number, ohm: number } | { state: 'open' } | { state: 'short' }

/**
 * The working arrays of one circuit, made once and used for every frequency.
 * z: a node alone. b: with its lead. rest: at a chain's child, all that lies beyond it.
 * v: volts across a node. i: amps through it. Complex, peak or rms as the head is given.
 */
export interface Solver {
  circuit: Circuit
  zRe: Float64Array
  zIm: Float64Array
  zState: Uint8Array
  bRe: Float64Array
  bIm: Float64Array
  bState: Uint8Array
  restRe: Float64Array
  restIm: Float64Array
  restState: Uint8Array
  vRe: Float64Array
  vIm: Float64Array
  iRe: Float64Array
  iIm: Float64Array
}

export function makeSolver(circuit: Circuit): Solver {
  const n = circuit.count
  const f = () => new Float64Array(n)
  const u = () => new Uint8Array(n)
  return {
    circuit, zRe: f(), zIm: f(), zState: u(), bRe: f(), bIm: f(), bState: u(),
    restRe: f(), restIm: f(), restState: u(), vRe: f(), vIm: f(), iRe: f(), iIm: f(),
  }
}

/**
 * One walk from the ends to the head: the impedance of every node and branch at one frequency, and the head's.
 * Series adds impedances, star adds admittances, a chain is folded as a ladder, Z_k = R_k + (Zdrop_k ∥ Z_{k+1}).
 * Source: Kirchhoff; Small, JAES 1972, for the motional speaker. O(nodes), no matrix.
 */
export function seenAtHead(solver: Solver, frequencyHz: number): Seen {
  const { circuit, zRe, zIm, zState, bRe, bIm, bState, restRe, restIm, restState } = solver
  const { kind, parent, leadOhm, values, count } = circuit
  const omega = 2 * Math.PI * frequencyHz

  for (let i = 0; i < count; i++) {
    // Until its children fold into it, a series is a plain joint and the parallel kinds are open.
    zRe[i] = 0
    zIm[i] = 0
    zState[i] = kind[i] === Kind.Series ? State.Short : State.Open
  }
  // Backwards, so that every child is done before its parent and the last child of a chain before the one ahead of it.
  for (let i = count - 1; i >= 0; i--) {
    const k = kind[i]!
    if (k === Kind.Resistor) {
      zRe[i] = values[i * VALUES_PER_NODE]!
      zState[i] = zRe[i] === 0 ? State.Short : State.Finite
    }
    else if (k === Kind.Motional) {
      const at = i * VALUES_PER_NODE
      const fs = values[at + 2]!
      const x = values[at + 3]! * (frequencyHz / fs - fs / frequencyHz)
      const res = values[at + 4]! / (1 + x * x)
      zRe[i] = values[at]! + res
      zIm[i] = omega * values[at + 1]! - res * x
      zState[i] = State.Finite
    }
    else if (k === Kind.Short) {
      zState[i] = State.Short
    }

    const p = parent[i]!
    const parentKind = p < 0 ? Kind.Series : kind[p]!
    if (parentKind === Kind.Chain) {
      // The parent's z holds what lies beyond this drop; keep it for the walk back, then fold drop and lead in.
      restRe[i] = zRe[p]!
      restIm[i] = zIm[p]!
      restState[i] = zState[p]!
      foldParallel(solver, p, zRe[i]!, zIm[i]!, zState[i]!)
      if (zState[p] !== State.Open && leadOhm[i]! > 0) {
        zRe[p]! += leadOhm[i]!
        zState[p] = State.Finite
      }
      continue
    }
    bRe[i] = zRe[i]!
    bIm[i] = zIm[i]!
    bState[i] = zState[i]!
    if (bState[i] !== State.Open && leadOhm[i]! > 0) {
      bRe[i]! += leadOhm[i]!
      bState[i] = State.Finite
    }
    if (p < 0) continue
    if (parentKind === Kind.Star) foldParallel(solver, p, bRe[i]!, bIm[i]!, bState[i]!)
    else if (bState[i] === State.Open) zState[p] = State.Open
    else if (zState[p] !== State.Open && bState[i] === State.Finite) {
      zRe[p]! += bRe[i]!
      zIm[p]! += bIm[i]!
      zState[p] = State.Finite
    }
  }
  return seen(bRe[0]!, bIm[0]!, bState[0]!)
}

/** z of node p becomes z ∥ (re + j·im). */
function foldParallel(solver: Solver, p: number, re: number, im: number, state: number): void {
  const { zRe, zIm, zState } = solver
  if (state === State.Open || zState[p] === State.Short) return
  if (state === State.Short) {
    zRe[p] = 0
    zIm[p] = 0
    zState[p] = State.Short
    return
  }
  if (zState[p] === State.Open) {
    zRe[p] = re
    zIm[p] = im
    zState[p] = State.Finite
    return
  }
  const aRe = zRe[p]!
  const aIm = zIm[p]!
  const sRe = aRe + re
  const sIm = aIm + im
  const square = sRe * sRe + sIm * sIm
  const nRe = aRe * re - aIm * im
  const nIm = aRe * im + aIm * re
  zRe[p] = (nRe * sRe + nIm * sIm) / square
  zIm[p] = (nIm * sRe - nRe * sIm) / square
}

function seen(re: number, im: number, state: number): Seen {
  if (state === State.Open) return { state: 'open' }
  if (state === State.Short) return { state: 'short' }
  return { state: 'finite', re, im, ohm: Math.hypot(re, im) }
}

/**
 * Both walks: after it, `v` and `i` of the solver hold volts and amps of every node for `headV` at the head.
 * With the head open or short nothing flows that has a number, and all are zero. Where physics leaves a division open
 * (several opens in one series, several shorts across one place) it is taken as equal; no power is affected.
 */
export function solve(solver: Solver, frequencyHz: number, headV: number): Seen {
  const head = seenAtHead(solver, frequencyHz)
  const { circuit, zRe, zIm, zState, bRe, bIm, bState, restRe, restIm, restState, vRe, vIm, iRe, iIm } = solver
  const { kind, end, leadOhm, count } = circuit
  vRe.fill(0)
  vIm.fill(0)
  iRe.fill(0)
  iIm.fill(0)
  if (head.state === 'short') return head
  if (head.state === 'open') vRe[0] = headV
  else {
    const square = head.re * head.re + head.im * head.im
    iRe[0] = headV * head.re / square
    iIm[0] = -headV * head.im / square
    vRe[0] = headV - iRe[0]! * leadOhm[0]!
    vIm[0] = -iIm[0]! * leadOhm[0]!
  }

  for (let p = 0; p < count; p++) {
    const k = kind[p]!
    if (k < Kind.Series) continue
    if (k === Kind.Series) {
      let opens = 0
      if (zState[p] === State.Open) for (let c = p + 1; c < end[p]!; c = end[c]!) if (bState[c] === State.Open) opens++
      for (let c = p + 1; c < end[p]!; c = end[c]!) {
        iRe[c] = iRe[p]!
        iIm[c] = iIm[p]!
        if (opens > 0) {
          if (bState[c] === State.Open) {
            vRe[c] = vRe[p]! / opens
            vIm[c] = vIm[p]! / opens
          }
          continue
        }
        vRe[c] = iRe[p]! * zRe[c]! - iIm[p]! * zIm[c]!
        vIm[c] = iRe[p]! * zIm[c]! + iIm[p]! * zRe[c]!
      }
    }
    else if (k === Kind.Star) {
      let shorts = 0
      if (zState[p] === State.Short) for (let c = p + 1; c < end[p]!; c = end[c]!) if (bState[c] === State.Short) shorts++
      for (let c = p + 1; c < end[p]!; c = end[c]!) {
        if (bState[c] === State.Short) {
          iRe[c] = iRe[p]! / shorts
          iIm[c] = iIm[p]! / shorts
        }
        else if (bState[c] === State.Finite) divide(iRe, iIm, c, vRe[p]!, vIm[p]!, bRe[c]!, bIm[c]!)
        vRe[c] = vRe[p]! - iRe[c]! * leadOhm[c]!
        vIm[c] = vIm[p]! - iIm[c]! * leadOhm[c]!
      }
    }
    else {
      let atRe = vRe[p]!
      let atIm = vIm[p]!
      let onRe = iRe[p]!
      let onIm = iIm[p]!
      for (let c = p + 1; c < end[p]!; c = end[c]!) {
        atRe -= onRe * leadOhm[c]!
        atIm -= onIm * leadOhm[c]!
        const beyond = restState[c]
        if (zState[c] === State.Short) {
          const part = beyond === State.Short ? 0.5 : 1
          atRe = 0
          atIm = 0
          iRe[c] = onRe * part
          iIm[c] = onIm * part
          onRe -= iRe[c]!
          onIm -= iIm[c]!
        }
        else {
          if (zState[c] === State.Finite) divide(iRe, iIm, c, atRe, atIm, zRe[c]!, zIm[c]!)
          if (beyond === State.Finite) {
            const square = restRe[c]! ** 2 + restIm[c]! ** 2
            onRe = (atRe * restRe[c]! + atIm * restIm[c]!) / square
            onIm = (atIm * restRe[c]! - atRe * restIm[c]!) / square
          }
          else if (beyond === State.Open) {
            onRe = 0
            onIm = 0
          }
        }
        vRe[c] = atRe
        vIm[c] = atIm
      }
    }
  }
  return head
}

/** into[c] = (aRe + j·aIm) / (bRe + j·bIm) */
function divide(intoRe: Float64Array, intoIm: Float64Array, c: number, aRe: number, aIm: number, bRe: number, bIm: number): void {
  const square = bRe * bRe + bIm * bIm
  intoRe[c] = (aRe * bRe + aIm * bIm) / square
  intoIm[c] = (aIm * bRe - aRe * bIm) / square
}
