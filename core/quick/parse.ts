import type { OutputRating, RatedPoint } from '#core/amplifier/index'
import { LINE_VOLTAGES } from '#core/amplifier/index'
import { InputError } from '#core/quantity/inputError'
import { tokensOf, type Token } from './token'

/** What stands in a typed line. `at` is the character it begins at. */
export type QuickNode
  = | { kind: 'ohm', ohm: number, continuousW: number | null, at: number }
    | { kind: 'tap', tapW: number, at: number }
    | { kind: 'series' | 'parallel', members: QuickNode[], at: number }

export interface QuickLine {
  text: string
  load: QuickNode
  rating: OutputRating
  /** What could be typed on at the end, each as a person would type it. */
  next: string[]
}

const LONGEST_TEXT = 2000
export const MOST_SPEAKERS = 2000
const DEEPEST = 50
const OHM = { least: 0.1, most: 20_000 }
const WATT = { least: 0.01, most: 50_000 }
const VOLT = { least: 10, most: 250 }

/**
 * Reads one typed line, "(8 + 8) || (8 + 8) on 300 W at 4" or "12 x 5 W + 2 x 20 W on 70 V 120 W".
 * `+` is in series, `||` in parallel and binds less; taps in watts are always in parallel. Spaces and case are free.
 * @throws InputError at the character that cannot stand there, with what could
 */
export function parseQuick(text: string): QuickLine {
  if (text.length > LONGEST_TEXT) throw new InputError(`The line is longer than ${LONGEST_TEXT} characters.`, LONGEST_TEXT, [])
  return new Parser(text).line()
}

/**
 * Reads what an output gives, as after `on` in a typed line: "300 W at 4, 180 W at 8, from 2" or "70 V 240 W". An empty text is "not known".
 * @throws InputError as parseQuick does
 */
export function parseRating(text: string): OutputRating {
  return text.trim() === '' ? { kind: 'not-known' } : new Parser(text).amplifier(false)
}

class Parser {
  private readonly tokens: Token[]
  private index = 0
  private depth = 0
  /** What has been looked for at the present token. */
  private expected = new Set<string>()

  constructor(private readonly text: string) {
    this.tokens = tokensOf(text)
  }

  line(): QuickLine {
    const load = this.parallel()
    const count = countOf(load)
    if (count > MOST_SPEAKERS) throw new InputError(`${count} speakers: a typed line takes ${MOST_SPEAKERS} at most.`, 0, [])
    const taps = this.checkMix(load)
    let rating: OutputRating = { kind: 'not-known' }
    if (this.take('on')) rating = this.amplifier(taps)
    else if (taps && this.token.kind === 'end') this.fail('Taps in watts need their line voltage.', ['on 70 V', 'on 100 V', '+'])
    if (this.token.kind !== 'end') this.fail()
    return { text: this.text, load, rating, next: [...this.expected] }
  }

  private parallel(): QuickNode {
    const { at } = this.token
    const members = [this.series()]
    while (this.take('||') || this.takeHow('parallel')) members.push(this.series())
    return members.length === 1 ? members[0]! : { kind: 'parallel', members, at }
  }

  private series(): QuickNode {
    const { at } = this.token
    const members = [this.term()]
    while (this.take('+') || this.takeHow('series')) members.push(this.term())
    return members.length === 1 ? members[0]! : { kind: 'series', members, at }
  }

  private term(): QuickNode {
    const { at } = this.token
    if (this.token.kind === 'number' && this.tokens[this.index + 1]!.text === 'x') {
      const count = this.number('a count')
      if (!Number.isInteger(count) || count < 1 || count > MOST_SPEAKERS) {
        throw new InputError(`“${this.text.slice(at, this.tokens[this.index - 1]!.end)}” is no number of speakers: 1 to ${MOST_SPEAKERS}.`, at, ['2', '4', '12'])
      }
      this.take('x')
      const item = this.item()
      const members = Array.from({ length: count }, () => item)
      if (isTaps(item)) {
        if (this.is('series')) this.fail('Taps on a line are always in parallel.', ['+', 'on 70 V'])
        this.takeHow('parallel')
        return { kind: 'parallel', members, at }
      }
      const kind = this.takeHow('parallel') ? 'parallel' : this.takeHow('series') ? 'series' : null
      if (kind === null) {
        if (count > 1) this.fail(`${count} of them, but in series or in parallel?`)
        return item
      }
      return count === 1 ? item : { kind, members, at }
    }
    return this.item()
  }

