import type { GearKind } from '#core/gear/models'

/** The models that were taken last on this device, newest first. A browser that keeps nothing has none. */
const MOST = 8
const keyOf = (kind: GearKind) => `plain-match.recent.${kind}`

export function recentModels(kind: GearKind): string[] {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(keyOf(kind)) ?? '[]')
    return Array.isArray(stored) ? stored.map(String).slice(0, MOST) : []
  }
  catch {
    return []
  }
}

export function rememberModel(kind: GearKind, id: string): void {
  try {
    localStorage.setItem(keyOf(kind), JSON.stringify([id, ...recentModels(kind).filter(r => r !== id)].slice(0, MOST)))
  }
  catch { /* Then it is offered by its name. */ }
}
