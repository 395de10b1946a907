import { z } from 'zod'

/** How a field of a model is called, in what unit it stands, and how it is written in one cell of a table. The schema carries it (`.meta`). */
export interface FieldMeta {
  label: string
  /** Unit of a number; '' for none. */
  unit: Unit | ''
  cell: CellKind
  /** What else people call the column, as a pattern over lower case. */
  also: string
}
export const UNITS = ['Ω', 'W', 'V', 'dB', '°', 'Hz', 'H', 'mm', 'kg'] as const
export type Unit = typeof UNITS[number]
export type CellKind = 'text' | 'number' | 'choice' | 'flag' | 'numbers' | 'scales' | 'leads' | 'members' | 'small-signal' | 'curve' | 'positions' | 'outputs' | 'inputs' | 'ways' | 'cable' | 'colours'

type Options = Partial<Pick<FieldMeta, 'unit' | 'cell' | 'also'>>
export function field<T extends z.ZodType>(schema: T, label: string, { unit = '', cell = 'text', also = '' }: Options = {}): T {
  return schema.meta({ label, unit, cell, also }) as T
}
/** A number that may not be stated. */
export const numeric = (schema: z.ZodNumber, label: string, unit: Unit | '' = '', also = '') => field(schema.nullable(), label, { unit, cell: 'number', also })
export const choice = <const T extends readonly [string, ...string[]]>(values: T, label: string, also = '') => field(z.enum(values).nullable(), label, { cell: 'choice', also })
export const flag = (label: string, also = '') => field(z.boolean().nullable(), label, { cell: 'flag', also })

export function metaOf(schema: z.ZodType): FieldMeta {
  const meta = schema.meta() as Partial<FieldMeta> | undefined
  if (!meta?.label || !meta.cell) throw new Error('a field of a model without its name')
  return { label: meta.label, unit: meta.unit ?? '', cell: meta.cell, also: meta.also ?? '' }
}
