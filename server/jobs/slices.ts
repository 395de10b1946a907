/** Longest stretch of computing in one go, ms. A request of somebody else takes its turn some five times, between its own questions to the database. */
const SLICE_MS = 6

/** Runs steps to their end and lets other requests in between. */
export async function inSlices<T>(steps: Generator<unknown, T>): Promise<T> {
  for (;;) {
    const until = performance.now() + SLICE_MS
    let step = steps.next()
    while (!step.done && performance.now() < until) step = steps.next()
    if (step.done) return step.value
    await new Promise(resolve => setImmediate(resolve))
  }
}
