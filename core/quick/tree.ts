import type { MatchResult, Node } from 'ohm-js'
import type { ChannelMode } from '#core/amplifier/rating'
import { readCable, type Cable } from '#core/quantity/cable'
import { InputError } from '#core/quantity/inputError'
import { QUICK, SPELLED } from './grammar'

/** One speaker of a typed line. `at` is the character it begins at. */
export type QuickLeaf
  /**
   * `wattDb`: level at one metre for one watt; null where it is not said. `coils`: a driver of two coils, `ohm` being what they come to
   * together; null for a plain one.
   */
  = { kind: 'ohm', ohm: number, continuousW: number | null, wattDb: number | null, coils: { eachOhm: number, joined: 'series' | 'parallel' } | null, at: number }
    | { kind: 'tap', tapW: number, at: number }

/** A part in the way of what hangs behind it; nulls are not said. */
export type QuickPart
  = | { kind: 'capacitor', capacitanceF: number }
    | { kind: 'inductor', inductanceH: number }
    | { kind: 'control', ratingW: number | null, setDb: number | 'off' | null }
    | { kind: 'transformer', tapW: number }

/** Cable of a line: so much for each speaker or group along it, or in all, in equal lengths. */
export interface QuickCable { lengthM: number, cable: Cable, isEach: boolean }

/** What stands in a typed line, every count wired. */
export type QuickNode = QuickLeaf | { kind: 'series' | 'parallel', members: QuickNode[], part?: QuickPart, at: number }

/** The same as it was typed: `undecided` are so many of an item, written as `text`, from `at` to `end`, and no word of how they are wired. */
export type TypedNode
  = | QuickLeaf
    | { kind: 'series' | 'parallel', members: TypedNode[], part?: QuickPart, at: number }
    | { kind: 'undecided', count: number, item: TypedNode, text: string, at: number, end: number }

/** One thing that is stated of an output. */
export type Stated
  = | { is: 'from', ohm: number, at: number }
    | { is: 'rated', powerW: number, ohm: number, at: number, ohmAt: number }
    | { is: 'watt', powerW: number, at: number, end: number }
    | { is: 'volt', volts: number, at: number, voltsAt: number }
    | { is: 'wattAtVolt', powerW: number, volts: number, at: number, end: number, voltsAt: number }

interface Least { ohm: number, at: number }

/** A line as the grammar has it: what hangs there (null: only an amplifier stands there), and what is stated of the output. */
export interface QuickTree {
  load: TypedNode | null
  parts: Stated[]
  /** Channels named before the ratings, and how they are joined; a valve output with its taps. Nulls where nothing is said. */
  channels: { count: number, at: number } | null
  mode: { is: ChannelMode, at: number } | null
  /** The lowest load of two bridged. */
  least: Least | null
  valve: { powerW: number | null, taps: { ohm: number, at: number }[], tap: { ohm: number, at: number } | null } | null
  /** Whether a word such as `on` leads to the output; where what is stated of it begins. */
  isSaid: boolean
  ratedAt: number
  over: QuickCable | null
}

const OHM = { least: 0.1, most: 20_000, unit: 'Ω' }
const WATT = { least: 0.01, most: 50_000, unit: 'W' }
const VOLT = { least: 10, most: 250, unit: 'V' }
const MOST_COUNT = 2000

/** @throws InputError at a number beyond what is taken, and at what cannot be joined so */
export function readTree(match: MatchResult): QuickTree {
  return TREE(match).tree() as QuickTree
}

const from = (node: Node) => node.source.startIdx
const to = (node: Node) => node.source.endIdx
/** The trimmed end: a rule may have taken the space behind it. */
const tight = (node: Node) => from(node) + node.sourceString.trimEnd().length

/** "2k2" is 2200 and "4r7" 4.7: the letter stands where the point would; "2.2k" is 2200 as well. */
function valueOf(text: string): number {
  const [, whole, letter, part] = /^(\d+)([kr])(\d+)$/.exec(text) ?? []
  if (whole !== undefined) return Number(`${whole}.${part}`) * (letter === 'k' ? 1000 : 1)
  return text.endsWith('k') ? Number(text.slice(0, -1)) * 1000 : Number(text)
}

