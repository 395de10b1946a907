/** Longest stretch of work in one go, ms: a frame has room for the rest of the page beside it. */
const SLICE_MS = 8

/**
 * Runs steps to their end without holding the page. @param onSlice hears after each slice; false calls the work off
 * @returns what the steps return; null where they were called off
 */
export async function inSlices<T>(steps: Generator<unknown, T>, onSlice: () => boolean = () => true): Promise<T | null> {
  for (;;) {
    const until = performance.now() + SLICE_MS
    let step = steps.next()
    while (!step.done && performance.now() < until) step = steps.next()
    if (step.done) return onSlice() ? step.value : null
    if (!onSlice()) return null
    await new Promise(resolve => setTimeout(resolve))
  }
}

/** The same steps, each told. */
export function* counted<T>(steps: Generator<void, T>, onStep: () => void): Generator<void, T> {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
    onStep()
    yield
  }
}
