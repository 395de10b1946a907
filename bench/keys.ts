import { Key } from '../tests/support/browser'
import { World } from '../tests/support/world'
import { largeJob } from './job'
import { quantile } from './timing'

export interface KeyTimes { presses: number, medianMs: number, p95Ms: number }

/** What the browser counts as at once: shorter events it does not report. */
const LEAST_REPORTED_MS = 16

/** Key press to next paint on the run sheet of the large job, by the browser's own event timing. */
export async function keyTimes(): Promise<KeyTimes> {
  const world = await World.open()
  try {
    const id = await world.putJob(largeJob())
    await world.go(`/jobs/${id}`)
    const { browser } = world
    await browser.see('.rail-row')
    await browser.press(Key.HOME, Key.ARROW_RIGHT)
    await browser.run(`window.times = []; window.presses = 0
      addEventListener('keydown', () => { window.presses++ }, true)
      new PerformanceObserver(list => { for (const e of list.getEntries()) if (e.name === 'keydown') window.times.push(e.duration) }).observe({ type: 'event', durationThreshold: ${LEAST_REPORTED_MS}, buffered: false })`)
    const keys = ['=', '-', Key.ARROW_RIGHT, '=', Key.ARROW_DOWN, 'a', 'u']
    for (let k = 0; k < 105; k++) {
      await browser.press(keys[k % keys.length]!)
      await new Promise(resolve => setTimeout(resolve, 120))
    }
    const { times, presses } = await browser.run<{ times: number[], presses: number }>('return { times: window.times, presses: window.presses }')
    const all = [...times, ...new Array<number>(Math.max(0, presses - times.length)).fill(LEAST_REPORTED_MS)]
    return { presses, medianMs: quantile(all, 0.5), p95Ms: quantile(all, 0.95) }
  }
  finally {
    await world.close()
  }
}
