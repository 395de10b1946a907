/** Chance lives here, outside the core. */

export function newUuid(): string {
  // Pages served to a phone over plain HTTP have no crypto.randomUUID.
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  bytes[6] = (bytes[6]! & 0x0F) | 0x40
  bytes[8] = (bytes[8]! & 0x3F) | 0x80
  const hex = [...bytes].map(b => b.toString(16).padStart(2, '0')).join('')
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-')
}

export function newId(): string {
  return newUuid().replaceAll('-', '').slice(0, 16)
}

const KEY = 'plain-match.window'

/** The name of this window: it lives as long as the tab, over reloads, and tells its edits from those of others. */
export function windowId(): string {
  let id = sessionStorage.getItem(KEY)
  if (!id) {
    id = newId()
    sessionStorage.setItem(KEY, id)
  }
  return id
}
