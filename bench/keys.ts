import { Key } from '../tests/support/browser'
import { World } from '../tests/support/world'
import { largeJob } from './job'
import { quantile } from './timing'

export interface KeyTimes {
  presses: number
  medianMs: number
  p95Ms: number
  /** One act on 200 chosen speakers, press to paint: the median of several. */
  batchMs: number
  /** Between two frames while the sheet is scrolled from end to end: the 95th percentile. */
  scrollFrameMs: number
}

/** What the browser counts as at once: shorter events it does not report. */
const LEAST_REPORTED_MS = 16

const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))

/** Five rails of forty chosen with Ctrl, then a tap down and up, so many times. */
async function batchMs({ browser }: World): Promise<number> {
  await browser.press(Key.ESCAPE, Key.HOME)
  await browser.run(`const tags = [...document.querySelectorAll('[data-node]')].slice(0, 200)
    tags.forEach((tag, k) => tag.dispatchEvent(new MouseEvent('click', { bubbles: true, ctrlKey: k > 0 })))`)
  await pause(500)
  const chosen = await browser.run<number>('return document.querySelectorAll(".tag.among").length')
  if (chosen !== 200) throw new Error(`${chosen} of 200 chosen`)
  await browser.run('window.times = []')
  for (let k = 0; k < 20; k++) {
    await browser.press(k % 2 === 0 ? '-' : '=')
    await pause(400)
  }
  return quantile(await browser.run<number[]>('return window.times'), 0.5)
}

async function scrollFrameMs({ browser }: World): Promise<number> {
  const frames = await browser.run<number[]>(`const done = []
    const rails = document.querySelector('.rails')
    rails.scrollTop = 0
    return new Promise((resolve) => {
      let last = performance.now()
      const step = (now) => {
        done.push(now - last)
        last = now
        rails.scrollTop += 60
        if (rails.scrollTop + rails.clientHeight >= rails.scrollHeight - 1) resolve(done)
        else requestAnimationFrame(step)
      }
      requestAnimationFrame(step)
    })`)
  return quantile(frames.slice(2), 0.95)
}

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
    return { presses, medianMs: quantile(all, 0.5), p95Ms: quantile(all, 0.95), batchMs: await batchMs(world), scrollFrameMs: await scrollFrameMs(world) }
  }
  finally {
    await world.close()
  }
}
