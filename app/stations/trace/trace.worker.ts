import type { Given } from '#core/trace/given'
import { traceInSteps, type TraceAsked, type TraceView } from '#core/trace/trace'

/** A trace beside the page. One question, one worker: who has another question ends it. */
export interface TraceQuestion { given: Given, asked: TraceAsked }
export type TraceSaid = { done: number } | { view: TraceView, isWhole: boolean } | { problem: string }

/** Progress is said no more often than this. */
const SAY_EVERY_MS = 100

self.onmessage = ({ data: { given, asked } }: MessageEvent<TraceQuestion>) => {
  const say = (said: TraceSaid) => self.postMessage(said)
  try {
    const steps = traceInSteps(given, asked)
    let saidAt = performance.now()
    for (;;) {
      const step = steps.next()
      if (step.done) return say({ view: step.value, isWhole: true })
      if (step.value.view) say({ view: step.value.view, isWhole: false })
      else if (performance.now() - saidAt > SAY_EVERY_MS) {
        saidAt = performance.now()
        say({ done: step.value.done })
      }
    }
  }
  catch (error) {
    say({ problem: error instanceof Error ? error.message : String(error) })
  }
}
