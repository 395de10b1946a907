import { isKnown, isSolidState, LINE_VOLTAGES, typedNext, type OutputRating } from '#core/amplifier/index'
import { InputError } from '#core/quantity/inputError'
import { misspelt } from './misspelt'
import { piecesOf } from './pieces'
import { plainText } from './plain'
import { readTree, type QuickCable, type QuickLeaf, type QuickNode, type QuickTree, type Stated, type TypedNode } from './tree'
import { QUICK } from './grammar'

export type { QuickLeaf, QuickNode } from './tree'

export interface QuickLine {
  text: string
  load: QuickNode
  rating: OutputRating
  /** The cable of the line; null where none is said. */
  over: QuickCable | null
  /** What could be typed on at the end, each as a person would type it. */
  next: string[]
}

/** Longer lines take longer than a person waits between two keys: 1,800 characters took 2.3 s, 600 a fifth of one. */
const LONGEST_TEXT = 600
export const MOST_SPEAKERS = 2000

/** Several equal speakers, and no word of how they are wired: `count` of `item` stand in the text from `at` to `end`. Every way can be answered. */
export class UndecidedError extends InputError {
  override name = 'UndecidedError'
  constructor(readonly line: Omit<QuickLine, 'load'>, readonly count: number, readonly item: string, readonly at: number, readonly end: number) {
    super(`${count} of them, but in series or in parallel?`, end, ['parallel', 'series'])
  }
}

/**
 * Reads one typed line, "(8 + 8) || (8 + 8) on 300 W at 4" or "12 x 5 W + 2 x 20 W on 70 V 120 W": the language is in grammar.ts.
 * `+` is in series, `||` in parallel and binds less; taps in watts are always in parallel. Spaces and case are free.
 * @throws InputError at the character that cannot stand there, with what could; MisspeltError with the line as it is meant; UndecidedError where only the
 * wiring is left open
 */
export function parseQuick(text: string): QuickLine {
  try {
    return readLine(text)
  }
  catch (error) {
    if (!(error instanceof InputError) || error instanceof UndecidedError) throw error
    throw misspelt(text, error, failsAt) ?? error
  }
}

/** Where a line cannot be read on; null where it is read, or asks only how it is wired. */
function failsAt(text: string): number | null {
  try {
    readLine(text)
    return null
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    return error instanceof UndecidedError ? null : error.position
  }
}

function readLine(text: string): QuickLine {
  if (text.length > LONGEST_TEXT) throw new InputError(`The line is longer than ${LONGEST_TEXT} characters.`, LONGEST_TEXT, [])
  const plain = plainText(text)
  const tree = readTree(matched(text, plain, 'Line'))
  const { load, parts, isSaid, ratedAt, over } = tree
  if (load === null) return alone(text, typedRating(tree, { taps: false, end: plain.trimEnd().length }))
  const count = countOf(load)
  if (count > MOST_SPEAKERS) throw new InputError(`${count} speakers: a typed line takes ${MOST_SPEAKERS} at most.`, 0, [])
  const taps = checkMix(load)
  // "8 100 W at 8" may be a slip of the space bar; after a unit or a bracket it is not.
  if (!isSaid && parts.length > 0 && /\d\s*$/.test(plain.slice(0, ratedAt))) throw new InputError(cannotStand(text, ratedAt), ratedAt, ['+', '||', 'on'])
  const isRated = parts.length > 0 || tree.valve !== null
  if (!isRated && taps) throw new InputError('Taps in watts need their line voltage.', plain.trimEnd().length, ['on 70 V', 'on 100 V', '+'])
  const rating = !isRated ? NOT_KNOWN : typedRating(tree, { taps, end: plain.trimEnd().length })
  const next = nextAfter(plain, rating)
  if (load.kind === 'undecided' && load.item.kind === 'ohm') throw new UndecidedError({ text, rating, over, next }, load.count, load.text, load.at, load.end)
  return { text, load: decided(load), rating, over, next }
}

/**
 * Reads what an output gives, as after `on` in a typed line: "300 W at 4, 180 W at 8, from 2" or "70 V 240 W". An empty text is "not known".
 * @throws InputError as parseQuick does
 */