  private item(): QuickNode {
    const { at } = this.token
    if (this.take('(')) {
      if (++this.depth > DEEPEST) throw new InputError(`More than ${DEEPEST} brackets inside each other.`, at, [])
      const inner = this.parallel()
      if (!this.take(')')) this.fail()
      this.depth--
      return inner
    }
    const value = this.number('an impedance, as 8', 'a tap, as 5 W', '4 x')
    if (this.takeWatt()) return { kind: 'tap', tapW: this.within(value * this.kilo(), WATT, 'W', at), at }
    const ohm = this.within(value, OHM, 'Ω', at)
    if (!this.take('ohm')) return { kind: 'ohm', ohm, continuousW: null, at }
    // "8 ohm 100 W": the rating of the speaker. Only after a written unit, so that "8 100 W" is not read so by accident.
    const rating = this.token
    const unit = this.tokens[this.index + 1]
    if (rating.kind === 'number' && (unit?.text === 'W' || unit?.text === 'kW')) {
      const watt = this.number()
      this.takeWatt()
      return { kind: 'ohm', ohm, continuousW: this.within(watt * this.kilo(), WATT, 'W', rating.at), at }
    }
    return { kind: 'ohm', ohm, continuousW: null, at }
  }

  amplifier(taps: boolean): OutputRating {
    const points: (RatedPoint & { at: number })[] = []
    let lineV: number | null = null
    let plainW: number | null = null
    let plainEnd = 0
    let floor: { ohm: number, at: number } | null = null
    do {
      const { at } = this.token
      if (this.take('from')) {
        if (floor) throw new InputError('The lowest load is stated twice.', at, [])
        const from = this.token.at
        floor = { ohm: this.within(this.number('an impedance, as 2'), OHM, 'Ω', from), at: from }
        this.take('ohm')
        continue
      }
      const value = this.number('70 V', '300 W at 4', 'from 2')
      if (this.take('V')) {
        if (lineV !== null) throw new InputError('The line voltage is stated twice.', at, [])
        lineV = lineVoltage(this.within(value, VOLT, 'V', at))
        continue
      }
      if (!this.takeWatt()) this.fail()
      const powerW = this.within(value * this.kilo(), WATT, 'W', at)
      if (!this.take('at')) {
        if (plainW !== null) throw new InputError('Two powers, and no load to tell them apart.', at, ['at 4', 'at 8'])
        plainW = powerW
        plainEnd = this.tokens[this.index - 1]!.end
        continue
      }
      const loadAt = this.token.at
      const load = this.number('an impedance, as 4', '70 V')
      // "at 4 V" is no line voltage: there the V is what cannot stand.
      if (load >= VOLT.least && this.take('V')) {
        if (lineV !== null) throw new InputError('The line voltage is stated twice.', loadAt, [])
        lineV = lineVoltage(this.within(load, VOLT, 'V', loadAt))
        plainW = powerW
        continue
      }
      this.take('ohm')
      const loadOhm = this.within(load, OHM, 'Ω', loadAt)
      if (points.some(p => p.loadOhm === loadOhm)) throw new InputError(`The power at ${loadOhm} Ω is stated twice.`, loadAt, [])
      points.push({ loadOhm, powerW, at: loadAt })
    } while (this.more(lineV, plainW, points.length))

    if (this.token.kind !== 'end') this.fail()
    if (lineV !== null) {
      if (points[0]) throw new InputError('A line voltage or rated loads, not both.', points[0].at, ['70 V 120 W', '300 W at 4'])
      if (floor) throw new InputError('A constant-voltage output is rated by its voltage; it has no lowest load to state.', floor.at, [])
      return { kind: 'constant-voltage', lineV, powerW: plainW }
    }
    if (plainW !== null) {
      throw new InputError(
        taps ? 'Taps in watts need their line voltage.' : 'This power holds into which load, or at which line voltage?',
        plainEnd, taps ? ['at 70 V', 'at 100 V'] : ['at 4', 'at 8', 'at 70 V'])
    }
    if (points.length === 0) this.fail('An amplifier needs a power.', ['300 W at 4', '70 V 120 W'])
    if (taps) throw new InputError('Taps in watts need a line voltage, not rated loads.', points[0]!.at, ['70 V', '100 V'])
    if (points.length > 8) throw new InputError('More than eight rated loads.', points[8]!.at, [])
    const lowestOhm = Math.min(...points.map(p => p.loadOhm))
    if (floor && floor.ohm > lowestOhm) {
      throw new InputError(`It is rated at ${lowestOhm} Ω, so its lowest load cannot be ${floor.ohm} Ω.`, floor.at, [`${lowestOhm}`])
    }
    return { kind: 'solid-state', points: points.map(({ loadOhm, powerW }) => ({ loadOhm, powerW })), floorOhm: floor?.ohm ?? null }
  }

