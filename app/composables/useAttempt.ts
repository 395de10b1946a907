import { shallowRef } from 'vue'
import { ApiError } from '~/api/client'

/** Does what can fail; what went wrong is said, in words that stay until the next try. */
export function useAttempt() {
  const problem = shallowRef('')
  /** Of the last failure; 0 where the server was not reached. */
  const status = shallowRef<number | null>(null)

  async function attempt(run: () => Promise<unknown>): Promise<void> {
    problem.value = ''
    status.value = null
    try {
      await run()
    }
    catch (failure) {
      if (!(failure instanceof ApiError)) throw failure
      problem.value = failure.where ? `${failure.message} (at ${failure.where})` : failure.message
      status.value = failure.status
    }
  }
  return { problem, status, attempt }
}
