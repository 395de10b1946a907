/** Runs steps to their end in one go. @param told what each yields */
export function drained<N, T>(steps: Generator<N, T>, told: (step: N) => void = () => {}): T {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
    told(step.value)
  }
}
