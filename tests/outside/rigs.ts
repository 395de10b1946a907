import { seeded, type Chance } from '#core/testing/trees'

/**
 * Simulated rigs with physics of their own: drops along a cable, solved here by the ladder from the end to the head in complex numbers, units of one model
 * off their label together and each by itself, faults put in, and readings taken as a person would, one at a time. Nothing here uses the program's network,
 * bands, likelihoods or changes; what a fault does is written here once more. How common kinds are is handed in.
 */

export type RigKind = 'taps' | 'labelled' | 'known'
interface Complex { re: number, im: number }
/** null: nothing flows. */
type Load = Complex | null

interface DropState {
  load: Load
  /** Ohms of the coil by itself; null open. */
  coilOhm: number | null
  /** What reaches the driver, of what arrives at its place. */
  part: number
  heard: Partial<Record<string, number>> | null
  isReversed: boolean
  tapW: number
  scaleV: number
}

/** `tapW`, `way`: of dials, the tap that it stands on, or whether it draws more or less than planned. */
export interface RigFault { kind: string, at: number | null, tapW?: number, way?: 'up' | 'down' }
export interface Rig {
  kind: RigKind
  count: number
  tapsW: number[]
  reachM: number
  /** Of each of the two conductors, Ω a metre. */
  conductorOhmPerM: number
  /** Labels: nominal ohms of a driver; what is known of it, where it is. */
  nominalOhm: number
  motional: { reOhm: number, leH: number, fsHz: number, qms: number, qes: number } | null
  /** What was put in: none, one, two, or one that no list has. */
  faults: RigFault[]
  outside: string | null
  impedance: () => number | 'open'
  outward: (k: number) => number | 'open'
  coil: (k: number) => number | 'open'
  sound: (k: number) => string
  /** By the meter, under it. */
  levelDb: (k: number) => number
  /** Nothing plays at all. */
  isSilent: boolean
  beside: (k: number, j: number) => 'louder' | 'alike' | 'quieter'
  dial: (k: number) => { tapW: number, ratedV: number }
  /** Which way round it shows itself with a signal on the line. */
  turned: (k: number) => 'right-way' | 'reversed' | 'cannot-tell'
  legIsLow: () => boolean
  /** What is seen at a place, or at the rack: a kind of fault, or nothing. */
  looked: (k: number | null) => string | null
  /** Whether what is wrong at a place goes with the unit, its transformer and its dial. */
  goesWithUnit: (k: number) => boolean
}

/** Of ten that look, how many see it: as a person who opens a box would say, not as the program does. */
const SEEN_BY: Partial<Record<string, number>> = {
  'open-at-drop': 7, 'short-at-drop': 6, 'high-resistance': 3, 'dirty-contact': 4, 'turned-round': 6, 'speaker-missing': 10, 'low-impedance-position': 9.5, 'winding-exchanged': 7,
  'short-at-tabs': 8, 'rubbing': 8, 'comes-and-goes': 3, 'break-in-reach': 4, 'joint-in-run': 3, 'pair-crossed': 4,
  'amplifier-dead': 9, 'amplifier-clipping': 3, 'amplifier-low': 7, 'amplifier-wrong-tap': 9, 'source-one-side': 4, 'another-cable': 7,
}
const UNIT = ['coil-open', 'coil-high', 'shorted-turns', 'short-at-tabs', 'rubbing', 'high-unit-gone', 'comes-and-goes', 'winding-open', 'winding-shorted', 'winding-exchanged',
  'low-impedance-position', 'wrong-tap']

export const LADDER_TAPS = [1.25, 2.5, 5, 10, 20]
export const LINE_V = 70.71
const OMEGA = 2 * Math.PI * 1000

