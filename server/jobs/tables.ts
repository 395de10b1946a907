import type { z } from 'zod'
import { GROWING, type GrowingList } from '#core/job/sections/shapes'
import type { Condition, Growing } from '#core/job/sections/shape'

/** The tables of what only grows, as the sections say: a column a key of an entry, and what the schema says of it as constraints. */

export interface TableColumn { name: string, key: string, type: 'text' | 'jsonb' | 'boolean' | 'double precision', isNullable: boolean, oneOf: readonly string[] | null }
export interface Table { name: GrowingList, columns: readonly TableColumn[], growing: Growing }

interface Def { type: string, innerType?: z.core.$ZodType, entries?: Record<string, string> }
const defOf = (schema: z.core.$ZodType) => (schema as unknown as { _zod: { def: Def } })._zod.def

export const columnName = (key: string) => key.replace(/[A-Z]/g, letter => `_${letter.toLowerCase()}`)

function columnOf(key: string, schema: z.core.$ZodType): TableColumn {
  const outer = defOf(schema)
  const isNullable = outer.type === 'nullable'
  const { type, entries } = isNullable ? defOf(outer.innerType!) : outer
  const sql = type === 'string' || type === 'enum' ? 'text' : type === 'boolean' ? 'boolean' : type === 'number' ? 'double precision' : 'jsonb'
  return { name: columnName(key), key, type: sql, isNullable, oneOf: entries ? Object.values(entries) : null }
}

export const TABLES: readonly Table[] = GROWING.map(growing => ({
  name: growing.list, columns: Object.entries(growing.entry.shape).map(([key, schema]) => columnOf(key, schema)), growing,
}))

export interface Constraint { name: string, sql: string }

const listed = (values: readonly string[]) => values.map(value => `'${value}'`).join(', ')
function conditionOf(condition: Condition): string {
  const [key, ...inner] = condition.key.split('.')
  const column = `${columnName(key!)}${inner.map(step => `->>'${step}'`).join('')}`
  return 'isNull' in condition ? `(${column} is null)` : `(${column} in (${listed(condition.oneOf)}))`
}

/** What the database holds true of each entry, from the same lists as the schema. */
export function constraintsOf({ name, columns, growing }: Table): Constraint[] {
  return [
    ...columns.flatMap(c => c.oneOf ? [{ name: `${name}_${c.name}_check`, sql: `check (${c.name} in (${listed(c.oneOf)}))` }] : []),
    ...growing.together.map(([one, other, unless], k) => ({
      name: `${name}_together_${k + 1}`, sql: `check (${unless ? `${conditionOf(unless)} or ` : ''}${conditionOf(one)} = ${conditionOf(other)})`,
    })),
  ]
}
