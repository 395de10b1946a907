import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { outputsOf, speakersOf } from '#core/job/tree'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/**
 * A café from an empty job: fourteen ceiling speakers of 5 W and two of 20 W on 70 V 240 W. By the mouse alone, by keys alone, by the
 * thumb alone; every press is counted, and docs/acts.md says how many.
 */

let world: World
let browser: Browser
let acts = 0
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
}, 120_000)
afterAll(() => world.close(), 60_000)

const jobId = async () => (await browser.path()).split('/')[2]!.split('?')[0]!
async function cafe(): Promise<unknown> {
  await browser.see('.kept', 'saved')
  const { job } = await world.readJob(await jobId())
  return outputsOf(job as never).map(o => [o.rating, speakersOf(o.wiring).map(s => s.load.kind === 'tap' ? s.load.tapW : null).join(' '), speakersOf(o.wiring).map(s => s.label).at(-1)])
}
const WANTED = [[{ kind: 'constant-voltage', lineV: 70.71, powerW: 240 }, [...Array(14).fill(5), 20, 20].join(' '), '16']]

async function byPressing(press: (css: string, text?: string) => Promise<void>): Promise<void> {
  await press('.head button', 'new job')
  await press('.ways .offer', 'An amplifier')
  await press('.usual .tap', '70 V')
  await press('.usual .tap', '240 W')
  await press('.action-row .act', 'add')
  await press('[role=tab]', 'Change')
  await press('form .tap', 'tap 5 W')
  for (const more of ['5 more', '5 more', '1 more', '1 more']) await press(`[aria-label="${more}"]`)
  await press('button', 'like 01 behind it')
  // On a narrow rail the equals hang as one tag.
  await press('[aria-label^="Speaker 14,"], [aria-label*="alike, 02–14"]')
  await press('.action-row .act', 'add')
  await press('form .tap', 'tap 20 W')
  await press('.action-row .act', 'add')
}

test('by the mouse alone', async () => {
  await browser.size(1280, 800)
  await world.go('/')
  await browser.see('.quickline')
  acts = 0
  await byPressing(async (css, text) => {
    acts++
    await browser.click(css, text)
  })
  expect(await cafe()).toEqual(WANTED)
  expect(acts).toBeLessThanOrEqual(17)
}, 60_000)

test('by keys alone', async () => {
  await world.go('/')
  await browser.see('.quickline')
  acts = 0
  const keys = async (...all: string[]) => {
    acts += all.length
    await browser.press(...all)
  }
  await keys('c')
  await browser.see('.rename input')
  await keys(Key.ENTER, 'A')
  await browser.see('.rail-row')
  await keys('e')
  await keys(Key.TAB, Key.TAB, ...'70 V 240 W', Key.ENTER, Key.ESCAPE)
  await keys('a')
  await browser.see('.tag.chosen', '01')
  // As a hand that knows it: the whole line typed and pasted would be shorter still; here every speaker comes by its key.
  await keys('-', ...'a'.repeat(15))
  await browser.see('.tag.chosen', '16')
  await browser.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_LEFT).keyUp(Key.SHIFT).perform()
  acts++
  await keys('=', '=')
  expect(await cafe()).toEqual(WANTED)
  expect(acts).toBeLessThanOrEqual(45)
}, 60_000)

test('by the thumb alone', async () => {
  await browser.size(390, 844, true)
  await browser.cdp('Emulation.setTouchEmulationEnabled', { enabled: true })
  await world.go('/')
  await browser.see('.quickline')
  acts = 0
  await byPressing(async (css, text) => {
    const element = await browser.see(css, text)
    // As a thumb scrolls: what is wanted stands above the sheet.
    await browser.run('arguments[0].scrollIntoView({ block: arguments[0].closest(".pane") ? "nearest" : "start" })', element)
    // Where a finger would touch it: what lies over it takes the touch.
    const { x, y } = await browser.run<{ x: number, y: number }>('const r = arguments[0].getBoundingClientRect(); return { x: r.left + r.width / 2, y: r.top + r.height / 2 }', element)
    acts++
    await browser.cdp('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ x, y }] })
    await browser.cdp('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  })
  expect(await cafe()).toEqual(WANTED)
  expect(acts).toBeLessThanOrEqual(17)
  await browser.cdp('Emulation.setTouchEmulationEnabled', { enabled: false })
}, 60_000)
