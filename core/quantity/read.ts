import { InputError } from './inputError'
import { NUMBER, numberOf } from './number'
import { FOOT_M } from './units'

/** One spelling of a unit and what one of it is in SI. */
interface Unit { spelling: RegExp, inSi: number }

interface QuantityKind {
  /** The thing read, as a person would call it. */
  noun: string
  units: Unit[]
  /** Factor for a bare number. */
  bareInSi: number
  examples: readonly string[]
  /** Largest value taken, in SI: beyond it the text is more likely a slip than a measurement. */
  most: number
  mostText: string
  zeroAllowed: boolean
}

const INCH_M = 0.0254

const KINDS = {
  length: {
    noun: 'length', bareInSi: 1, examples: ['12 ft', '3.6 m', '12 ft 6 in'], most: 10_000, mostText: '10 km', zeroAllowed: true,
    units: [
      { spelling: /^(m|metres?|meters?)$/i, inSi: 1 },
      { spelling: /^cm$/i, inSi: 0.01 },
      { spelling: /^mm$/i, inSi: 0.001 },
      { spelling: /^km$/i, inSi: 1000 },
      { spelling: /^(ft|foot|feet|'|′)$/i, inSi: FOOT_M },
      { spelling: /^(in|inch|inches|"|″)$/i, inSi: INCH_M },
      { spelling: /^(yd|yards?)$/i, inSi: 3 * FOOT_M },
    ],
  },
  resistance: {
    noun: 'resistance', bareInSi: 1, examples: ['8', '2k2', '4.7 kΩ'], most: 100e6, mostText: '100 MΩ', zeroAllowed: true,
    units: [
      { spelling: /^(ohms?|\u03a9|\u2126|r)$/i, inSi: 1 },
      { spelling: /^k(ohms?|\u03a9|\u2126)?$/i, inSi: 1e3 },
      { spelling: /^(M|meg|megohms?)(ohms?|\u03a9|\u2126)?$/, inSi: 1e6 },
      { spelling: /^m(ohms?|\u03a9|\u2126)$/, inSi: 1e-3 },
    ],
  },
  power: {
    noun: 'power', bareInSi: 1, examples: ['5 W', '1.25 W', '0.5 kW'], most: 100_000, mostText: '100 kW', zeroAllowed: false,
    units: [
      { spelling: /^(w|watts?)$/i, inSi: 1 },
      { spelling: /^kw$/i, inSi: 1e3 },
      { spelling: /^mw$/, inSi: 1e-3 },
    ],
  },
  voltage: {
    noun: 'voltage', bareInSi: 1, examples: ['70.7 V', '4 V', '300 mV'], most: 2000, mostText: '2 kV', zeroAllowed: false,
    units: [{ spelling: /^(v|volts?)$/i, inSi: 1 }, { spelling: /^mv$/i, inSi: 1e-3 }, { spelling: /^kv$/i, inSi: 1e3 }],
  },
  current: {
    noun: 'current', bareInSi: 1, examples: ['0.4 A', '250 mA'], most: 1000, mostText: '1 kA', zeroAllowed: false,
    units: [{ spelling: /^(a|amps?|amperes?)$/i, inSi: 1 }, { spelling: /^ma$/i, inSi: 1e-3 }],
  },
  frequency: {
    noun: 'frequency', bareInSi: 1, examples: ['45 Hz', '1 kHz', '1k2'], most: 1e6, mostText: '1 MHz', zeroAllowed: false,
    units: [{ spelling: /^hz$/i, inSi: 1 }, { spelling: /^k(hz)?$/i, inSi: 1e3 }],
  },
} satisfies Record<string, QuantityKind>

export type QuantityName = keyof typeof KINDS

const PREFIX_AS_POINT = /^(\d+)([kmr])(\d+)\s*(ohms?|\u03a9|\u2126|hz)?$/i
const PIECE = new RegExp(`(${NUMBER})\\s*([^\\d\\s.,]*)\\s*`, 'y')

/**
 * Reads one quantity as a person writes it, metric or imperial: "12 ft", "3.6 m", "2k2", "1.25 W".
 * Several pieces add up ("12 ft 6 in"). A bare number is in the SI unit of the kind.
 * @returns the value in SI (m, Ω, W, V, A, Hz)
 * @throws InputError naming the character at fault and what could stand there
 */
export function readQuantity(name: QuantityName, text: string): number {
  const kind: QuantityKind = KINDS[name]
  const start = text.length - text.trimStart().length
  const trimmed = text.trim()
  if (trimmed === '') throw new InputError(`No ${kind.noun} given.`, 0, kind.examples)

  const value = readPrefixAsPoint(trimmed, name) ?? readPieces(trimmed, start, kind)
  if (value > kind.most) throw new InputError(`This ${kind.noun} is more than ${kind.mostText}.`, start, kind.examples)
  if (value === 0 && !kind.zeroAllowed) throw new InputError(`A ${kind.noun} of nothing cannot be used here.`, start, kind.examples)
  return value
}

/** "2k2" is 2200 and "4R7" is 4.7: the prefix stands where the point would. Null when the text is not so written. */
function readPrefixAsPoint(text: string, name: QuantityName): number | null {
  if (name !== 'resistance' && name !== 'frequency') return null
  const match = PREFIX_AS_POINT.exec(text)
  if (!match) return null
  const factor = { k: 1e3, m: 1e6, r: 1 }[match[2]!.toLowerCase() as 'k' | 'm' | 'r']
  return Number(`${match[1]}.${match[3]}`) * factor
}

function readPieces(text: string, start: number, kind: QuantityKind): number {
  let total = 0
  PIECE.lastIndex = 0
  for (let at = 0; at < text.length; at = PIECE.lastIndex) {
    PIECE.lastIndex = at
    const match = PIECE.exec(text)
    if (!match) throw new InputError(`“${text.slice(at)}” is not a ${kind.noun}.`, start + at, kind.examples)
    const [, digits, word] = match
    const unit = kind.units.find(u => u.spelling.test(word!))
    if (word !== '' && !unit) {
      throw new InputError(`“${word}” is not a unit of ${kind.noun}.`, start + at + match[0].indexOf(word!, digits!.length), kind.examples)
    }
    if (word === '' && (at > 0 || PIECE.lastIndex < text.length)) {
      throw new InputError(`“${digits}” needs a unit here.`, start + at + digits!.length, kind.examples)
    }
    total += numberOf(digits!) * (unit?.inSi ?? kind.bareInSi)
  }
  return total
}
