import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { jobOf } from '#core/testing/jobs'
import { demoGear } from '../../demo/gear'
import { badTextAt, SIZES } from '../support/boxes'
import { Key } from '../support/browser'
import { World } from '../support/world'

/** The same of the library, the list of jobs and quick match (boxes.test.ts): every text whole, inside the window, over no other, at every width. */

let world: World
beforeAll(async () => {
  world = await World.open()
  await world.post('/gear', { models: demoGear })
  await world.putJob({ ...jobOf('3 x 5 W on 70 V 60 W'), name: 'Saint Bartholomew’s parish hall, cloister walk and the long north gallery' })
}, 120_000)
afterAll(() => world.close(), 60_000)

const quick = (line: string): [string, string, string, string[]] => [`quick “${line}”`, `/quick?line=${encodeURIComponent(line)}`, '.quick', []]
const VIEWS: [string, string, string, string[]][] = [
  ['controls', '/gear?kind=control', '.body .line', [Key.ARROW_DOWN]],
  ['compared', '/gear?kind=cable', '.body .line', [Key.ARROW_DOWN, ' ', Key.ARROW_DOWN, ' ', 'c']],
  ['nothing found', '/gear?kind=cable', '.body .line', ['f', ...'lamp']],
  ['a model', `/gear/${demoGear[6]!.id}`, '.fields', []],
  ['a table in', '/gear/in?kind=cable', '.source', []],
  ['no such model', '/gear/00000000-0000-4000-8000-000000000000', '.state', []],
  ['jobs', '/', '.row', []],
  ...['', '(4 + 4) || (4 + 4) on 300 W at 4, 180 W at 8, from 2', '40 x 5 W on 70 V 240 W', '4 x 8 on 300 W at 4', '12 x 5 W + 2 x 20 W on'].map(quick),
]

test.each(VIEWS)('%s', async (_, path, css, keys) => {
  await world.browser.size(1280, 800)
  await world.go(path)
  await world.browser.see(css)
  if (keys.length > 0) await world.browser.press(...keys)
  expect(await badTextAt(world.browser, SIZES)).toEqual([])
}, 60_000)
