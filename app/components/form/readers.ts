import type { z } from 'zod'
import { hertz, ohm, watt } from '#core/quantity/fields'
import { InputError } from '#core/quantity/inputError'
import { readCable } from '#core/quantity/cable'
import { readQuantity, type QuantityName } from '#core/quantity/read'
import { withUnit, type Units } from '#core/quantity/units'
import { writeNumber } from '#core/quantity/write'

/** Readers and writers for TextEntry. */

/** Text checked by a field of the job's schema; the complaint is the schema's own. */
export function textOf(schema: z.ZodType<string>, noun: string) {
  return (typed: string): string => {
    const parsed = schema.safeParse(typed)
    if (!parsed.success) throw new InputError(`The ${noun} ${parsed.error.issues[0]!.message}.`, 0, [])
    return parsed.data
  }
}

/** What a field of a job takes of it, where nothing else is said: what lies outside is told at the field, not by the job that refuses it. */
const TAKEN: Partial<Record<QuantityName, z.ZodType<number>>> = { resistance: ohm, power: watt, frequency: hertz }

export const quantityOf = (name: QuantityName, schema = TAKEN[name]) => (typed: string): number => {
  const value = readQuantity(name, typed)
  const parsed = schema?.safeParse(value)
  if (parsed?.success === false) throw new InputError(`This ${parsed.error.issues[0]!.message}.`, 0, [])
  return value
}

/** An empty field is "not known". */
export const quantityOrNot = (...of: Parameters<typeof quantityOf>) => (typed: string): number | null => typed.trim() === '' ? null : quantityOf(...of)(typed)

export const cableOf = (typed: string) => readCable(typed)

/** "2.5, 5, 10, 20 W" */
export function tapsOf(typed: string): number[] {
  const parts = typed.split(/[,;\s]+/).filter(part => part !== '' && !/^w(atts?)?$/i.test(part))
  const taps = parts.map(part => readQuantity('power', part))
  if (taps.length === 0) throw new InputError('No taps given.', 0, ['2.5, 5, 10, 20'])
  if (taps.length > 20) throw new InputError('More than twenty taps.', 0, ['2.5, 5, 10, 20'])
  return [...new Set(taps)].sort((a, b) => a - b)
}

export const writeOrNot = (value: number | null, unit: string) => value === null ? '' : `${writeNumber(value, 6)} ${unit}`

export const lengthExample = (units: Units): string => units === 'metric' ? '3.6 m' : '12 ft'

/** A length; a bare number is in the units of the person. */
export const lengthOf = (units: Units) => (typed: string): number => readQuantity('length', withUnit(typed, units))

/** The same; an empty field is "not stated". */
export const lengthOrNot = (units: Units) => (typed: string): number | null => typed.trim() === '' ? null : lengthOf(units)(typed)

/** "20, then 6": lengths in order, m; the last one holds for all that follow; bare numbers are in the units of the person. */
export const lengthsOf = (units: Units) => (typed: string): number[] => {
  const parts = typed.split(/\s*(?:[,;]\s*(?:then\b)?|\bthen\b)\s*/i).filter(part => part !== '')
  if (parts.length === 0) throw new InputError('No length given.', 0, ['20, then 6'])
  return parts.map(lengthOf(units))
}

/** A count of things, 1 to a hundred. */
export function countOf(typed: string): number {
  const count = Number(typed.trim())
  if (!Number.isInteger(count) || count < 1 || count > 100) throw new InputError('A whole number from 1 to 100.', 0, ['14'])
  return count
}

/** A plain number between two bounds, with or without its unit. */
export const within = (least: number, most: number, what: string, unit = '') => (typed: string): number => {
  const value = Number(typed.replace(',', '.').replace(/\s*(mH|Hz|V|dB)$/i, ''))
  if (!(value >= least && value <= most)) throw new InputError(`${what} lies between ${least} and ${most}${unit}.`, 0, [])
  return value
}

/** The same; an empty field is "not stated". */
export const withinOrNot = (...bounds: Parameters<typeof within>) => (typed: string): number | null => typed.trim() === '' ? null : within(...bounds)(typed)

/** "36", "36 mm"; an empty field is "not measured". */
export const millimetresOrNot = (what: string) => (typed: string): number | null => withinOrNot(1, 5000, what, ' mm')(typed.replace(/\s*mm$/, ''))

/** "70 Hz", "none"; an empty field is "not stated". */
export function highPassOf(typed: string): number | 'none' | null {
  if (/^(none|no|-)$/i.test(typed.trim())) return 'none'
  return withinOrNot(1, 1000, 'A high-pass', ' Hz')(typed)
}
