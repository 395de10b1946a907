import { USUAL_LINE_V } from '#core/amplifier/index'
import { readCable, writeCable, type Cable } from '#core/quantity/cable'
import { InputError } from '#core/quantity/inputError'
import { NUMBER, numberOf } from '#core/quantity/number'
import type { AmplifierModel } from './amplifier'
import type { CableModel } from './cable'
import type { Way } from './harness'
import { SOURCE_KINDS, type InputGroup } from './inputs'
import { readConductor, writeConductor } from './conductor'
import type { CellKind, Unit } from './field'
import type { Column } from './models'
import type { SpeakerModel } from './speaker'

/**
 * One field of a model as the text of one cell, and back. What is written reads back as the same value; what people write is read
 * with its unit, or with the one that the column's head names.
 */

/** Spellings of units, and what one of them is in the column's own. */
const SPELLINGS: Record<Unit, readonly (readonly [RegExp, number])[]> = {
  'Ω': [[/^(Ω|\u2126|ohms?|r)$/i, 1], [/^k(Ω|\u2126|ohms?)?$/i, 1000]],
  'W': [[/^(w|watts?)$/i, 1], [/^kw$/i, 1000], [/^mw$/, 0.001]],
  'V': [[/^(v|volts?)$/i, 1], [/^mv$/, 0.001]],
  'dB': [[/^dbu?(\s*spl)?$/i, 1]],
  '°': [[/^(°|deg(rees?)?)$/i, 1]],
  'Hz': [[/^hz$/i, 1], [/^k(hz)?$/i, 1000]],
  'H': [[/^h$/i, 1], [/^mh$/i, 0.001]],
  'mm': [[/^mm$/i, 1], [/^cm$/i, 10], [/^m$/i, 1000], [/^(in|inch(es)?|"|″)$/i, 25.4]], // exact, international inch [P: NIST SP 811]
  'kg': [[/^kg$/i, 1], [/^g$/i, 0.001], [/^(lbs?|pounds?)$/i, 0.45359237]], // exact, international pound [P: NIST SP 811]
}

const EXACT = new RegExp(`^(${NUMBER}(?:e[+-]?\\d+)?)\\s*(.*)$`, 'i')
const bad = (text: string, what: string, ...examples: string[]): never => { throw new InputError(`“${text}” is not ${what}.`, 0, examples) }

/** The unit that a head names, as "weight (lb)" or "depth in": its spelling; '' where it names none of the column's. */
export function unitInHead(head: string, unit: Unit | ''): string {
  if (unit === '') return ''
  const words = head.split(/[\s()[\],_/]+/).filter(Boolean)
  return words.find((word, k) => (k > 0 || words.length === 1) && SPELLINGS[unit].some(([spelling]) => spelling.test(word))) ?? ''
}

function factorOf(spelled: string, unit: Unit | ''): number | null {
  if (spelled === '') return 1
  return unit === '' ? null : SPELLINGS[unit].find(([spelling]) => spelling.test(spelled))?.[1] ?? null
}

/** Factors of ten and the like leave 0.30000000000000004: fifteen figures are what was meant. */
const tidy = (value: number) => Number(value.toPrecision(15))

export function readNumber(text: string, unit: Unit | '', headUnit = ''): number {
  const [, digits, spelled] = EXACT.exec(text) ?? bad(text, unit === '' ? 'a number' : `a number of ${unit}`)
  const own = spelled!.trim()
  const factor = factorOf(own === '' ? headUnit : own, unit)
  if (factor === null) throw new InputError(`“${own}” is no unit of ${unit === '' ? 'this column, which has none' : unit}.`, digits!.length, unit === '' ? [] : [unit])
  const value = /e/i.test(digits!) ? Number(digits!.replace(',', '.')) : numberOf(digits!)
  return factor === 1 ? value : tidy(value * factor)
}

const separated = (text: string): string[] => (/,\S*,/.test(text) && !/\s/.test(text) ? text.split(',') : text.split(/[;\s]+|,\s+/)).filter(part => part !== '')
const numbersOf = (text: string): number[] => separated(text.replace(/\s*(W|V|dB|Ω)\b/g, '')).map(part => readNumber(part, ''))

type SmallSignal = NonNullable<SpeakerModel['smallSignal']>
const SMALL_SIGNAL = [['Re', 'reOhm'], ['Le', 'leH'], ['fs', 'fsHz'], ['Qms', 'qms'], ['Qes', 'qes']] as const
const writeSmall = (small: SmallSignal) => SMALL_SIGNAL.map(([name, key]) => `${name} ${small[key]}`).join(' ')
function readSmall(text: string): SmallSignal {
  const found = new Map([...text.matchAll(/([A-Za-z]+)\s*=?\s*([\d.,e-]+)/g)].map(([, name, value]) => [name!.toLowerCase(), readNumber(value!, '')]))
  const missing = SMALL_SIGNAL.filter(([name]) => !found.has(name.toLowerCase())).map(([name]) => name)
  if (missing.length > 0) throw new InputError(`Of the small-signal parameters ${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} missing.`, 0, ['Re 5.6 Le 0.0005 fs 45 Qms 4.2 Qes 0.48'])
  return Object.fromEntries(SMALL_SIGNAL.map(([name, key]) => [key, found.get(name.toLowerCase())!])) as SmallSignal
}

type Members = NonNullable<SpeakerModel['members']>
type Member = Members['members'][number]
function writeMember(member: Member): string {
  if (member.kind === 'nominal') return String(member.nominalOhm)
  const { kind: _, nominalOhm, ...small } = member
  return `${nominalOhm} (${writeSmall(small)})`
}
function readMember(text: string): Member {
  const [, ohms, small] = /^([^(]+)(?:\((.*)\))?$/.exec(text.trim()) ?? bad(text, 'a coil', '4 + 4')
  const nominalOhm = readNumber(ohms!.trim(), 'Ω')
  return small ? { kind: 'motional', nominalOhm, ...readSmall(small) } : { kind: 'nominal', nominalOhm }
}
const writeMembers = ({ joined, members }: Members) => members.map(writeMember).join(joined === 'series' ? ' + ' : ' || ')
function readMembers(text: string): Members {
  const joined = text.includes('||') || text.includes('∥') ? 'parallel' : 'series'
  const members = text.split(joined === 'parallel' ? /\|\||∥/ : /\+(?=[^)]*(?:\(|$))/).map(readMember)
  return { kind: 'members', joined, members }
}

type Curve = NonNullable<SpeakerModel['curve']>
const writeCurve = (points: Curve) => points.map(([hz, ohm, deg]) => deg === null ? `${hz} ${ohm}` : `${hz} ${ohm} ${deg}`).join('; ')
const readCurvePoint = (text: string): Curve[number] => {
  // A phase alone may lie under nothing.
  const [first, second, phase, more] = separated(text)
  if (second === undefined || more !== undefined) return bad(text, 'a point of a curve', '20 6.8 -12.5')
  const sign = phase !== undefined && /^[-−]/.test(phase) ? -1 : 1
  return [readNumber(first!, ''), readNumber(second, ''), phase === undefined ? null : sign * readNumber(phase.replace(/^[-−+]/, ''), '')]
}

type Position = NonNullable<SpeakerModel['positions']>[number]
const writePosition = ({ jack, switchTo, plays, load }: Position) => `${jack}${switchTo === '' ? '' : ` [${switchTo}]`} ${plays} = ${load.kind === 'members' ? writeMembers(load) : writeMember(load)}`
function readPosition(text: string): Position {
  const [, jack, switchTo, plays, load] = /^([^[=]*?)\s*(?:\[([^\]]*)\]\s*)?\b(all|half)\s*=\s*(.+)$/i.exec(text) ?? bad(text, 'a jack with what it leads to', '16 Ω [mono] all = 16')
  return { jack: jack!, switchTo: switchTo ?? '', plays: plays!.toLowerCase() as Position['plays'], load: /\|\||∥|\+(?![^(]*\))/.test(load!) ? readMembers(load!) : readMember(load!) }
}

type Scale = SpeakerModel['scales'][number]
const writeScale = ({ lineV, tapsW }: Scale) => `${lineV} V: ${tapsW.join(' ')}`
function readScale(text: string): Scale {
  const [, volts, taps] = /^([\d.,]+)\s*V?\s*[:=]\s*(.+)$/i.exec(text.trim()) ?? bad(text, 'a dial with its taps', '70.71 V: 5 10 20')
  return { lineV: readNumber(volts!, ''), tapsW: numbersOf(taps!) }
}

/** The volts of a line that a head names, as "Taps 70V (W)"; null where it names none. A line of 70 V is one of 70.71 V. */
export function voltsInHead(head: string): number | null {
  const volts = Number(/(\d+(?:[.,]\d+)?)\s*v(?:olts?)?\b/i.exec(head)?.[1]?.replace(',', '.') ?? NaN)
  return Number.isNaN(volts) ? null : volts === 70 ? USUAL_LINE_V : volts
}
/** Dials with their taps; under a head that names its volts the taps alone do. */
function readScales(text: string, headVolts: string): Scale[] {
  if (text === '' || /[:=]/.test(text)) return listed(readScale)(text)
  const tapsW = numbersOf(text.replace(/[;/|]/g, ' '))
  if (headVolts === '') throw new InputError(`“${text}” is not a dial with its taps: for which line is not said. Name the column “Taps 70 V”, or write it out.`, 0, ['70.71 V: 5 10 20'])
  return [{ lineV: Number(headVolts), tapsW }]
}

type Lead = SpeakerModel['leads'][number]
const writeLead = (lead: Lead) => `${lead.tapW === null ? 'common' : `${lead.tapW} W`}: ${writeConductor(lead)}`
function readLead(text: string): Lead {
  const [, tap, colour] = /^(common|com|[\d.,]+\s*W?)\s*:\s*(.*)$/i.exec(text.trim()) ?? bad(text, 'a lead', 'common: black', '5 W: white/red')
  return { tapW: /^com/i.test(tap!) ? null : readNumber(tap!, 'W'), ...readConductor(colour!) }
}

type Outputs = AmplifierModel['outputs'][number]
type Valve = NonNullable<Outputs['valve']>
const writeValve = ({ powerW, tapsOhm, chosenBy }: Valve) => `valve ${powerW === null ? '' : `${powerW} W `}at ${tapsOhm.join('/')} Ω${chosenBy === null ? '' : ` by ${chosenBy}`}`
function readValve(text: string): Valve | null {
  const found = /^valve\s+(?:([\d.,]+)\s*W\s+)?at\s+([\d./]+)\s*(?:Ω|ohms?)?(?:\s+by\s+(selector|sockets))?$/i.exec(text)
  if (!found) return null
  const [, power, taps, by] = found
  return { powerW: power === undefined ? null : readNumber(power, 'W'), tapsOhm: taps!.split('/').map(tap => readNumber(tap, 'Ω')), chosenBy: (by?.toLowerCase() as Valve['chosenBy'] | undefined) ?? null }
}
function writeOutputs({ count, points, lines, floorOhm, valve }: Outputs): string {
  const parts = [...points.map(p => `${p.powerW} W at ${p.loadOhm} Ω`), ...lines.map(l => `${l.powerW} W on ${l.lineV} V`), ...(valve ? [writeValve(valve)] : []), ...(floorOhm === null ? [] : [`from ${floorOhm} Ω`])]
  return `${count} x ${parts.join(', ')}`
}
function readOutputs(text: string): Outputs {
  const [, times, rest] = /^(?:(\d+)\s*[x×*]\s*)?(.+)$/i.exec(text.trim()) ?? bad(text, 'an output', '2 x 300 W at 4 Ω')
  const outputs: Outputs = { count: Number(times ?? 1), points: [], lines: [], floorOhm: null, valve: null }
  for (const part of rest!.split(/,\s+|,(?=\s*from)/)) {
    const valve = readValve(part.trim())
    if (valve) {
      outputs.valve = valve
      continue
    }
    const [, power, way, at] = /^(?:([\d.,]+)\s*W\s*(at|on|@)\s*)?(?:from\s*)?([\d.,]+\s*(?:Ω|ohms?|V|volts?)?)$/i.exec(part.trim()) ?? bad(part, 'what an output gives', '300 W at 4 Ω', '240 W on 70 V', 'from 2 Ω', 'valve 50 W at 4/8/16 Ω')
    if (power === undefined) outputs.floorOhm = readNumber(at!, 'Ω')
    else if (/^on$/i.test(way!) || /v(olts?)?$/i.test(at!)) outputs.lines.push({ powerW: readNumber(power, ''), lineV: readNumber(at!, 'V') })
    else outputs.points.push({ powerW: readNumber(power, ''), loadOhm: readNumber(at!, 'Ω') })
  }
  return outputs
}

/** "2 x microphone/line over the others; 1 x media with the others". */
const OVER = [['over the others', true], ['with the others', false], ['', null]] as const
function writeInputs({ count, takes, isOver }: InputGroup): string {
  const over = OVER.find(([, is]) => is === isOver)![0]
  return `${count} x ${takes.join('/')}${over === '' ? '' : ` ${over}`}`
}
function readInputs(text: string): InputGroup {
  const [, times, kinds, over] = /^(?:(\d+)\s*[x×*]\s*)?([a-z/\s]+?)(?:\s+(over the others|with the others))?$/i.exec(text.trim()) ?? bad(text, 'an input', '2 x microphone/line over the others')
  const takes = kinds!.split('/').map((kind) => {
    const said = kind.trim().toLowerCase().replace(/^mic(rophone)?s?$/, 'microphone').replace(/^music$|^players?$/, 'media').replace(/^lines$/, 'line')
    return SOURCE_KINDS.find(k => k === said) ?? bad(kind.trim(), `one of ${SOURCE_KINDS.join(', ')}`, ...SOURCE_KINDS)
  })
  return { count: Number(times ?? 1), takes, isOver: OVER.find(([says]) => says === (over ?? '').toLowerCase())![1] }
}

/** "front left [1 2] = white, white/black": the plus first, of terminals and of conductors. */
const writeWay = ({ name, terminals, pair }: Way) => `${name}${terminals ? ` [${terminals.join(' ')}]` : ''}${pair ? ` = ${pair.map(writeConductor).join(', ')}` : ''}`
function readWay(text: string): Way {
  const [, name, printed, colours] = /^([^[\]=]+?)\s*(?:\[([^\]]*)\])?\s*(?:=\s*(.+))?$/.exec(text.trim()) ?? bad(text, 'a way with its conductors', 'front left [1 2] = white, white/black')
  const terminals = printed === undefined ? null : printed.trim().split(/\s+/)
  if (terminals !== null && terminals.length !== 2) bad(`[${printed}]`, 'two terminals, the plus first', '[1 2]')
  const conductors = colours === undefined ? null : colours.split(',').map(part => readConductor(part.trim()))
  if (conductors !== null && conductors.length !== 2) bad(colours!, 'two conductors, the plus first', 'white, white/black')
  return { name: name!.trim(), terminals: terminals as Way['terminals'], pair: conductors as Way['pair'] }
}

const listed = <T>(one: (text: string) => T) => (text: string): T[] => text.split(';').map(part => part.trim()).filter(part => part !== '').map(one)
const WRITE: Record<Exclude<CellKind, 'text' | 'number' | 'choice' | 'flag'>, (value: never) => string> = {
  'numbers': (value: number[]) => value.join(' '), 'scales': (value: Scale[]) => value.map(writeScale).join('; '), 'leads': (value: Lead[]) => value.map(writeLead).join('; '),
  'members': writeMembers, 'small-signal': writeSmall, 'curve': writeCurve, 'positions': (value: Position[]) => value.map(writePosition).join('; '), 'outputs': (value: Outputs[]) => value.map(writeOutputs).join('; '), 'inputs': (value: InputGroup[]) => value.map(writeInputs).join('; '), 'ways': (value: Way[]) => value.map(writeWay).join('; '), 'cable': (value: Cable) => writeCable(value),
  'colours': (value: CableModel['conductors']) => value.map(writeConductor).join(', '),
}

/** A field's value as text; '' where nothing is stated. */
export function writeCell({ cell }: Pick<Column, 'cell'>, value: unknown): string {
  if (value === null || value === undefined) return ''
  if (cell === 'flag') return value === true ? 'yes' : 'no'
  return cell === 'text' || cell === 'number' || cell === 'choice' ? String(value) : WRITE[cell](value as never)
}

/** What a text says in a field; an empty one is not stated. Checked by the field's own schema. @throws InputError */
export function readCell(column: Column, text: string, headUnit = ''): unknown {
  const value = valueOf(column, text.trim(), headUnit)
  const checked = column.schema.safeParse(value)
  if (checked.success) return checked.data
  throw new InputError(`${column.label} ${checked.error.issues[0]!.message}.`, 0, [])
}

function valueOf({ cell, unit, schema, label }: Column, text: string, headUnit: string): unknown {
  switch (cell) {
    case 'text': return text
    case 'cable': return readCable(text !== '' && headUnit !== '' && /^[\d.,]+$/.test(text) ? `${text} ${headUnit}` : text)
    case 'numbers': return text === '' ? [] : numbersOf(text)
    case 'scales': return readScales(text, headUnit)
    case 'leads': return listed(readLead)(text)
    case 'outputs': return listed(readOutputs)(text)
    case 'inputs': return listed(readInputs)(text)
    case 'ways': return listed(readWay)(text)
    case 'colours': return text === '' ? [] : text.split(/[,;]/).map(part => readConductor(part.trim()))
  }
  if (text === '' || /^(n\/?a|not stated|not known|-|–|\?)$/i.test(text)) return null
  switch (cell) {
    case 'number': return readNumber(text, unit, headUnit)
    case 'flag': return /^(y|yes|true|1|x|✓)$/i.test(text) ? true : /^(n|no|false|0)$/i.test(text) ? false : bad(text, `yes or no: ${label}`, 'yes', 'no')
    case 'members': return readMembers(text)
    case 'small-signal': return readSmall(text)
    case 'curve': return listed(readCurvePoint)(text)
    case 'positions': return listed(readPosition)(text)
    case 'choice': {
      const plain = (t: string) => t.toLowerCase().replace(/[\s_-]+/g, '')
      const values = choicesOf(schema)
      return values.find(v => plain(v) === plain(text)) ?? bad(text, `one of ${values.join(', ')}`, ...values)
    }
  }
}

/** What a choice is between. */
export function choicesOf(schema: Column['schema']): string[] {
  const inner = (schema as unknown as { unwrap?: () => { options: string[] } }).unwrap?.()
  return inner?.options ?? []
}
