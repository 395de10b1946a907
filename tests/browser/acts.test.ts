import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { Job } from '#core/job/schema'
import { branchesOf, outputsOf, speakersOf, throughsOf } from '#core/job/tree'
import { evaluateJob } from '#core/line/evaluate'
import { demoGear } from '../../demo/gear'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/** Whole tasks from an empty job, with every press and every key counted: what a person has to do, and no more. */
let world: World
let browser: Browser
let clicks = 0
let keys = 0
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
  await world.post('/gear', { models: demoGear })
}, 120_000)
afterAll(() => world.close(), 60_000)

async function click(css: string, text?: string): Promise<void> {
  clicks++
  await browser.click(css, text)
}
async function press(...pressed: string[]): Promise<void> {
  keys += pressed.length
  await browser.press(...pressed)
}
async function begin(): Promise<void> {
  await world.go('/')
  await browser.see('.quickline')
  clicks = keys = 0
}
async function stored(): Promise<Job> {
  await browser.see('.kept', 'saved')
  return (await world.readJob((await browser.path()).split('/')[2]!.split('?')[0]!)).job as unknown as Job
}

test('a restaurant of three rooms, from nothing to amplifiers, cable and two controls', async () => {
  await begin()
  await press('c')
  await browser.see('.rename input')
  await press(Key.ENTER, '1')
  await browser.see('.space-form')
  // A room: its name, its floor; what it is for stands; how loud it is there by a press.
  const room = async (name: string, floor: string, noise: string) => {
    await press(...name, Key.TAB, ...floor, Key.ENTER)
    await click('.space-form .tap', noise)
  }
  await room('Dining', '12x8', 'a café')
  await click('.space-form button', 'a model of the library')
  await browser.see('.pick .model')
  await press(...'can 130', Key.ENTER)
  await browser.see('.space-form [role=combobox]', 'Ceiling 130 back-can')
  await press('f', 'g')
  await browser.see('[data-spot]')
  await press('H')
  for (const [name, floor, noise] of [['Bar', '8x6', 'a busy bar'], ['Hall', '6x4', 'a shop']] as const) {
    await press('A')
    await browser.see('.said.shown', 'Like ')
    await browser.driver.wait(() => browser.run('return document.activeElement.closest(".space-form") !== null'), 4000)
    await room(name, floor, noise)
    await press('g')
    await browser.see('[data-spot]')
    await press('H')
    await browser.see('.said.shown', 'now')
  }
  // Each hangs on the lowest tap that reaches its target: nothing is left to plan.
  await press('F')
  await browser.see('.set .leads')
  await press(Key.ENTER)
  await browser.gone('[role=dialog]')
  await press('v')
  await browser.see('.rail-row')
  // Cable of all that has none, by a press.
  await press('b')
  await click('[role=dialog] .tap', '1.5 mm²')
  await press(Key.ESCAPE)
  await browser.gone('[role=dialog]')
  for (const line of ['Dining', 'Bar']) {
    await click('.rail-row .tag', '01')
    if (line === 'Bar') await press(Key.ARROW_DOWN)
    await press('w', 'C')
    await browser.see('.pane .model')
    // The second is like the first, where that carries it; else it is chosen, too.
    await click('.pane .library')
    await browser.see('.pick .fits')
    await press(Key.ENTER)
    await browser.see('.said.shown', 'is Wall control')
    await press(Key.ESCAPE)
  }
  const job = await stored()
  const lines = evaluateJob(job)
  expect(job.spaces.map(s => [s.name, s.spots.length > 0 && s.spots.every(p => p.nodeId !== null)])).toEqual([['Dining', true], ['Bar', true], ['Hall', true]])
  expect(outputsOf(job).filter(o => speakersOf(o.wiring).length > 0).length).toBeGreaterThanOrEqual(3)
  expect(job.amplifiers.some(a => a.from !== null)).toBe(true)
  // The first length is not known, since the way from the rack is not: every length that is stated has its size.
  expect(outputsOf(job).flatMap(o => branchesOf(o.wiring)).every(b => b.lead === null || b.lead.cable !== null)).toBe(true)
  expect(throughsOf(job).map(t => t.through.kind)).toEqual(['control', 'control'])
  expect(lines.flatMap(l => l.findings).filter(f => f.code === 'control-over')).toEqual([])
  console.log(`restaurant: ${clicks} clicks, ${keys} keys`)
  expect([clicks <= 20, keys <= 100]).toEqual([true, true])
}, 120_000)

test('a church hall: four columns, a dual-coil sub on a bridged pair, a limiter, and what if', async () => {
  await begin()
  await press('c')
  await browser.see('.rename input')
  await press(Key.ENTER, '5', ...'(8 + 8) || (8 + 8)', Key.ENTER)
  await browser.see('.rail-row')
  await press(Key.ESCAPE, Key.HOME, 'e')
  await click('.pane .model .act', 'a model of the library')
  await browser.see('.pick .model')
  await press(...'power 200', Key.ENTER)
  await browser.see('.said.shown', 'ratings taken over')
  await press(Key.ESCAPE, Key.ARROW_DOWN, 'a', 'e')
  await click('.pane .library')
  await browser.see('.pick .model')
  await press(...'dual', Key.ENTER)
  await browser.see('.said.shown', 'Sub 250 dual coil')
  await press(Key.ESCAPE, Key.HOME, 'e')
  await click('.pane .tap', 'two, bridged')
  await press(Key.ESCAPE, Key.ARROW_UP, Key.HOME, 'e')
  await browser.see('.pane label', 'A limiter holds it at')
  const id = await browser.run<string>('return [...document.querySelectorAll(".pane label")].find(l => l.textContent.includes("A limiter holds it at")).htmlFor')
  await click(`[id="${id}"]`)
  await press(...'30 V', Key.ENTER, 'W')
  await click('[role=dialog] button', 'Keep this wiring')
  await press(Key.ESCAPE)
  await browser.gone('[role=dialog]')
  const job = await stored()
  const [a1, a2] = outputsOf(job)
  expect([speakersOf(a1!.wiring).length, a1!.limiterV, speakersOf(a2!.wiring).map(s => s.name), job.variants.length]).toEqual([4, 30, ['Sub 250 dual coil, 120 W'], 1])
  expect(a2!.rating).toMatchObject({ kind: 'solid-state', mode: 'bridged' })
  console.log(`church hall: ${clicks} clicks, ${keys} keys`)
  expect([clicks <= 12, keys <= 90]).toEqual([true, true])
}, 120_000)
