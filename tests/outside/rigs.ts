import { seeded, type Chance } from '#core/testing/trees'

/**
 * Simulated rigs with physics of their own: lines of parallel drops along a cable, solved here by the ladder from the end to the
 * head in plain numbers, every unit off its plan by chance, a fault put in, readings taken as a person would. Nothing here
 * uses the program's network, bands or catalogue.
 */

export interface Rig {
  /** Ohms of each drop as planned, and what one length of cable adds. */
  plannedOhm: number[]
  reachOhm: number
  kind: 'taps' | 'plain'
  /** What was done to it; "none", or one that a list of single faults cannot name. */
  fault: string
  at: number
  /** Impedance at the head as the meter shows it; null open, 0 short. */
  headOhm: number | null
  /** Each drop as it was heard; null where nobody listened. */
  heard: ('plays' | 'silent' | null)[]
  /** Coil readings, Ω; null open; undefined where not read. */
  coils: (number | null | undefined)[]
}

const LADDER_TAPS = [2.5, 5, 10, 20, 30]
export const LINE_V = 70.71
const pick = <T>(chance: Chance, list: readonly T[]): T => list[Math.floor(chance() * list.length)]!
/** Roughly normal: twelve dice. */
const bell = (chance: Chance) => Array.from({ length: 12 }, chance).reduce((a, b) => a + b) - 6

/** Faults with how often each is put in: the catalogue's own order of magnitude, and some that it does not have. */
const TAP_FAULTS: [string, number][] = [['none', 24], ['open', 10], ['break', 6], ['short', 4], ['wrong tap', 8], ['joint', 2], ['other scale', 4], ['one off', 3], ['through', 3], ['turns', 2], ['extra', 4], ['two open', 2], ['leak', 2]]
const PLAIN_FAULTS: [string, number][] = TAP_FAULTS.filter(([f]) => !['wrong tap', 'other scale', 'one off', 'through'].includes(f))

