import { windowId } from '~/api/ids'

/**
 * Which windows of this browser are there: what a living one keeps is its own to send. A lock is let go by the browser
 * itself, however a window ends. Where there are none (a phone over plain HTTP) every other window counts as gone; an edit
 * that two send counts once all the same.
 */
const PREFIX = 'plain-match.window.'

export function beThere(): void {
  if ('locks' in navigator) void navigator.locks.request(PREFIX + windowId(), () => new Promise<never>(() => {})).catch(() => undefined)
}

/** Windows other than this one. */
export async function otherWindows(): Promise<ReadonlySet<string>> {
  if (!('locks' in navigator)) return new Set()
  const { held = [] } = await navigator.locks.query()
  const names = held.flatMap(lock => lock.name?.startsWith(PREFIX) ? [lock.name.slice(PREFIX.length)] : [])
  return new Set(names.filter(name => name !== windowId()))
}
