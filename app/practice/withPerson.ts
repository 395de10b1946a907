import { api, ApiError } from '~/api/client'
import type { Result } from '#core/practice/result'
import { readResults } from './kept'

/** Progress goes with the person; it is kept on this device first. null: the server is away. */
export async function pullResults(): Promise<Result[] | null> {
  try {
    const { results } = await api<{ results: unknown[] }>('/practice')
    return readResults(JSON.stringify(results))
  }
  catch (error) {
    if (!(error instanceof ApiError)) throw error
    return null
  }
}

export async function pushResult(result: Result): Promise<void> {
  try {
    await api('/practice', { method: 'POST', body: result })
  }
  catch (error) {
    // It is kept on this device.
    if (!(error instanceof ApiError)) throw error
  }
}