export function parseRating(text: string): OutputRating {
  if (text.trim() === '') return NOT_KNOWN
  const plain = plainText(text)
  return typedRating(readTree(matched(text, plain, 'Alone')), { taps: false, end: plain.trimEnd().length })
}

const NOT_KNOWN: OutputRating = { kind: 'not-known' }

/** An amplifier and no speaker: "100 W into 8" is one on its rated load. */
function alone(text: string, rating: OutputRating): QuickLine {
  if (!isSolidState(rating) || rating.points.length !== 1) {
    throw new InputError('Only an amplifier stands here. What hangs on it comes before it.', 0, ['8', '4 x', '5 W'])
  }
  return { text, load: { kind: 'ohm', ohm: rating.points[0]!.loadOhm, continuousW: null, wattDb: null, coils: null, at: 0 }, rating, over: null, next: [] }
}

/** The text by the grammar. @throws InputError at the farthest character that was reached, with what could stand there */
function matched(text: string, plain: string, rule: 'Line' | 'Alone'): ReturnType<typeof QUICK.match> {
  const match = QUICK.match(plain, rule)
  if (match.succeeded()) return match
  let { position, expected } = failureOf(match)
  // A number that follows straight on a load wants a word before it, not a unit behind it.
  const follows = /(?<=[\d)\]])\s+(\d[\d.]*)\s*$/.exec(plain.slice(0, position))
  if (follows && expected.every(e => UNITS.includes(e))) {
    position = position - follows[0].trimStart().length
    expected = expectedAfter(plain.slice(0, position), rule)
  }
  // What was read of a word ends in the middle of it: the word is not one that is known.
  const begun = /\p{L}+$/u.exec(plain.slice(0, position))
  if (begun && /^\p{L}/u.test(plain.slice(position))) {
    position = begun.index
    expected = expectedAfter(plain.slice(0, position), rule)
  }
  // A whole line stands before it: what can go on there is known better than by the grammar alone.
  const before = rule === 'Line' ? QUICK.match(plain.slice(0, position), rule) : null
  if (before?.succeeded()) {
    const tree = readTree(before)
    expected = nextAfter(plain.slice(0, position), tree.parts.length === 0 && !tree.valve ? NOT_KNOWN : typedRating(tree, { taps: false, end: position }))
  }
  throw new InputError(cannotStand(text, position), position, expected)
}

const UNITS: readonly string[] = ['W', 'V', 'ohm', 'uF', 'mH', 'dB', 'AWG', 'mm²']
/** Can stand behind a load without a word before it, and is not offered so. */
const OF_OUTPUT: readonly string[] = ['300 W at 4', '70 V', 'from 2', 'valve 50 W at 4/8/16']

/** What a match that failed can be asked; the library's types leave the second out. */
interface Failed { getRightmostFailurePosition: () => number, getRightmostFailures: () => { getText: () => string }[] }

function failureOf(match: ReturnType<typeof QUICK.match>): { position: number, expected: string[] } {
  const failed = match as unknown as Failed
  const expected = failed.getRightmostFailures().flatMap(f => OFFERED[f.getText()] ?? [])
  return { position: failed.getRightmostFailurePosition(), expected: [...new Set(expected)] }
}

/** What could go on where a text ends. */
const expectedAfter = (plain: string, rule: 'Line' | 'Alone') => failureOf(QUICK.match(`${plain}\0`, rule)).expected

/** What a rule of the grammar is offered as; what is not here is read where it stands and not offered. */
const OFFERED: Readonly<Record<string, string>> = {
  'an impedance, as 8': 'an impedance, as 8', 'a tap, as 5 W': 'a tap, as 5 W', '4 x': '4 x', 'open bracket': '(', 'close bracket': ')', '+': '+', '||': '||', 'parallel': 'parallel',
  'series': 'series', 'on': 'on', 'at': 'at 4', '300 W at 4': '300 W at 4', '70 V': '70 V', 'from': 'from 2', 'bridged': 'bridged', 'valve': 'valve 50 W at 4/8/16', 'tap 8': 'tap 8', 'cap 100 uF': 'cap 100 uF', 'coil 2 mH': 'coil 2 mH', 'behind control 50 W': 'behind control 50 W', 'control 50 W': 'control 50 W', 'transformer 60 W': 'transformer 60 W', 'over 20 m of 16 AWG': 'over 20 m of 16 AWG', '16 AWG': 'AWG', 'mm²': 'mm²', 'uF': 'uF', 'dB': 'dB', 'mH': 'mH', 'dvc 4': 'dvc 4 series', 'W': 'W', 'V': 'V', 'ohm': 'ohm',
}

