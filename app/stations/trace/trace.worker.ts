import type { Given } from '#core/trace/given'
import { findInSteps, viewOf, type Found, type TraceAsked, type TraceView } from '#core/trace/trace'

/**
 * A trace beside the page. A line as it was read is tried out once; what somebody cannot do, or where they stand, is asked of that again. Who has another
 * line, or another reading, ends the worker.
 */
export type TraceQuestion = { given: Given, asked: TraceAsked } | { asked: TraceAsked }
export type TraceSaid = { done: number } | { view: TraceView, isWhole: boolean } | { problem: string }

/** Progress is said no more often than this. */
const SAY_EVERY_MS = 100

let found: Found | null = null

self.onmessage = ({ data }: MessageEvent<TraceQuestion>) => {
  const say = (said: TraceSaid) => self.postMessage(said)
  try {
    if ('given' in data) found = foundBeside(data.given, data.asked, say)
    if (found) say({ view: viewOf(found, data.asked), isWhole: true })
  }
  catch (error) {
    say({ problem: error instanceof Error ? error.message : String(error) })
  }
}

function foundBeside(given: Given, asked: TraceAsked, say: (said: TraceSaid) => void): Found {
  const steps = findInSteps(given, asked)
  let saidAt = performance.now()
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
    if (step.value.view) say({ view: step.value.view, isWhole: false })
    else if (performance.now() - saidAt > SAY_EVERY_MS) {
      saidAt = performance.now()
      say({ done: step.value.done })
    }
  }
}