function within(value: number, { least, most, unit }: typeof OHM, at: number): number {
  const rounded = Number(value.toPrecision(12))
  if (rounded >= least && rounded <= most) return rounded
  throw new InputError(`${rounded} ${unit} cannot be: ${least} to ${most} ${unit} is taken here.`, at, [])
}

const wattOf = (number: Node, unit: Node) => within(valueOf(number.sourceString.trim()) * ({ kw: 1000, mw: 0.001 }[unit.sourceString] ?? 1), WATT, from(number))
const ohmOf = (number: Node, unit?: Node) => within(valueOf(number.sourceString.trim()) * (unit?.sourceString.trim().startsWith('k') ? 1000 : 1), OHM, from(number))
const voltOf = (number: Node) => within(valueOf(number.sourceString.trim()), VOLT, from(number))

/** So many of one item: wired as `how` says; taps are always in parallel; without a word it is left open. */
function counted(count: number, countNode: Node, item: Node, how: Node): TypedNode {
  const at = Math.min(from(countNode), from(item))
  if (!Number.isInteger(count) || count < 1 || count > MOST_COUNT) {
    throw new InputError(`“${countNode.sourceString.trim()}” is no number of speakers: 1 to ${MOST_COUNT}.`, from(countNode), ['2', '4', '12'])
  }
  const node: TypedNode = item.tree()
  const said = how.sourceString.includes('ser') ? 'series' : how.sourceString === '' ? null : 'parallel'
  const members = () => Array.from({ length: count }, () => node)
  if (isTaps(node)) {
    if (said === 'series') throw new InputError('Taps on a line are always in parallel.', from(how), ['+', 'on 70 V'])
    return { kind: 'parallel', members: members(), at }
  }
  if (count === 1) return node
  return said === null ? { kind: 'undecided', count, item: node, text: item.sourceString.trim(), at, end: Math.max(tight(countNode), tight(item)) } : { kind: said, members: members(), at }
}

function isTaps(node: TypedNode): boolean {
  if (node.kind === 'undecided') return isTaps(node.item)
  return 'members' in node ? isTaps(node.members[0]!) : node.kind === 'tap'
}