function nextAfter(plain: string, rating: OutputRating): string[] {
  return isKnown(rating) ? typedNext(rating) : expectedAfter(plain, 'Line').filter(e => !UNITS.includes(e) && !OF_OUTPUT.includes(e))
}

function cannotStand(text: string, position: number): string {
  if (text.trim() === '') return 'Nothing typed yet.'
  const piece = piecesOf(text.slice(position)).find(p => p.text.trim() !== '')?.text
  if (piece === undefined) return 'Something is still missing here.'
  return piece === '|' ? 'One | is half of ||.' : piece === '-' ? 'Nothing is taken away here.' : `“${piece}” cannot stand here.`
}

/** What an output gives, from what is stated of it. */
function typedRating(tree: QuickTree, where: { taps: boolean, end: number }): OutputRating {
  const { channels, mode, least, valve } = tree
  if (valve) return valveOf(valve, where.taps)
  if (channels && (channels.count < 1 || channels.count > 200)) throw new InputError(`${channels.count} is no number of channels.`, channels.at, ['2 x'])
  const rating = channelOf(tree.parts, where)
  if (least && mode?.is !== 'bridged') throw new InputError('A lowest load behind the channels is that of two bridged: is it?', least.at, ['bridged'])
  if (!mode) return rating
  if (!isSolidState(rating)) throw new InputError('Channels are joined that drive loads of ohms; a line has its own amplifier.', mode.at, ['2 x 300 W at 4 bridged'])
  if (channels?.count !== 2) {
    throw new InputError(
      channels ? 'Two channels are joined at a time.' : 'Is that the power of one channel, or of both together? Say it of one, with 2 x before it.', channels?.at ?? mode.at, ['2 x 300 W at 4 bridged'])
  }
  return { ...rating, mode: mode.is, bridgedFloorOhm: least?.ohm ?? null }
}

function valveOf({ powerW, taps, tap }: NonNullable<QuickTree['valve']>, isOfTaps: boolean): OutputRating {
  if (isOfTaps) throw new InputError('Taps in watts need a line voltage; a valve output has taps in ohms.', taps[0]!.at, ['70 V', '100 V'])
  const twice = taps.find((t, k) => taps.findIndex(other => other.ohm === t.ohm) < k)
  if (twice) throw new InputError(`The ${twice.ohm} Ω tap stands twice.`, twice.at, [])
  if (taps.length > 8) throw new InputError('More than eight taps.', taps[8]!.at, [])
  const tapsOhm = taps.map(t => t.ohm).sort((a, b) => a - b)
  if (tap && !tapsOhm.includes(tap.ohm)) throw new InputError(`There is no ${tap.ohm} Ω tap among ${tapsOhm.join('/')}.`, tap.at, tapsOhm.map(t => `tap ${t}`))
  return { kind: 'valve', powerW, tapsOhm, tapOhm: tap?.ohm ?? null, chosenBy: null }
}

