import type { z } from 'zod'
import { InputError } from '#core/quantity/inputError'
import { readCable } from '#core/quantity/cable'
import { readQuantity, type QuantityName } from '#core/quantity/read'
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

export const quantityOf = (name: QuantityName) => (typed: string): number => readQuantity(name, typed)

/** An empty field is "not known". */
export const quantityOrNot = (name: QuantityName) => (typed: string): number | null => typed === '' ? null : readQuantity(name, typed)

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