  /** Is there another part of the rating? Also notes what it could be. */
  private more(lineV: number | null, plainW: number | null, points: number): boolean {
    if (lineV !== null && plainW !== null) return false
    if (lineV !== null) this.expected.add('120 W')
    if (points > 0) this.expected.add(', 180 W at 8').add(', from 2')
    return (this.is(',') && this.take(',')) || this.token.kind === 'number' || this.is('from')
  }

  /** True when the line is of taps. Watts and ohms do not mix: on a line each takes its tap, elsewhere its share. */
  private checkMix(load: QuickNode): boolean {
    const leaves = leavesOf(load)
    const first = leaves[0]!
    const other = leaves.find(leaf => leaf.kind !== first.kind)
    if (other) throw new InputError('Taps in watts and impedances in ohms cannot stand in one line.', other.at, [first.kind === 'tap' ? '5 W' : '8'])
    return first.kind === 'tap'
  }

  private get token(): Token {
    return this.tokens[this.index]!
  }

  private is(text: string): boolean {
    return this.token.text === text && (this.token.kind === 'word' || this.token.kind === 'symbol')
  }

  private advance(): void {
    this.index++
    this.expected = new Set()
  }

  private take(text: string): boolean {
    this.expected.add(text)
    if (!this.is(text)) return false
    this.advance()
    return true
  }

  private takeWatt(): boolean {
    return this.take('W') || (this.is('kW') && (this.advance(), true))
  }

  private kilo(): number {
    return this.tokens[this.index - 1]!.text === 'kW' ? 1000 : 1
  }

  /** "parallel", "in parallel". */
  private takeHow(how: 'parallel' | 'series'): boolean {
    if (this.is('in') && this.tokens[this.index + 1]!.text === how) this.index++
    return this.take(how)
  }

  private number(...wanted: string[]): number {
    for (const text of wanted) this.expected.add(text)
    if (wanted.length > 0 && this.token.kind !== 'number') {
      if (wanted.includes('4 x')) this.expected.add('(')
      this.fail()
    }
    const { value } = this.token
    this.advance()
    return value
  }

  private within(value: number, { least, most }: { least: number, most: number }, unit: string, at: number): number {
    if (value >= least && value <= most) return value
    throw new InputError(`${value} ${unit} cannot be: ${least} to ${most} ${unit} is taken here.`, at, [])
  }

  private fail(message?: string, expected: string[] = [...this.expected]): never {
    const { kind, at, end } = this.token
    const said = this.text.slice(at, end)
    const said2 = said === '|' ? 'One | is half of ||.' : said === '-' ? 'Nothing is taken away here.' : null
    throw new InputError(message ?? said2 ?? (kind === 'end' ? (this.text.trim() === '' ? 'Nothing typed yet.' : 'Something is still missing here.') : `“${said}” cannot stand here.`), at, expected)
  }
}

/** "70 V" is printed for 70.71; other voltages are what they say. */
function lineVoltage(volts: number): number {
  return LINE_VOLTAGES.find(v => Math.floor(v.volts) === Math.floor(volts))?.volts ?? volts
}

export function leavesOf(node: QuickNode): Exclude<QuickNode, { members: QuickNode[] }>[] {
  return 'members' in node ? node.members.flatMap(leavesOf) : [node]
}

/** Counted without unfolding: twelve brackets of 2000 x each would otherwise fill the memory. */
function countOf(node: QuickNode): number {
  if (!('members' in node)) return 1
  const counted = new Map<QuickNode, number>()
  return node.members.reduce((sum, member) => {
    if (!counted.has(member)) counted.set(member, countOf(member))
    return sum + counted.get(member)!
  }, 0)
}

function isTaps(node: QuickNode): boolean {
  return 'members' in node ? isTaps(node.members[0]!) : node.kind === 'tap'
}
