/** Changes of jobs, and of the library, as the server tells them. */
export interface Change { jobId: string, revision: number }
type Message = Change | Here | 'gear' | 'devices' | 'gap'
/** Who has a job open is otherwise than it was. */
export interface Here { here: string }
type Listener = (message: Message) => void

/**
 * One stream for all windows of this browser: it allows six connections to a server, and a stream a window would leave
 * none for the seventh (measured: pages then hung for 50 s). The window that holds the lock listens and tells the others.
 */
const NAME = 'plain-match.live'
const RETRY_MS = 1500

const listeners = new Set<Listener>()
let leave: (() => void) | null = null

/** Listens until the returned function is called. `gap`: something may have been missed, look for yourself. */
export function onLive(listener: Listener): () => void {
  listeners.add(listener)
  leave ??= join()
  return () => {
    listeners.delete(listener)
    if (listeners.size > 0) return
    leave?.()
    leave = null
  }
}

function hear(message: Message): void {
  for (const listener of listeners) listener(message)
}

function join(): () => void {
  const channel = new BroadcastChannel(NAME)
  channel.onmessage = (event: MessageEvent<Message>) => hear(event.data)
  const tell = (message: Message) => {
    hear(message)
    channel.postMessage(message)
  }
  const gone = new AbortController()
  let letGo = () => {}
  if ('locks' in navigator) {
    const held = new Promise<void>((resolve) => { letGo = resolve })
    void navigator.locks.request(NAME, { signal: gone.signal }, () => {
      const close = openStream(tell)
      // Whatever was said between the last holder's end and this beginning was missed.
      tell('gap')
      return held.finally(close)
    }).catch(() => undefined)
  }
  else letGo = openStream(tell)
  return () => {
    gone.abort()
    letGo()
    channel.close()
  }
}

function openStream(tell: Listener): () => void {
  let source: EventSource
  let retry: ReturnType<typeof setTimeout>
  const open = () => {
    source = new EventSource('/api/live')
    source.addEventListener('change', event => tell(JSON.parse((event as MessageEvent<string>).data) as Change))
    source.addEventListener('gear', () => tell('gear'))
    source.addEventListener('here', event => tell(JSON.parse((event as MessageEvent<string>).data) as Here))
    source.addEventListener('devices', () => tell('devices'))
    source.addEventListener('taken-back', () => tell('devices'))
    source.addEventListener('gap', () => tell('gap'))
    source.addEventListener('error', () => {
      // The browser retries a broken stream by itself, but gives up on one that was refused.
      if (source.readyState === EventSource.CLOSED) retry = setTimeout(open, RETRY_MS)
    })
  }
  open()
  return () => {
    clearTimeout(retry)
    source.close()
  }
}

// A page that is left may be kept alive for the way back, its stream with it: let go, and join again on return.
if (typeof window !== 'undefined') {
  window.addEventListener('pagehide', () => {
    leave?.()
    leave = null
  })
  window.addEventListener('pageshow', (event) => {
    if (!event.persisted || listeners.size === 0) return
    leave ??= join()
    hear('gap')
  })
}
