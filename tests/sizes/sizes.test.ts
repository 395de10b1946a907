import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { axeFinds, THEMES } from '../support/axe'
import { ALL_SIZES, badTextAt, type Size } from '../support/boxes'
import { outOfReach } from '../support/reach'
import { openView, VIEW_NAMES, viewsOf, type View } from '../support/views'
import { World } from '../support/world'

/**
 * The whole matrix: every view and dialog at every size (texts whole and in the window, what can be pressed large enough, names that hold the words seen),
 * opened on a phone and at a desk, and by day, by night and in forced colours (axe-core). npm test has four sizes of it.
 */
let world: World
let views: View[] = []
beforeAll(async () => {
  world = await World.open()
  views = await viewsOf(world)
}, 120_000)
afterAll(() => world.close(), 60_000)

test.each(VIEW_NAMES)('%s', async (name) => {
  const view = views.find(v => v.name === name)!
  const found: string[] = []
  const ways: [Size, readonly Size[]][] = [[[1280, 800, false], ALL_SIZES], [[390, 844, true], ALL_SIZES.filter(([width]) => width <= 390)]]
  for (const [opened, sizes] of ways) {
    await world.browser.size(...opened)
    await openView(world, view)
    for (const size of sizes) {
      found.push(...await badTextAt(world.browser, [size]))
      found.push(...(await outOfReach(world.browser, size[2] ? 44 : 24)).map(bad => `${size[0]} × ${size[1]}: ${bad}`))
    }
    await world.browser.size(...opened)
    for (const theme of THEMES) found.push(...(await axeFinds(world.browser, theme)).map(bad => `${opened[0]} px, ${theme.name}: ${bad}`))
  }
  expect(found).toEqual([])
}, 240_000)