/** What one channel gives. */
function channelOf(parts: readonly Stated[], { taps, end }: { taps: boolean, end: number }): OutputRating {
  const points: { loadOhm: number, powerW: number, at: number }[] = []
  let lineV: number | null = null
  let plain: Extract<Stated, { is: 'watt' }> | null = null
  let floor: { ohm: number, at: number } | null = null
  for (const part of parts) {
    if (part.is === 'from') {
      if (floor) throw new InputError('The lowest load is stated twice.', part.at, [])
      floor = part
    }
    else if (part.is === 'rated') {
      if (points.some(p => p.loadOhm === part.ohm)) throw new InputError(`The power at ${part.ohm} Ω is stated twice.`, part.ohmAt, [])
      points.push({ loadOhm: part.ohm, powerW: part.powerW, at: part.ohmAt })
    }
    else {
      if (part.is !== 'watt') {
        if (lineV !== null) throw new InputError('The line voltage is stated twice.', part.voltsAt, [])
        lineV = lineVoltage(part.volts)
      }
      if (part.is !== 'volt') {
        if (plain) throw new InputError('Two powers, and no load to tell them apart.', part.at, ['at 4', 'at 8'])
        plain = { ...part, is: 'watt' }
      }
    }
  }
  if (lineV !== null) {
    if (points[0]) throw new InputError('A line voltage or rated loads, not both.', points[0].at, ['70 V 120 W', '300 W at 4'])
    if (floor) throw new InputError('A constant-voltage output is rated by its voltage; it has no lowest load to state.', floor.at, [])
    return { kind: 'constant-voltage', lineV, powerW: plain?.powerW ?? null }
  }
  if (plain) {
    throw new InputError(
      taps ? 'Taps in watts need their line voltage.' : 'This power holds into which load, or at which line voltage?',
      plain.end, taps ? ['at 70 V', 'at 100 V'] : ['at 4', 'at 8', 'at 70 V'])
  }
  if (points.length === 0) throw new InputError('An amplifier needs a power.', end, ['300 W at 4', '70 V 120 W'])
  if (taps) throw new InputError('Taps in watts need a line voltage, not rated loads.', points[0]!.at, ['70 V', '100 V'])
  if (points.length > 8) throw new InputError('More than eight rated loads.', points[8]!.at, [])
  const lowestOhm = Math.min(...points.map(p => p.loadOhm))
  if (floor && floor.ohm > lowestOhm) {
    throw new InputError(`It is rated at ${lowestOhm} Ω, so its lowest load cannot be ${floor.ohm} Ω.`, floor.at, [`${lowestOhm}`])
  }
  return { kind: 'solid-state', points: points.map(({ loadOhm, powerW }) => ({ loadOhm, powerW })), floorOhm: floor?.ohm ?? null, mode: 'single', bridgedFloorOhm: null }
}

/** "70 V" is printed for 70.71; any other voltage is what it says: 25.9 V is not 25. */
function lineVoltage(volts: number): number {
  return LINE_VOLTAGES.find(v => volts === Math.floor(v.volts) || Math.abs(volts - v.volts) < 0.1)?.volts ?? volts
}

/** True when the line is of taps. Watts and ohms do not mix: on a line each takes its tap, elsewhere its share. */
function checkMix(load: TypedNode): boolean {
  const leaves = asSeen(load)
  const first = leaves[0]!
  const other = leaves.find(leaf => leaf.kind !== first.kind)
  if (other) throw new InputError('Taps in watts and impedances in ohms cannot stand in one line.', other.at, [first.kind === 'tap' ? '5 W' : '8'])
  return first.kind === 'tap'
}

/** What the line sees: behind a transformer of its own an impedance is a tap. */
function asSeen(node: TypedNode): Pick<QuickLeaf, 'kind' | 'at'>[] {
  if (node.kind === 'undecided') return asSeen(node.item)
  if (!('members' in node)) return [node]
  return node.part?.kind === 'transformer' ? [{ kind: 'tap', at: node.at }] : node.members.flatMap(asSeen)
}

/** The load, where every count says how it is wired. @throws InputError at the first that does not */
function decided(node: TypedNode): QuickNode {
  if (node.kind === 'undecided') throw new InputError(`${node.count} of them, but in series or in parallel?`, node.end, ['parallel', 'series'])
  return 'members' in node ? { ...node, members: node.members.map(decided) } : node
}

export function leavesOf(node: TypedNode): QuickLeaf[] {
  if (node.kind === 'undecided') return leavesOf(node.item)
  return 'members' in node ? node.members.flatMap(leavesOf) : [node]
}

/** Counted without unfolding: twelve brackets of 2000 x each would otherwise fill the memory. */
function countOf(node: TypedNode): number {
  if (node.kind === 'undecided') return node.count * countOf(node.item)
  if (!('members' in node)) return 1
  const counted = new Map<TypedNode, number>()
  return node.members.reduce((sum, member) => {
    if (!counted.has(member)) counted.set(member, countOf(member))
    return sum + counted.get(member)!
  }, 0)
}
