/**
 * Equal as JSON would keep them, whatever the order of keys: the one equality of the project. (Comparing texts of JSON called two equal
 * channels unlike when one of them had come back from the database, which keeps keys in an order of its own.)
 */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (a === null || b === null || typeof a !== 'object' || typeof b !== 'object' || Array.isArray(a) !== Array.isArray(b)) return false
  const keys = keysOf(a)
  return keys.length === keysOf(b).length
    && keys.every(key => key in b && same((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]))
}

/** JSON keeps nothing of a key that is undefined. */
const keysOf = (value: object) => Object.keys(value).filter(key => (value as Record<string, unknown>)[key] !== undefined)

/** A text that is equal for what is the same: to gather equals by. */
export function likenessOf(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) => part !== null && typeof part === 'object' && !Array.isArray(part)
    ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => a < b ? -1 : 1))
    : part) ?? ''
}