export function makeRig(seed: number): Rig & { taps: number[] } {
  const chance = seeded(seed)
  const kind = chance() < 0.7 ? 'taps' : 'plain'
  const count = kind === 'taps' ? 4 + Math.floor(chance() * 17) : 2 + Math.floor(chance() * 5)
  const taps = Array.from({ length: count }, () => 0)
  const usual = pick(chance, LADDER_TAPS.slice(1, 4))
  const mixed = chance() < 0.4
  const plannedOhm = taps.map((_, k) => {
    if (kind === 'plain') return 8
    taps[k] = mixed && chance() < 0.3 ? pick(chance, LADDER_TAPS.slice(1, 4)) : usual
    return LINE_V ** 2 / taps[k]!
  })
  const reachOhm = kind === 'taps' ? 0.1 + chance() * 0.15 : 0.02
  const faults = kind === 'taps' ? TAP_FAULTS : PLAIN_FAULTS
  let draw = chance() * faults.reduce((sum, [, weight]) => sum + weight, 0)
  const fault = faults.find(([, weight]) => (draw -= weight) < 0)![0]
  const at = Math.floor(chance() * count)

  // Units of a model lie to the same side: copper of 0.70 to 0.90 of the label, 0.1 to 0.8 mH, read at 1 kHz; each about it by a
  // twentieth, transformers by another.
  const copper = 8 * (0.7 + 0.2 * chance())
  const model = Math.hypot(copper, 2 * Math.PI * 1000 * (0.1 + 0.7 * chance()) * 1e-3) / 8
  const off = () => model * Math.exp(0.025 * bell(chance)) * (kind === 'taps' ? Math.exp(0.025 * bell(chance)) : 1)
  let ohms: (number | null)[] = plannedOhm.map(ohm => ohm * off())
  let coil = plannedOhm.map(() => copper * Math.exp(0.025 * bell(chance)) as number | null)
  let cutAfter = Infinity
  let others = 1
  switch (fault) {
    case 'open':
      ohms[at] = null
      if (chance() < 0.5) coil[at] = null
      break
    case 'two open':
      ohms[at] = null
      ohms[(at + 1) % count] = null
      break
    case 'break': cutAfter = at; break
    case 'short': ohms[at] = 0; break
    case 'wrong tap': {
      const tap = pick(chance, LADDER_TAPS.filter(w => w !== taps[at]))
      ohms[at] = ohms[at]! * taps[at]! / tap
      break
    }
    case 'joint': {
      const times = 2 + chance() * 5
      ohms[at] = ohms[at]! * (1 + times)
      if (chance() < 0.6) coil[at] = coil[at]! * (1 + times)
      break
    }
    case 'other scale': others = chance() < 0.5 ? 2 : 0.5; break
    case 'one off': {
      const up = chance() < 0.5
      ohms = ohms.map((ohm, k) => ohm! * taps[k]! / (LADDER_TAPS[LADDER_TAPS.indexOf(taps[k]!) + (up ? 1 : -1)] ?? taps[k]!))
      break
    }
    case 'through': ohms[at] = 8 * Math.exp(0.1 * bell(chance)); break
    case 'turns': {
      ohms[at] = ohms[at]! * (0.35 + chance() * 0.3)
      if (chance() < 0.7) coil[at] = coil[at]! * (0.35 + chance() * 0.3)
      break
    }
    case 'extra': ohms[at] = 1 / (1 / ohms[at]! + 1 / (plannedOhm[at]! * off())); break
    // Water in a box: something across the line that nobody drew.
    case 'leak': ohms[at] = 1 / (1 / ohms[at]! + 1 / (plannedOhm[at]! * (0.3 + chance() * 2))); break
  }
  ohms = ohms.map(ohm => ohm === null ? null : ohm * others)

  const { head, volts } = ladder(ohms, reachOhm, cutAfter)
  const planned = ladder(plannedOhm, reachOhm, Infinity)
  const cut = head !== null && head < planned.head! * (0.36 + 0.06 * chance())
  const level = (k: number) => {
    const ohm = ohms[k]
    if (ohm === null || ohm === undefined || ohm === 0 || k >= cutAfter) return -Infinity
    const own = fault === 'joint' && k === at ? plannedOhm[k]! / ohm : 1
    return 10 * Math.log10((volts[k]! ** 2 / ohm * own) / (planned.volts[k]! ** 2 / plannedOhm[k]!))
  }
  const listens = chance() < 0.6
  const heardOf = (k: number): 'plays' | 'silent' => cut || level(k) < -25 + 3 * bell(chance) ? 'silent' : 'plays'
  const heard = plannedOhm.map((_, k) => listens && chance() < 0.7 ? heardOf(k) : null)
  const reads = chance() < 0.3
  if (fault === 'two open' && chance() < 0.5) coil = coil.map((c, k) => k === at ? null : c)
  const coils = plannedOhm.map((_, k) => reads && (chance() < 0.2 || (heard[k] === 'silent' && chance() < 0.5)) ? coil[k]! : undefined)
  return { plannedOhm, reachOhm, kind, fault, at, taps, headOhm: head === null ? null : head * Math.exp(0.015 * bell(chance)), heard, coils }
}

/** A ladder end to head: Z = r + drop ∥ beyond. Open is null. */
function ladder(ohms: (number | null)[], reach: number, cutAfter: number): { head: number | null, volts: number[] } {
  const beyond: (number | null)[] = []
  for (let k = ohms.length - 1; k >= 0; k--) {
    const next = beyond[k + 1] ?? null
    const drop = ohms[k] ?? null
    const both = k >= cutAfter ? null : drop === null ? next : next === null ? drop : drop === 0 || next === 0 ? 0 : 1 / (1 / drop + 1 / next)
    beyond[k] = both === null ? null : reach + both
  }
  const volts: number[] = []
  let here = 1
  ohms.forEach((_, k) => {
    const into = beyond[k] ?? null
    here = into === null ? 0 : here * (into - reach) / into
    volts.push(here)
  })
  return { head: beyond[0] ?? null, volts }
}
