import { onBeforeUnmount, shallowRef } from 'vue'
import { noRows, toDocument } from '#core/job/document'
import type { Job } from '#core/job/schema'
import type { SearchAnswer, SearchAsked, Searches, SearchName } from './search.worker'

/** What is done sooner says nothing of being at work. */
const SAY_AFTER_MS = 500

/** A search in a worker: one at a time, the newest wins, and it can be called off. */
export function useSearch<K extends SearchName>(what: K) {
  const answer = shallowRef<Searches[K]['answer'] | null>(null)
  const problem = shallowRef('')
  const isSlow = shallowRef(false)
  let worker: Worker | null = null
  let timer: ReturnType<typeof setTimeout> | undefined

  function stop(): void {
    worker?.terminate()
    worker = null
    clearTimeout(timer)
    isSlow.value = false
  }

  function start(job: Job, asked: Searches[K]['asked']): void {
    stop()
    problem.value = ''
    timer = setTimeout(() => { isSlow.value = true }, SAY_AFTER_MS)
    worker = new Worker(new URL('./search.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<SearchAnswer>) => {
      if ('answer' in data) answer.value = data.answer as Searches[K]['answer']
      else problem.value = `The search came to no end: ${data.problem}`
      stop()
    }
    worker.onerror = () => {
      problem.value = 'The search could not be loaded: it comes from the server, which is away.'
      stop()
    }
    // What only grows bears on none of these, and may be much.
    worker.postMessage({ what, document: toDocument({ ...job, ...noRows() }), asked } satisfies SearchAsked<K>)
  }

  onBeforeUnmount(stop)
  return { answer, problem, isSlow, start, stop }
}
