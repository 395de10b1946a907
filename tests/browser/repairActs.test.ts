import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { cabled, jobOf } from '#core/testing/jobs'
import { Key } from '../support/browser'
import { World } from '../support/world'

/** From the list of jobs to the proved repair of what reads wrong, counted: an act is a touch, a key or a press. */
let world: World
beforeAll(async () => { world = await World.open() }, 60_000)
afterAll(async () => { await world.close() })

let acts = 0
async function touch(css: string, text?: string): Promise<void> {
  acts++
  const element = await world.browser.see(css, text)
  await world.browser.run('arguments[0].scrollIntoView({ block: "center" })', element)
  await element.click()
}
async function key(...keys: string[]): Promise<void> {
  acts += keys.length
  await world.browser.press(...keys)
}
/** Ten of 10 W, one of which hangs on nothing: 100 Ω as drawn, read as half of the line is there. */
const line = (name: string) => ({ ...cabled(jobOf('4 x 25 W on 70 V 150 W'), { cable: { awg: 14 }, lengthM: 4 }), name })
const proved = async (id: string) => {
  await world.browser.see('.kept', 'saved')
  const { job } = await world.readJob(id)
  return [job.repairs.length, job.readings.map(r => r.value.is)]
}

test('by the thumb, 390 × 844', async () => {
  const { browser } = world
  await browser.size(390, 844, true)
  const id = await world.putJob(line('By thumb'))
  await world.go('/')
  await browser.see('.row', 'By thumb')
  acts = 0
  await touch('[aria-label^="Check of By thumb"]')
  for (const digit of '67') await touch('.keypad .key', digit)
  await touch('.keypad .record', 'Record')
  await touch('.keypad .key', 'Trace it')
  await touch('.trace button', 'Record the repair of 1')
  await touch('.trace button', 'Read again')
  for (const digit of '50') await touch('.keypad .key', digit)
  await touch('.keypad .record', 'Record')
  await browser.see('.reading', 'As it should be')
  console.log(`a repair proved by the thumb: ${acts} touches`)
  expect([acts <= 12, await proved(id)]).toEqual([true, [1, ['ohm', 'ohm']]])
}, 60_000)

test('at a desk, keys and presses', async () => {
  const { browser } = world
  await browser.size(1280, 800)
  const id = await world.putJob(line('At a desk'))
  await world.go('/')
  await browser.see('.row', 'At a desk')
  acts = 0
  await touch('[aria-label^="Check of At a desk"]')
  await browser.see('.reading .value')
  await key('r', '6', '7', Key.ENTER)
  await touch('.acts button', 'Trace it')
  await touch('.trace button', 'Record the repair of 1')
  await touch('.trace button', 'Read again')
  await browser.see('.reading .value')
  await key('5', '0', Key.ENTER)
  await browser.see('.reading', 'As it should be')
  console.log(`a repair proved at a desk: ${acts} acts`)
  expect([acts <= 14, await proved(id)]).toEqual([true, [1, ['ohm', 'ohm']]])
}, 60_000)
