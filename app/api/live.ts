/** Changes of jobs as the server tells them, one stream for the whole window. */
export interface Change { jobId: string, revision: number }
type Listener = (change: Change | 'gap') => void

const listeners = new Set<Listener>()
let source: EventSource | null = null

/** Listens until the returned function is called. `gap`: something may have been missed, look for yourself. */
export function onLive(listener: Listener): () => void {
  listeners.add(listener)
  open()
  return () => {
    listeners.delete(listener)
    if (listeners.size === 0) {
      source?.close()
      source = null
    }
  }
}

function tell(change: Change | 'gap'): void {
  for (const listener of listeners) listener(change)
}

const RETRY_MS = 1500

function open(): void {
  if (source) return
  const stream = new EventSource('/api/live')
  source = stream
  stream.addEventListener('change', event => tell(JSON.parse((event as MessageEvent<string>).data) as Change))
  stream.addEventListener('gap', () => tell('gap'))
  stream.addEventListener('error', () => {
    // The browser retries a broken stream by itself, but gives up on one that was refused.
    if (stream.readyState !== EventSource.CLOSED || source !== stream) return
    source = null
    setTimeout(() => {
      if (listeners.size > 0) open()
    }, RETRY_MS)
  })
}
