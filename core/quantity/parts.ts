import { InputError } from './inputError'
import { writeNumber } from './write'

/** Capacitors and coils as they are written and sold. */

const MICRO = 1e-6
const MILLI = 1e-3

/** "100 µF", "0.47 µF". */
export const writeCapacitance = (capacitanceF: number): string => `${writeNumber(capacitanceF / MICRO, 4)} µF`
/** "2.2 mH". */
export const writeInductance = (inductanceH: number): string => `${writeNumber(inductanceH / MILLI, 4)} mH`

const reader = (noun: string, bare: number, units: Readonly<Record<string, number>>, [least, most]: readonly [number, number],
  example: string) => (text: string): number => {
  const [, number, unit] = /^\s*(\d+(?:[.,]\d+)?)\s*(\S*)\s*$/.exec(text) ?? []
  const factor = unit === '' ? bare : units[unit?.toLowerCase().replace(/[µμ]/, 'u') ?? '']
  if (number === undefined || factor === undefined) throw new InputError(`“${text.trim()}” is no ${noun}.`, 0, [example])
  const value = Number((Number(number.replace(',', '.')) * factor).toPrecision(12))
  if (!(value >= least && value <= most)) throw new InputError(`A ${noun} of ${text.trim()} cannot be used here.`, 0, [example])
  return value
}
/** "100", "100 uF", "470 nF": farad. A bare number is in microfarads, as they are sold. @throws InputError */
export const readCapacitance = reader('capacitor', MICRO, { uf: MICRO, mfd: MICRO, u: MICRO, nf: 1e-9, f: 1 }, [1e-9, 1], '100 µF')
/** "2.2", "2.2 mH", "330 uH": henry. A bare number is in millihenries. @throws InputError */
export const readInductance = reader('coil', MILLI, { mh: MILLI, m: MILLI, uh: MICRO, h: 1 }, [1e-7, 1], '2.2 mH')

/** Preferred values of a decade. Source: IEC 60063. */
export const E_SERIES = {
  E6: [1, 1.5, 2.2, 3.3, 4.7, 6.8],
  E12: [1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2],
} as const

/** The preferred value nearest to one, by ratio. */
export function nearestPreferred(value: number, series: keyof typeof E_SERIES = 'E12'): number {
  const decade = 10 ** Math.floor(Math.log10(value))
  const around = [...E_SERIES[series], 10].map(v => v * decade)
  const nearest = around.reduce((best, v) => Math.abs(Math.log(v / value)) < Math.abs(Math.log(best / value)) ? v : best)
  return Number(nearest.toPrecision(3))
}

/** The next preferred value above (1) or below (-1). */
export function nextPreferred(value: number, step: 1 | -1, series: keyof typeof E_SERIES = 'E12'): number {
  const decade = 10 ** Math.floor(Math.log10(value * (1 + 1e-9)))
  const all = [0.1, 1, 10].flatMap(times => E_SERIES[series].map(v => v * decade * times))
  const next = step > 0 ? all.find(v => v > value * (1 + 1e-6))! : all.findLast(v => v < value * (1 - 1e-6))!
  return Number(next.toPrecision(3))
}
