import { onBeforeUnmount, shallowRef } from 'vue'
import { toDocument } from '#core/job/document'
import { Records } from '#core/job/records'
import type { Job } from '#core/job/schema'
import type { PlanAsked, TapPlan } from '#core/match/plan/tapPlan'
import type { TapsAnswer, TapsAsked } from './taps.worker'

/** What is done sooner says nothing of being at work. */
const SAY_AFTER_MS = 500

/** Plans taps in a worker: one at a time, the newest wins, and it can be called off. */
export function useTapPlan() {
  const plan = shallowRef<TapPlan | null>(null)
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

  function start(job: Job, asked: PlanAsked): void {
    stop()
    problem.value = ''
    timer = setTimeout(() => { isSlow.value = true }, SAY_AFTER_MS)
    worker = new Worker(new URL('./taps.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<TapsAnswer>) => {
      if ('plan' in data) plan.value = data.plan
      else problem.value = `The plan came to no end: ${data.problem}`
      stop()
    }
    worker.onerror = () => {
      problem.value = 'The planner could not be loaded: it comes from the server, which is away.'
      stop()
    }
    // Readings do not bear on taps, and may be many.
    worker.postMessage({ document: toDocument({ ...job, readings: Records.of(), repairs: Records.of() }), asked } satisfies TapsAsked)
  }

  onBeforeUnmount(stop)
  return { plan, problem, isSlow, start, stop }
}
