/** Longest stretch of computing in one go, ms. Others wait no longer than this for their turn. */
const SLICE_MS = 12

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