const pick = <T>(chance: Chance, list: readonly T[]): T => list[Math.floor(chance() * list.length)]!
/** Roughly normal: twelve dice. */
const bell = (chance: Chance) => Array.from({ length: 12 }, chance).reduce((a, b) => a + b) - 6
const drawn = (chance: Chance, weights: Partial<Record<string, number>>): string => {
  let left = chance() * Object.values(weights).reduce<number>((a, b) => a + (b ?? 0), 0)
  for (const [name, weight] of Object.entries(weights)) if ((left -= weight ?? 0) < 0) return name
  return Object.keys(weights).at(-1)!
}
const times = (z: Load, factor: number): Load => z && { re: z.re * factor, im: z.im * factor }
const plus = (z: Complex, ohm: number): Complex => ({ re: z.re + ohm, im: z.im })
const size = (z: Complex) => Math.hypot(z.re, z.im)
function beside(a: Load, b: Load): Load {
  if (a === null || b === null) return a ?? b
  const [sa, sb] = [a.re ** 2 + a.im ** 2, b.re ** 2 + b.im ** 2]
  if (sa === 0 || sb === 0) return { re: 0, im: 0 }
  const [g, s] = [a.re / sa + b.re / sb, -a.im / sa - b.im / sb]
  return { re: g / (g * g + s * s), im: -s / (g * g + s * s) }
}

/** Kinds with what weight; those that this line cannot have are left out here. */
export type Weights = readonly (readonly [kind: string, weight: number])[]
const ANYWHERE = ['leak-across', 'leg-earth', 'another-cable', 'taps-on-other-scale', 'amplifier-dead', 'amplifier-clipping', 'amplifier-low', 'amplifier-wrong-tap', 'source-one-side']
const OF_TAPS = ['short-at-tabs', 'winding-open', 'winding-shorted', 'winding-exchanged', 'low-impedance-position', 'wrong-tap', 'taps-on-other-scale', 'amplifier-wrong-tap']
/** What such a line does not have: cabinets, coils by the pair, controls, other lines; each tap of this ladder is the next one's other scale. */
const NEVER = ['taps-one-off', 'wrong-scale', 'coil-opposed', 'one-driver-gone', 'wrong-jack', 'control-at-zero', 'control-turned-down', 'control-bypassed', 'control-overrated', 'lines-exchanged', 'drops-exchanged', 'something-else']
/** The last of them no meter sees. */
const OUTSIDE = ['three open', 'two in series', 'another line beside it', 'units of another batch', 'one of twice the ohms', 'a filter left on']
/**
 * On a line of so many or fewer, three open drops beside each other read and sound as a break does, or as a break and an open drop: nothing tells them apart,
 * and here they would be a hundred times as common as three faults by chance.
 */
const SHORT = 6
/** Cable that loses less than this part of the line is as good as any other. */
const LEAST_LOST = 0.02

/**
 * @param mix how many rigs in a hundred are healthy, have one fault, two; the rest have something that no list has
 * @param mended what was put right of what this seed has: the same units, lines and hands without it
 */
