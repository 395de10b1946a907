import { z } from 'zod'
import type { GearKind } from '#core/gear/models'

/** The columns of the library that were chosen on this device; null where none were, or the browser keeps nothing. */
const keyOf = (kind: GearKind) => `plain-match.gear-columns.${kind}`
const keysSchema = z.array(z.string()).max(40)

export function keptColumns(kind: GearKind): string[] | null {
  try {
    const kept = keysSchema.safeParse(JSON.parse(localStorage.getItem(keyOf(kind)) ?? 'null'))
    return kept.success ? kept.data : null
  }
  catch {
    return null
  }
}

export function keepColumns(kind: GearKind, keys: readonly string[] | null): void {
  try {
    if (keys === null) localStorage.removeItem(keyOf(kind))
    else localStorage.setItem(keyOf(kind), JSON.stringify(keys))
  }
  catch { /* Then as many as fit are shown the next time. */ }
}
