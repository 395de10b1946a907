import type { Device } from '#core/door/door'

/** When a device was last here, in words; of one that was taken back, since when it is not let in. */
const MINUTE_MS = 60_000
const HOUR_MS = 60 * MINUTE_MS

export function agoWords(ms: number): string {
  if (ms < 2 * MINUTE_MS) return 'just now'
  if (ms < 2 * HOUR_MS) return `${Math.floor(ms / MINUTE_MS)} minutes ago`
  if (ms < 48 * HOUR_MS) return `${Math.floor(ms / HOUR_MS)} hours ago`
  return `${Math.floor(ms / 24 / HOUR_MS)} days ago`
}

export function seenWords({ lastSeenAt, takenBackAt }: Pick<Device, 'lastSeenAt' | 'takenBackAt'>, now: number): string {
  return takenBackAt === null ? `last seen ${agoWords(now - Date.parse(lastSeenAt))}` : `taken back ${agoWords(now - Date.parse(takenBackAt))}: not let in`
}

/** How long a code still lets in. */
export function leftWords(ms: number): string {
  const seconds = Math.max(0, Math.ceil(ms / 1000))
  return seconds >= 120 ? `${Math.floor(seconds / 60)} minutes more` : seconds === 1 ? '1 second more' : `${seconds} seconds more`
}