export function makeRig(seed: number, weights: Weights, mix: readonly [healthy: number, one: number, two: number] = [15, 60, 15],
  mended: readonly RigFault[] = []): Rig {
  const chance = seeded(seed)
  const kind = drawn(chance, { taps: 2, labelled: 1, known: 1 }) as RigKind
  const count = kind === 'taps' ? 2 + Math.floor(chance() ** 1.5 * 39) : 2 + Math.floor(chance() * 5)
  const nominalOhm = 8
  const usual = pick(chance, LADDER_TAPS.slice(1, 4))
  const isMixed = chance() < 0.3
  const tapsW = Array.from({ length: count }, () => kind !== 'taps' ? 0 : isMixed && chance() < 0.3 ? pick(chance, LADDER_TAPS.slice(1, 4)) : usual)
  const reachM = kind === 'taps' ? 3 + chance() * 12 : 2 + chance() * 6
  // 1.5 mm² class 5 (IEC 60228).
  const conductorOhmPerM = 13.3e-3

  // Units of a model lie to the same side: copper of 0.70 to 0.90 of the label; 0.1 to 0.8 mH behind transformers, to 1 mH by itself; each about it.
  const motional = kind === 'known' ? { reOhm: 5 + chance() * 2, leH: (0.1 + chance() * 0.9) * 1e-3, fsHz: 40 + chance() * 80, qms: 2 + chance() * 4, qes: 0.4 + chance() } : null
  const shared = kind === 'known' ? Math.exp(0.035 * bell(chance)) : 1
  const copper = motional ? motional.reOhm * shared : nominalOhm * (0.7 + 0.2 * chance())
  const henry = motional ? motional.leH * shared : (0.1 + (kind === 'taps' ? 0.7 : 0.9) * chance()) * 1e-3
  const unit = (): { z: Complex, coil: number } => {
    const own = Math.exp(0.05 * bell(chance))
    let z: Complex = { re: copper * own, im: OMEGA * henry * own }
    if (motional) {
      // Res / (1 + j·Qms·(f/fs − fs/f)), far above resonance (Small).
      const res = motional.reOhm * shared * motional.qms / motional.qes
      const x = motional.qms * (1000 / motional.fsHz - motional.fsHz / 1000)
      z = { re: z.re + res / (1 + x * x), im: z.im - res * x / (1 + x * x) }
    }
    return { z, coil: copper * own }
  }
  const transformer = () => kind === 'taps' ? Math.exp(0.03 * bell(chance)) : 1
  const tapOhm = (tapW: number) => LINE_V ** 2 / tapW / nominalOhm
  const drops = tapsW.map((tapW): DropState => {
    const { z, coil } = unit()
    return { load: times(z, (kind === 'taps' ? tapOhm(tapW) : 1) * transformer()), coilOhm: coil, part: 1, heard: null, isReversed: false, tapW, scaleV: LINE_V }
  })
  const planned = tapsW.map((tapW): Complex => kind === 'taps' ? { re: tapOhm(tapW) * nominalOhm, im: 0 } : { re: nominalOhm, im: 0 })
  const reachOhm = 2 * conductorOhmPerM * reachM * Math.exp(0.05 * bell(chance))
  const reaches = Array.from({ length: count }, () => reachOhm)
  const state = { cutBefore: Infinity, shortBefore: Infinity, leakOhm: null as number | null, leakAt: 0,
    lineHeard: null as Partial<Record<string, number>> | null,
    toEarth: false, beside: null as Load }
  const plan = ladder(planned, reaches.map(() => 2 * conductorOhmPerM * reachM), {})
  const plannedHead = plan.head!
  const lost = 1 - plannedHead.re * planned.reduce((sum, { re }, k) => sum + plan.volts[k]! ** 2 / re, 0)

  const possible = weights.filter(([k]) => !NEVER.includes(k) && (kind === 'taps' || !OF_TAPS.includes(k))
    && (k !== 'pair-crossed' || count > 2) && (k !== 'another-cable' || lost > LEAST_LOST))

  const jointTimes = () => 0.4 * 40 ** chance()
  const put = (name: string, at: number): RigFault => {
    const drop = drops[at]!
    switch (name) {
      case 'open-at-drop': case 'winding-open':
        drop.load = null
        if (name === 'open-at-drop' && chance() < 0.2) drop.coilOhm = null
        break
      case 'coil-open': case 'speaker-missing':
        drop.load = null
        drop.coilOhm = null
        break
      case 'high-resistance': case 'coil-high': {
        const by = jointTimes()
        if (drop.load) drop.load = plus(drop.load, size(planned[at]!) * by)
        drop.part = drop.load ? 1 - size(planned[at]!) * by / size(drop.load) : 1
        if (drop.coilOhm !== null && (name === 'coil-high' || chance() < 0.4)) drop.coilOhm *= 1.3 + by
        break
      }
      case 'short-at-drop': drop.load = { re: 0, im: 0 }; break
      case 'short-at-tabs':
        drop.load = times(drop.load, 0.08 + 0.08 * chance())
        drop.part = 0
        drop.coilOhm = 0.02
        break
      case 'shorted-turns': {
        const left = 0.3 + 0.5 * chance()
        drop.load = times(drop.load, left)
        if (drop.coilOhm !== null) drop.coilOhm *= left
        drop.heard = { plays: 0.3, scratchy: 0.35, quiet: 0.25, thin: 0.1 }
        break
      }
      case 'rubbing': drop.heard = { scratchy: 0.85, plays: 0.1, quiet: 0.05 }; break
      case 'high-unit-gone': drop.heard = { thin: 0.6, plays: 0.35, quiet: 0.05 }; break
      case 'comes-and-goes':
        drop.heard = { 'comes-and-goes': 0.5, 'silent': 0.15, 'plays': 0.2, 'scratchy': 0.1, 'quiet': 0.05 }
        if (chance() < 0.5 && drop.coilOhm !== null) drop.coilOhm = chance() < 0.5 ? null : drop.coilOhm * (1 + jointTimes())
        break
      case 'dirty-contact': drop.heard = { 'scratchy': 0.35, 'comes-and-goes': 0.35, 'plays': 0.15, 'quiet': 0.15 }; break
      case 'winding-shorted':
        drop.load = times(drop.load, 0.15 + 0.4 * chance())
        drop.heard = { quiet: 0.5, plays: 0.2, scratchy: 0.2, silent: 0.1 }
        break
      case 'winding-exchanged':
        drop.load = { re: 0.4 + 0.4 * chance() + nominalOhm ** 2 / size(planned[at]!), im: 0 }
        drop.part = 0
        break
      case 'low-impedance-position': {
        const { z } = unit()
        drop.load = z
        break
      }
      case 'wrong-tap': {
        const tapW = pick(chance, LADDER_TAPS.filter(w => w !== drop.tapW))
        drop.load = times(drop.load, drop.tapW / tapW)
        drop.tapW = tapW
        return { kind: name, at, tapW }
      }
      case 'break-in-reach': state.cutBefore = Math.min(state.cutBefore, at); break
      case 'joint-in-run': reaches[at]! += plannedHead ? size(plannedHead) * 0.12 * 60 ** chance() : 0; break
      case 'short-in-run': state.shortBefore = Math.min(state.shortBefore, at); break
      case 'pair-crossed':
        for (let k = at; k < count; k++) drops[k]!.isReversed = !drops[k]!.isReversed
        break
      case 'turned-round':
        drop.isReversed = !drop.isReversed
        drop.heard = { plays: 0.55, thin: 0.4, quiet: 0.05 }
        break
      case 'extra-speaker': {
        const { z } = unit()
        drop.load = beside(drop.load, times(z, (kind === 'taps' ? tapOhm(tapsW[at]!) : 1) * transformer()))
        drop.part = 0.5
        break
      }
      default: return putAnywhere(name)
    }
    return { kind: name, at }
  }
  const putAnywhere = (name: string): RigFault => {
    const all = (factor: (tapW: number) => number) => {
      for (const drop of drops) drop.load = times(drop.load, factor(drop.tapW))
    }
    switch (name) {
      case 'leak-across':
        state.leakOhm = size(plannedHead) * 0.25 * 60 ** chance()
        state.leakAt = Math.floor(chance() * count)
        return { kind: name, at: state.leakAt }
      case 'leg-earth':
        state.toEarth = true
        state.lineHeard = { hum: 0.65, plays: 0.35 }
        break
      case 'another-cable': {
        const by = chance() < 0.5 ? 2.6 + chance() * 1.2 : 0.35 + 0.1 * chance()
        reaches.forEach((_, k) => { reaches[k]! *= by })
        break
      }
      case 'taps-on-other-scale': {
        const up = chance() < 0.5
        all(() => up ? 0.5 : 2)
        for (const drop of drops) drop.scaleV = up ? LINE_V / Math.SQRT2 : LINE_V * Math.SQRT2
        return { kind: name, at: null, way: up ? 'up' : 'down' }
      }
      case 'amplifier-dead': state.lineHeard = { silent: 1 }; break
      case 'source-one-side': state.lineHeard = { silent: 0.8, quiet: 0.2 }; break
      case 'amplifier-clipping': state.lineHeard = { scratchy: 0.6, plays: 0.4 }; break
      case 'amplifier-low': state.lineHeard = { quiet: 0.7, plays: 0.3 }; break
      case 'amplifier-wrong-tap': state.lineHeard = { quiet: 0.5, plays: 0.4, scratchy: 0.1 }; break
      default: throw new Error(`no rig has ${name}`)
    }
    return { kind: name, at: null }
  }
  const putOne = (not: RigFault | null): RigFault => {
    for (;;) {
      const name = drawn(chance, Object.fromEntries(possible))
      const at = name === 'pair-crossed' ? 1 + Math.floor(chance() * (count - 2)) : Math.floor(chance() * count)
      if (not && (ANYWHERE.includes(name) ? not.at === null : not.at === at)) continue
      const before = structuredClone({ drops, reaches, state })
      const fault = put(name, at)
      if (!mended.some(m => m.kind === fault.kind && m.at === fault.at)) return fault
      Object.assign(state, before.state)
      reaches.splice(0, count, ...before.reaches)
      before.drops.forEach((drop, k) => Object.assign(drops[k]!, drop))
      return fault
    }
  }

  const faults: RigFault[] = []
  let outside: string | null = null
  const share = chance() * 100
  if (share >= mix[0] && share < mix[0] + mix[1] + mix[2]) faults.push(putOne(null))
  if (share >= mix[0] + mix[1] && share < mix[0] + mix[1] + mix[2]) faults.push(putOne(faults[0]!))
  const left = faults.filter(f => !mended.some(m => m.kind === f.kind && m.at === f.at))
  if (share >= mix[0] + mix[1] + mix[2]) {
    outside = pick(chance, count > SHORT ? OUTSIDE : OUTSIDE.slice(1))
    const at = Math.floor(chance() * (count - 1))
    if (outside === 'three open') for (const k of [0, 1, 2]) drops[(at + k * 1) % count]!.load = null
    if (outside === 'two in series' && drops[at]!.load && drops[at + 1]!.load) {
      drops[at]!.load = times(drops[at]!.load, 2)
      drops[at + 1]!.load = null
      drops[at]!.part = 0.5
    }
    if (outside === 'another line beside it') state.beside = times(plannedHead, 0.4 + 1.2 * chance())
    if (outside === 'units of another batch') for (const drop of drops) drop.load = times(drop.load, chance() < 0.5 ? 1.5 : 0.65)
    if (outside === 'one of twice the ohms') drops[at]!.load = times(drops[at]!.load, 2)
    if (outside === 'a filter left on') state.lineHeard = { thin: 0.7, plays: 0.3 }
  }

  const now = () => ladder(drops.map(d => d.load), reaches, state)
  const { head, volts } = now()
  const cut = head !== null && size(head) < size(plannedHead) * (0.33 + 0.14 * chance())
  const capacitance = (50 + 100 * chance()) * 1e-12
  const unfaulted = (k: number) => plan.volts[k]! ** 2 / planned[k]!.re
  const level = (k: number): number => {
    const { load, part } = drops[k]!
    if (load === null || size(load) === 0 || k >= state.cutBefore || k >= state.shortBefore || part <= 0) return -Infinity
    const power = (z: Complex, v: number) => v ** 2 * z.re / (z.re ** 2 + z.im ** 2)
    // A part in the way takes volts: what reaches the driver goes with their square. The plan is of these units, as they are.
    return 10 * Math.log10(power(load, volts[k]!) * (part < 1 ? part : 1) / unfaulted(k))
  }
  // What a model does to all alike is not heard as a fault.
  const usualDb = drops.filter(d => d.load !== null).length === 0 ? 0 : modelDb(drops, planned)
  const off = (k: number) => level(k) - usualDb

  // Cut out, dead, or with nothing that arrives.
  const isSilent = cut || (state.lineHeard?.silent ?? 0) > 0.5 || drops.every((_, k) => off(k) < -25)

  const meter = (ohm: number): number | 'open' => ohm > 60_000 ? 'open' : Math.max(0, Math.round((ohm * Math.exp(0.02 * bell(chance)) + 0.1 * bell(chance)) * 1000) / 1000)
  const shown = (z: Load, lengthM: number): number | 'open' => {
    if (z !== null) return meter(size(z))
    if (chance() < 0.6) return 'open'
    return meter(1 / (OMEGA * capacitance * Math.max(1, lengthM)))
  }
  return {
    kind, count, tapsW, reachM, conductorOhmPerM, nominalOhm, motional, faults: left, outside,
    impedance: () => shown(now().head, reachM * Math.min(count, state.cutBefore + 1)),
    outward: k => shown(ladder(drops.slice(k).map(d => d.load), reaches.slice(k).map((r, j) => j === 0 ? 0 : r), { cutBefore: state.cutBefore <= k
      ? Infinity
      : state.cutBefore - k, shortBefore: state.shortBefore <= k ? Infinity : state.shortBefore - k,
    leakOhm: k <= state.leakAt ? state.leakOhm : null, leakAt: state.leakAt - k }).head, reachM * (count - k)),
    coil: k => drops[k]!.coilOhm === null ? 'open' : meter(drops[k]!.coilOhm!),
    sound: (k) => {
      if (cut) return 'silent'
      if (off(k) < -25 + 5 * bell(chance)) return 'silent'
      if (off(k) < -5.5 + 1.5 * bell(chance) && chance() < 0.85) return 'quiet'
      const heard = state.lineHeard ?? drops[k]!.heard
      // A fault sounds as it sounds: to who listens again, too. What comes and goes does not.
      if (heard) {
        if (heard['comes-and-goes'] !== undefined) return drawn(chance, heard)
        return drawn(chance() < 0.85 ? seeded(1000 * seed + k) : chance, heard)
      }
      return chance() < 0.03 ? drawn(chance, { 'quiet': 3, 'thin': 2, 'scratchy': 2, 'hum': 2, 'comes-and-goes': 1, 'silent': 1 }) : 'plays'
    },
    isSilent,
    // What is lost along the cable is lost here, too. A room adds to some what it takes from others; where nothing plays its neighbours are read.
    levelDb: k => 120 + 10 * Math.log10(unfaulted(k)) + Math.max(-12 - 5 * chance(), off(k)) + 1.1 * bell(chance),
    beside: (k, j) => {
      if (isSilent) return 'alike'
      const [a, b] = [Math.max(-99, off(k)), Math.max(-99, off(j))]
      const difference = a - b + 0.9 * bell(chance)
      return difference > 2 ? 'louder' : difference < -2 ? 'quieter' : 'alike'
    },
    dial: k => chance() < 0.01 ? { tapW: pick(chance, LADDER_TAPS), ratedV: LINE_V } : { tapW: drops[k]!.tapW, ratedV: drops[k]!.scaleV },
    turned: k => isSilent || off(k) < -25 ? 'cannot-tell' : (chance() < 0.03) !== drops[k]!.isReversed ? 'reversed' : 'right-way',
    looked: (k) => {
      for (const f of left) if (f.at === k && chance() * 10 < (SEEN_BY[f.kind] ?? 0)) return f.kind
      return chance() < 0.01 ? k === null ? 'amplifier-low' : 'dirty-contact' : null
    },
    goesWithUnit: k => (chance() < 0.05) !== (left.length === 0 ? chance() < 0.5 : left.some(f => f.at === k && UNIT.includes(f.kind))),
    legIsLow: () => chance() < (state.toEarth ? 0.97 : 0.005),
  }
}