const TREE = QUICK.createSemantics().addOperation<unknown>('tree', {
  Line_wired(load, over, on, more, _end) {
    const [first, second] = [over.children[0], more.children[0]]
    if (first && second) throw new InputError('The cable is said twice.', from(second), [])
    return { load: load.tree(), ...UNRATED, isSaid: true, ratedAt: to(load), ...on.children[0]?.tree(), over: (first ?? second)?.tree() ?? null }
  },
  Line_rated: (rating, _end) => ({ load: null, ...rating.tree(), isSaid: true, ratedAt: 0, over: null }),
  Alone: (_noise, rating, _end) => ({ load: null, ...rating.tree(), isSaid: true, ratedAt: 0, over: null }),

  Wired(load, behind) {
    const [part] = behind.children
    return part ? behindPart(load.tree(), part.tree(), from(part)) : load.tree()
  },
  Behind_control: (_behind, _noise, _control, number, unit, down): QuickPart =>
    ({ kind: 'control', ratingW: number.children[0] ? wattOf(number.children[0], unit.children[0]!) : null, setDb: down.children[0]?.tree() ?? null }),
  Behind_transformer: (_behind, _noise, _transformer, number, unit): QuickPart => ({ kind: 'transformer', tapW: wattOf(number, unit) }),
  Down_by: (_down, number, _unit) => within(valueOf(number.sourceString.trim()), DOWN, from(number)),
  Down_off: _off => 'off',
  Over: (_comma, _over, number, unit, _of, cable, each): QuickCable => ({
    lengthM: within(valueOf(number.sourceString.trim()) * (unit.sourceString.startsWith('f') ? FOOT_M : 1), METRES, from(number)), cable: cable.tree(), isEach: each.sourceString !== '',
  }),
  Cable_gauge: (_awg, digits) => sized(`${digits.sourceString} AWG`, from(digits)),
  Cable_gauged: (digits, _awg) => sized(`${digits.sourceString} AWG`, from(digits)),
  Cable_area: (number, _unit) => sized(`${number.sourceString.trim()} mm²`, from(number)),

  Load: (first, _signs, more) => joined('parallel', [first, ...more.children]),
  Strings(first, joints, more) {
    const node = joined('series', [first, ...more.children])
    // A comma or "and" lists taps, which are all in parallel; of impedances it does not say how they are joined.
    const open = joints.children.find(joint => !/^(\+|in|ser)/.test(joint.sourceString))
    if (open && !isTaps(node)) throw new InputError(`“${open.sourceString.trim()}”: in series or in parallel?`, from(open), ['+', '||'])
    return node
  },
  Term_counted: (count, _x, item, how) => counted(Number(count.sourceString.trim()), count, item, how),
  Term_inWords: (count, item, how) => counted(SPELLED[count.sourceString.replace(/\s*(x|×|\*|times)?\s*$/, '')]!, count, item, how),
  Term_bare: (count, _hyphen, item, how) => counted(Number(count.sourceString.trim()), count, item, how),
  Term_behind: (item, _x, count, how) => counted(Number(count.sourceString.trim()), count, item, how),
  Item_behindPart: (core, part) => behindPart(core.tree(), part.tree(), from(part)),
  Part_capacitor: (_word, number, unit): QuickPart => ({ kind: 'capacitor', capacitanceF: partOf(number, unit, FARAD) }),
  Part_inductor: (_word, number, unit): QuickPart => ({ kind: 'inductor', inductanceH: partOf(number, unit, HENRY) }),
  Dual(_word, number, unit, rated, how) {
    const [eachOhm, joined] = [ohmOf(number, unit.children[0]), how.sourceString.includes('ser') ? 'series' as const : 'parallel' as const]
    return { kind: 'ohm', ohm: joined === 'series' ? 2 * eachOhm : eachOhm / 2, continuousW: rated.children[0]?.tree() ?? null, wattDb: null, coils: { eachOhm, joined }, at: from(this) }
  },
  Marked_bracket: (_open, wired, _close) => wired.tree(),
  Tap: (number, unit, _things) => ({ kind: 'tap', tapW: wattOf(number, unit), at: from(number) }),
  Ohmed_rated: (number, _hyphen, unit, _things, _comma, rated, loud) => ({ kind: 'ohm', ohm: ohmOf(number, unit), continuousW: rated.tree(), wattDb: loudOf(loud), coils: null, at: from(number) }),
  Ohmed_plain: (number, _hyphen, unit, _things, loud) => ({ kind: 'ohm', ohm: ohmOf(number, unit), continuousW: null, wattDb: loudOf(loud), coils: null, at: from(number) }),
  Rated: (number, unit, _each, _things) => wattOf(number, unit),
  Loud: (_comma, number, _unit) => within(valueOf(number.sourceString.trim()), SENSITIVITY, from(number)),
  Plain: (number, _things) => ({ kind: 'ohm', ohm: ohmOf(number), continuousW: null, wattDb: null, coils: null, at: from(number) }),

  On_said: (_on, _noise, rating) => ({ ...rating.tree(), isSaid: true, ratedAt: from(rating) }),
  On_unsaid: (comma, _noise, rating) => ({ ...rating.tree(), isSaid: comma.sourceString !== '', ratedAt: from(rating) }),
  Rating_channels: (count, _x, said, mode, least) => ({
    ...UNRATED, parts: said.tree(), channels: { count: Number(count.sourceString.trim()), at: from(count) }, mode: mode.children[0]
      ? modeAt(mode.children[0])
      : null, least: least.children[0]?.tree() ?? null,
  }),
  Least: (_comma, _from, number, unit): Least => ({ ohm: ohmOf(number, unit), at: from(number) }),
  Rating_plain: (said, mode) => ({ ...UNRATED, parts: said.tree(), mode: mode.children[0] ? modeAt(mode.children[0]) : null }),
  Said: (first, _commas, more) => [first, ...more.children].map(part => part.tree()),
  Valve: (_valve, _amp, power, unit, _amps, _at, first, _slashes, more, _ohm, _comma, _tap, tap, tapUnit) => ({
    ...UNRATED,
    valve: {
      powerW: power.children[0] ? wattOf(power.children[0], unit.children[0]!) : null,
      taps: [first, ...more.children].map(ohm => ({ ohm: ohmOf(ohm), at: from(ohm) })),
      tap: tap.children[0] ? { ohm: ohmOf(tap.children[0], tapUnit.children[0]?.children[0]), at: from(tap.children[0]) } : null,
    },
  }),
  Stated_from: (_from, number, unit): Stated => ({ is: 'from', ohm: ohmOf(number, unit), at: from(number) }),
  Stated_stableAt: (_stable, _at, number, unit): Stated => ({ is: 'from', ohm: ohmOf(number, unit), at: from(number) }),
  Stated_stable: (number, _hyphen, unit, _stable, _amps): Stated => ({ is: 'from', ohm: ohmOf(number, unit), at: from(number) }),
  Stated_wattAtVolt: (number, unit, _amp, _at, volts, v, _amps): Stated =>
    ({ is: 'wattAtVolt', powerW: wattOf(number, unit), volts: voltOf(volts), at: from(number), end: to(v), voltsAt: from(volts) }),
  Stated_rated: (number, unit, _amp, _at, ohm, ohms, _amps): Stated => ({ is: 'rated', powerW: wattOf(number, unit), ohm: ohmOf(ohm, ohms), at: from(number), ohmAt: from(ohm) }),
  Stated_rated2: (number, unit, _amp, ohm, ohms, _amps): Stated => ({ is: 'rated', powerW: wattOf(number, unit), ohm: ohmOf(ohm, ohms), at: from(number), ohmAt: from(ohm) }),
  Stated_volt: (volts, _v, _amps): Stated => ({ is: 'volt', volts: voltOf(volts), at: from(volts), voltsAt: from(volts) }),
  Stated_watt: (number, unit, _amps): Stated => ({ is: 'watt', powerW: wattOf(number, unit), at: from(number), end: to(unit) }),
})

