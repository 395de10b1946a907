import { randomUUID } from 'node:crypto'
import { unstatedModel } from '#core/gear/models'
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

/** Counts presses, and notes how long each took to be painted. */
const WATCH = `window.times = []; window.presses = 0
  addEventListener('keydown', () => { window.presses++ }, true)
  new PerformanceObserver(list => { for (const e of list.getEntries()) if (e.name === 'keydown') window.times.push(e.duration) }).observe({ type: 'event', durationThreshold: ${LEAST_REPORTED_MS}, buffered: false })`
async function timesOf({ browser }: World): Promise<number[]> {
  const { times, presses } = await browser.run<{ times: number[], presses: number }>('return { times: window.times, presses: window.presses }')
  return [...times, ...new Array<number>(Math.max(0, presses - times.length)).fill(LEAST_REPORTED_MS)]
}

const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))

/** Five rails of forty chosen with Ctrl, then a tap down and up, so many times. */
async function batchMs({ browser }: World): Promise<number> {
  await browser.press(Key.ESCAPE, Key.HOME)
  // As they are drawn: a tag may stand for several.
  await browser.run(`let count = 0
    for (const tag of document.querySelectorAll('[data-node]')) {
      if (count >= 200) break
      tag.dispatchEvent(new MouseEvent('click', { bubbles: true, ctrlKey: count > 0 }))
      count += (tag.dataset.nodes ?? 'x').split(' ').length
    }`)
  await pause(500)
  const chosen = await browser.run<number>('return Number(/\\d+/.exec(document.querySelector(".about").textContent)[0])')
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

/**
 * From a key to the frame after the one that shows what it did. The browser's own event timing, which the run sheet is measured by, counts what a key does
 * in a table that is scrolled as painted only when it scrolls again, though its frames are there (seen in a recording of them).
 */
const WATCH_FRAMES = `window.times = []
  addEventListener('keydown', e => requestAnimationFrame(() => requestAnimationFrame(() => window.times.push(performance.now() - e.timeStamp))), true)`

/** Key press to paint in a table of ten thousand models, at the 95th percentile: along it, to its end, a search by the letter. */
export async function gearKeysMs(): Promise<number> {
  const world = await World.open()
  try {
    const models = Array.from({ length: 10_000 }, (_, k) => ({ id: randomUUID(), kind: 'speaker', body: {
      ...unstatedModel('speaker', `Model ${k}`), nominalOhm: 4 + k % 13, continuousW: 5 + k % 97, price: k % 500,
    } }))
    await world.post('/gear', { models })
    const { browser } = world
    await world.go('/gear')
    await browser.see('.body .line')
    await pause(1500)
    await browser.run(WATCH_FRAMES)
    const keys = [Key.ARROW_DOWN, Key.ARROW_DOWN, Key.END, Key.ARROW_UP, Key.PAGE_UP, Key.HOME, ' ', 'f', ...'model 77', Key.ESCAPE, Key.ESCAPE]
    for (let k = 0; k < 5 * keys.length; k++) {
      await browser.press(keys[k % keys.length]!)
      await pause(120)
    }
    return quantile(await browser.run<number[]>('return window.times'), 0.95)
  }
  finally {
    await world.close()
  }
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
    await browser.run(WATCH)
    const keys = ['=', '-', Key.ARROW_RIGHT, '=', Key.ARROW_DOWN, 'a', 'u']
    for (let k = 0; k < 105; k++) {
      await browser.press(keys[k % keys.length]!)
      await new Promise(resolve => setTimeout(resolve, 120))
    }
    const all = await timesOf(world)
    const [batch, scroll] = [await batchMs(world), await scrollFrameMs(world)]
    return { presses: all.length, medianMs: quantile(all, 0.5), p95Ms: quantile(all, 0.95), batchMs: batch, scrollFrameMs: scroll }
  }
  finally {
    await world.close()
  }
}
