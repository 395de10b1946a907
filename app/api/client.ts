import { DOOR_WORDS, type DoorRefusal } from '#core/door/refusals'
import { atDoor } from '~/door/me'

/** What the server answered when it did not do what was asked; status 0: it was not reached. */
export class ApiError extends Error {
  override name = 'ApiError'
  constructor(message: string, readonly status: number, readonly where: string | number | null = null, readonly expected: readonly string[] = []) {
    super(message)
  }

  /** The server or its database is away; the same request may succeed later. */
  get isAway(): boolean {
    // One that is not let in any more keeps what it has: it may be let in again.
    return this.status === 0 || this.status === 401 || this.status >= 500
  }
}

const PATIENCE_MS = 20_000
/** A slow phone sends so much in a second; what is large may take as long as that. */
const SLOW_BYTES_A_S = 50_000

export interface Asking {
  method?: string
  body?: unknown
  /** The body as JSON, where it has been written already. */
  text?: string
  /** Hears how much of the body has gone out, 0 to 1. Only for large ones: it asks another way. */
  onSent?: (part: number) => void
}

type Answer = Pick<Response, 'ok' | 'status' | 'json'>

/** One request. @throws ApiError, always with a sentence for people */
export async function api<T>(path: string, { method = 'GET', body, text: written, onSent }: Asking = {}): Promise<T> {
  let response: Answer
  try {
    const text = written ?? (body === undefined ? undefined : JSON.stringify(body))
    const patienceMs = PATIENCE_MS + (text?.length ?? 0) / SLOW_BYTES_A_S * 1000
    const headers = text === undefined ? undefined : { 'content-type': 'application/json' }
    if (onSent && text !== undefined) response = await sentWithNews(`/api${path}`, method, text, patienceMs, onSent)
    else response = await fetch(`/api${path}`, { method, body: text, headers, signal: AbortSignal.timeout(patienceMs) })
  }
  catch {
    throw new ApiError('The server does not answer. What you do is kept in this window and sent when it does.', 0)
  }
  const data: unknown = await response.json().catch(() => null)
  if (response.ok && data !== null) {
    atDoor.value = null
    return data as T
  }
  const error = (data as { error?: { code?: string, message?: string, where?: string | number, expected?: string[] } } | null)?.error
  if (response.status === 401 && error?.code !== undefined && error.code in DOOR_WORDS) atDoor.value = error.code as DoorRefusal
  throw new ApiError(error?.message ?? 'The server answered with something that cannot be read.', response.ok ? 500 : response.status, error?.where ?? null, error?.expected ?? [])
}

/** fetch does not say how much of a body has gone out. */
function sentWithNews(url: string, method: string, text: string, timeout: number, onSent: (part: number) => void): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    request.open(method, url)
    request.timeout = timeout
    request.setRequestHeader('content-type', 'application/json')
    request.upload.onprogress = ({ loaded, total }) => onSent(total > 0 ? loaded / total : 0)
    request.onload = () => {
      const { status, responseText } = request
      resolve({ ok: status >= 200 && status < 300, status, json: () => Promise.resolve(responseText).then(said => JSON.parse(said) as unknown) })
    }
    for (const end of ['error', 'abort', 'timeout'] as const) request.addEventListener(end, () => reject(new Error(end)))
    request.send(text)
  })
}
