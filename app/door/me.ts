import { shallowRef } from 'vue'
import type { Me } from '#core/door/door'
import type { DoorRefusal } from '#core/door/refusals'
import { same } from '#core/quantity/same'

/**
 * Who this device is to the server. Kept on the device, for what is done with no network bears it, too; the key itself no script can see.
 */
const KEY = 'plain-match.me'

export const me = shallowRef<Me['device']>(readMe())
/** Why the server does not let this device in; null while it does, or nothing is known. */
export const atDoor = shallowRef<DoorRefusal | null>(null)

function readMe(): Me['device'] {
  try {
    const { id, name } = JSON.parse(localStorage.getItem(KEY) ?? 'null') as NonNullable<Me['device']>
    return typeof id === 'string' && typeof name === 'string' ? { id, name } : null
  }
  catch {
    return null
  }
}

export function keepMe(device: Me['device']): void {
  if (device && me.value && same(device, me.value)) return
  me.value = device
  try {
    if (device) localStorage.setItem(KEY, JSON.stringify(device))
    else localStorage.removeItem(KEY)
  }
  catch { /* A browser that keeps nothing: it is asked for anew. */ }
}

/** Who does what is done here; null at the machine that serves. */
export const whoHere = (): string | null => me.value?.id ?? null
