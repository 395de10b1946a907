/** What of a job is on the server and what is not, for the head of its page. */
interface KeptState { status: string, connection: 'saved' | 'saving' | 'away', waiting: number, isStorageFull: boolean }

const SAVED = { saved: 'saved', saving: 'saving…' } as const

export function keptWords({ status, connection, waiting, isStorageFull }: KeptState, startsOffline: boolean): string {
  if (status !== 'ready') return ''
  const full = isStorageFull ? '; this device cannot keep edits (its storage is full or closed): they live only until this page is left' : ''
  if (connection !== 'away') return `${SAVED[connection]}${full}`
  return `server away: ${waiting === 0 ? 'nothing to send' : `${waiting} kept here to send`}${startsOffline ? '' : '; leave this page open'}${full}`
}
