/** Median time of a function in ms, over enough runs to fill `budgetMs` (at least five), after a warm-up. */
export function medianMs(run: () => void, budgetMs = 1500): number {
  for (let k = 0; k < 3; k++) run()
  const times: number[] = []
  const until = performance.now() + budgetMs
  while (times.length < 5 || (performance.now() < until && times.length < 2000)) {
    const from = performance.now()
    run()
    times.push(performance.now() - from)
  }
  return quantile(times, 0.5)
}

export function quantile(values: number[], q: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))]!
}

/** As many figures as matter. */
export const ms = (value: number) => value >= 100 ? value.toFixed(0) : value >= 1 ? value.toFixed(2) : value.toFixed(4)