/** What units that are alike all do to the power at a place, dB: the middle of those that nothing was done to. */
function modelDb(drops: readonly DropState[], planned: readonly Complex[]): number {
  const offs = drops.flatMap(({ load }, k) => load && size(load) > 0
    ? [10 * Math.log10(load.re / (load.re ** 2 + load.im ** 2) * planned[k]!.re)]
    : []).sort((a, b) => a - b)
  return offs[offs.length >> 1] ?? 0
}

interface Cuts { cutBefore?: number, shortBefore?: number, leakOhm?: number | null, leakAt?: number, beside?: Load }
/** A ladder end to head: Z = r + drop ∥ beyond. Open is null. */
function ladder(drops: readonly Load[], reaches: readonly number[], { cutBefore = Infinity, shortBefore = Infinity, leakOhm = null, leakAt = 0,
  beside: other = null }: Cuts): { head: Load, volts: number[] } {
  const beyond: Load[] = []
  for (let k = drops.length - 1; k >= 0; k--) {
    const next = k >= cutBefore ? null : beyond[k + 1] ?? null
    const leak: Load = leakOhm !== null && k === leakAt ? { re: leakOhm, im: 0 } : null
    const here = k >= cutBefore ? null : beside(beside(drops[k]!, leak), next)
    if (k === shortBefore) beyond[k] = { re: reaches[k]! / 2, im: 0 }
    else beyond[k] = here && plus(here, reaches[k]!)
  }
  const volts: number[] = []
  let v = 1
  drops.forEach((_, k) => {
    const into = beyond[k] ?? null
    const behind = into === null || k >= shortBefore ? null : plus(into, -reaches[k]!)
    v = behind === null || into === null ? 0 : v * size(behind) / Math.max(size(into), 1e-12)
    volts.push(v)
  })
  return { head: beside(beyond[0] ?? null, other), volts }
}
