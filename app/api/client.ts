/** What the server answered when it did not do what was asked; status 0: it was not reached. */
export class ApiError extends Error {
  override name = 'ApiError'
  constructor(message: string, readonly status: number, readonly where: string | number | null = null, readonly expected: readonly string[] = []) {
    super(message)
  }

  /** The server or its database is away; the same request may succeed later. */
  get isAway(): boolean {
    return this.status === 0 || this.status >= 500
  }
}

const PATIENCE_MS = 20_000

/** One request. @throws ApiError, always with a sentence for people */
export async function api<T>(path: string, { method = 'GET', body }: { method?: string, body?: unknown } = {}): Promise<T> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      body: body === undefined ? undefined : JSON.stringify(body),
      headers: body === undefined ? undefined : { 'content-type': 'application/json' },
      signal: AbortSignal.timeout(PATIENCE_MS),
    })
  }
  catch {
    throw new ApiError('The server does not answer. What you do is kept in this window and sent when it does.', 0)
  }
  const data: unknown = await response.json().catch(() => null)
  if (response.ok && data !== null) return data as T
  const error = (data as { error?: { message?: string, where?: string | number, expected?: string[] } } | null)?.error
  throw new ApiError(error?.message ?? 'The server answered with something that cannot be read.', response.ok ? 500 : response.status, error?.where ?? null, error?.expected ?? [])
}