const DOWN = { least: 0, most: 60, unit: 'dB' }
const METRES = { least: 0, most: 10_000, unit: 'm' }
const FOOT_M = 0.3048
/** @throws InputError for a size that is not made */
function sized(text: string, at: number): Cable {
  try {
    return readCable(text)
  }
  catch (error) {
    if (error instanceof InputError) throw new InputError(error.message, at, error.expected)
    throw error
  }
}
const SENSITIVITY = { least: 40, most: 130, unit: 'dB' }
const loudOf = (loud: Node): number | null => loud.children[0]?.tree() ?? null

const UNRATED = { parts: [], channels: null, mode: null, least: null, valve: null }
const modeAt = (node: Node) => ({ is: node.sourceString.includes('bridge') ? 'bridged' as const : 'parallel' as const, at: from(node) })

const FARAD = { least: 1e-9, most: 1, unit: 'F', of: { n: 1e-9, u: 1e-6, m: 1e-6 } }
const HENRY = { least: 1e-7, most: 1, unit: 'H', of: { n: 1e-9, u: 1e-6, m: 1e-3 } }
/** A capacitance or an inductance; “mfd” is an old way to write microfarads. */
function partOf(number: Node, unit: Node, { of, ...bounds }: typeof FARAD): number {
  const letter = unit.sourceString.trim()[0]!.replace(/[µμ]/, 'u') as keyof typeof of
  return within(valueOf(number.sourceString.trim()) * of[letter], bounds, from(number))
}

/** What is behind a part. @throws InputError for what already is, and for taps behind what stands before ohms */
function behindPart(node: TypedNode, part: QuickPart, at: number): TypedNode {
  if (part.kind === 'control' && hasPart(node, 'control')) throw new InputError('A control behind a control is a mistake: one of them.', at, [])
  if (part.kind === 'transformer' && (isTaps(node) || hasPart(node, 'transformer'))) throw new InputError('A line transformer stands before speakers of ohms; a tap has its own.', at, ['8'])
  if (part.kind !== 'control' && part.kind !== 'transformer' && isTaps(node)) throw new InputError('A capacitor or a coil stands before speakers of ohms, not before a tap.', at, ['8'])
  return { kind: 'parallel', members: [node], part, at: 'at' in node ? node.at : at }
}

function hasPart(node: TypedNode, kind: QuickPart['kind']): boolean {
  if (node.kind === 'undecided') return hasPart(node.item, kind)
  return 'members' in node && (node.part?.kind === kind || node.members.some(member => hasPart(member, kind)))
}

function joined(kind: 'series' | 'parallel', members: Node[]): TypedNode {
  const nodes = members.map(m => m.tree())
  return nodes.length === 1 ? nodes[0]! : { kind, members: nodes, at: from(members[0]!) }
}
