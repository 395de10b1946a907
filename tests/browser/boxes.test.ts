import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { ALL_SIZES, badTextAt, SIZES } from '../support/boxes'
import type { Browser } from '../support/browser'
import { outOfReach } from '../support/reach'
import { openView, VIEW_NAMES, viewsOf, type View } from '../support/views'
import { World } from '../support/world'

/**
 * Every text in sight is whole, inside the window, and over no other; what can be pressed is large enough for a finger, and called as it is seen: every view
 * and dialog, upright and sideways on a phone, at a desk and at 200 %. All sizes and themes: tests/sizes.
 */

let world: World
let browser: Browser
let views: View[] = []
const find = (name: string) => views.find(v => v.name === name)!
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
  views = await viewsOf(world)
}, 120_000)
afterAll(() => world.close(), 60_000)

/** What is wrong with the view that stands there, at these sizes. */
async function wrongAt(sizes: typeof SIZES): Promise<string[]> {
  const found: string[] = []
  for (const size of sizes) {
    found.push(...await badTextAt(browser, [size]))
    found.push(...(await outOfReach(browser, size[2] ? 44 : 24)).map(bad => `${size[0]} × ${size[1]}: ${bad}`))
  }
  return found
}

// A view is opened once, in the largest window, and seen at every size: opening each at each took four minutes of five.
test.each(VIEW_NAMES)('%s', async (name) => {
  await browser.size(1280, 800)
  await openView(world, find(name))
  expect(await wrongAt(SIZES)).toEqual([])
}, 60_000)

// What only a phone shows is opened on one.
test.each(['run sheet, a speaker', 'run sheet, a valve output', 'check', 'spaces, a place'])('%s, opened on a phone', async (name) => {
  await browser.size(390, 844, true)
  await openView(world, find(name))
  expect(await wrongAt(ALL_SIZES.filter(([width]) => width <= 390))).toEqual([])
}, 60_000)

test.each(ALL_SIZES)('at %d × %d a reading is typed with its place, its verdict and the keys in sight', async (width, height, isTouched) => {
  await browser.size(width, height, isTouched)
  await openView(world, find('check'))
  const hasKeys = width <= 900 || height <= 560
  await browser.see('.reading .value')
  if (hasKeys) for (const key of ['9', '9']) await browser.click('.pad .key', key)
  else await browser.press('r', ...'99')
  await browser.see('.result', 'Reads wrong')
  const boxes = await browser.run<Record<string, Record<'left' | 'top' | 'right' | 'bottom', number> | null>>(`
    const boxOf = css => document.querySelector(css)?.getBoundingClientRect().toJSON() ?? null
    return { place: boxOf('.place.on'), field: boxOf('.value'), verdict: boxOf('.result'), keys: boxOf('.pad') }`)
  const { keys, field } = boxes
  expect(keys !== null).toBe(hasKeys)
  const inSight = Object.entries(boxes).flatMap(([name, box]) => box ? [[name, box.top >= 0, box.bottom <= height + 1, box.right <= width + 1]] : [])
  expect(inSight).toEqual(inSight.map(([name]) => [name, true, true, true]))
  // The keys never lie over the field that they fill: upright under it, where it is low beside it.
  if (keys) expect([field!.bottom <= keys.top, field!.right <= keys.left]).toContain(true)
}, 30_000)
