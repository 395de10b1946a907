import type { z } from 'zod'

/**
 * What an older version wrote, with the fields that it did not know yet, as nobody stated them: null where a field may be null, an
 * empty list or text where that is allowed. A field that always has a value is left missing, for a step of the version or for the
 * schema's own complaint. So a version that only adds fields, or widens an enum, needs no code to be brought up.
 */
export function withUnstated(schema: z.core.$ZodType, value: unknown): unknown {
  const def = defOf(schema)
  switch (def.type) {
    case 'nullable': case 'optional': case 'default': return value == null ? value : withUnstated(def.innerType!, value)
    case 'array': return Array.isArray(value) ? mapped(value, item => withUnstated(def.element!, item)) : value
    case 'union': return withUnstatedOf(def.options!, value)
    case 'object': return isFields(value) ? withFields(def.shape!, value) : value
    default: return value
  }
}

interface Def {
  type: string
  innerType?: z.core.$ZodType
  element?: z.core.$ZodType
  options?: readonly z.core.$ZodType[]
  shape?: Record<string, z.core.$ZodType>
  values?: readonly unknown[]
  entries?: Record<string, unknown>
}
type Fields = Record<string, unknown>
const isFields = (value: unknown): value is Fields => value !== null && typeof value === 'object' && !Array.isArray(value)
const defOf = (schema: z.core.$ZodType) => (schema as unknown as { _zod: { def: Def } })._zod.def

function withFields(shape: Record<string, z.core.$ZodType>, value: Fields): Fields {
  const added: Fields = {}
  for (const [key, schema] of Object.entries(shape)) {
    if (key in value) {
      const filled = withUnstated(schema, value[key])
      if (filled !== value[key]) added[key] = filled
    }
    else {
      const unstated = unstatedOf(schema)
      if (unstated !== undefined) added[key] = unstated
    }
  }
  return Object.keys(added).length > 0 ? { ...value, ...added } : value
}

/** The option whose fixed values are those of the value: its kind tells it. */
function withUnstatedOf(options: readonly z.core.$ZodType[], value: unknown): unknown {
  if (!isFields(value)) return value
  const fitting = options.find((option) => {
    const def = defOf(option)
    const fixed = def.type === 'object' ? Object.entries(def.shape!).flatMap(([key, schema]) => fixedValues(schema)?.includes(value[key]) ?? []) : []
    return fixed.length > 0 && fixed.every(Boolean)
  })
  return fitting ? withUnstated(fitting, value) : value
}

/** The values that a field may have where they are listed; null where they are not. Looked at, not parsed: a thousand parts of edits come at once. */
function fixedValues(schema: z.core.$ZodType): readonly unknown[] | null {
  const { type, values, entries } = defOf(schema)
  return type === 'literal' ? values! : type === 'enum' ? Object.values(entries!) : null
}

/** What stands in a field of which nothing is stated; undefined where it must be stated. */
export function unstatedOf(schema: z.core.$ZodType): unknown {
  const { type } = defOf(schema)
  if (type === 'nullable') return null
  if (type === 'array') return (schema as z.ZodType).safeParse([]).success ? [] : undefined
  if (type === 'string') return (schema as z.ZodType).safeParse('').success ? '' : undefined
  return undefined
}

/** The same list where no item changes. */
function mapped(list: readonly unknown[], change: (item: unknown) => unknown): readonly unknown[] {
  const after = list.map(change)
  return after.some((item, k) => item !== list[k]) ? after : list
}
