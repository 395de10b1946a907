import { quantile } from './timing'

export async function timed(run: () => Promise<unknown>): Promise<number> {
  const from = performance.now()
  await run()
  return performance.now() - from
}

/** The longest that anybody else waits for what `ask` asks while `run` is at work, over what an idle server takes; and how long `run` took. */
export const waitsOf = (ask: () => Promise<unknown>) => async (run: () => Promise<unknown>): Promise<{ ms: number, heldMs: number }> => {
  const idle: number[] = []
  for (let k = 0; k < 40; k++) idle.push(await timed(ask))
  let isDone = false
  const waits: number[] = []
  const asking = (async () => {
    while (!isDone) {
      waits.push(await timed(ask))
      await new Promise(resolve => setTimeout(resolve, 2))
    }
  })()
  const ms = await timed(run)
  isDone = true
  await asking
  return { ms, heldMs: Math.max(0, ...waits) - quantile(idle, 0.5) }
}
