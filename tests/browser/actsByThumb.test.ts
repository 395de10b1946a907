import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { Job } from '#core/job/schema'
import { outputsOf, speakersOf, throughsOf } from '#core/job/tree'
import { demoGear } from '../../demo/gear'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/**
 * The two tasks of acts.test.ts by the thumb alone on a phone, 390 × 844: nothing is pressed on a keyboard but what is typed into a field, and the key of the
 * phone's own that ends it. Touches are counted; the letters are those that the task asks for.
 */
let world: World
let browser: Browser
let touches = 0
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
  await world.post('/gear', { models: demoGear })
  await browser.size(390, 844, true)
}, 120_000)
afterAll(() => world.close(), 60_000)

async function touch(css: string, text?: string): Promise<void> {
  touches++
  const element = await browser.see(css, text)
  await browser.run('arguments[0].scrollIntoView({ block: "center" })', element)
  await element.click()
}
/** What is typed where the field stands already, with the phone's own key at its end. */
const type = (text: string) => browser.press(...text, Key.ENTER)
/** By the list behind “more”. */
async function fromMore(row: string, says: string): Promise<void> {
  await touch(`${row} .act`, 'more')
  await touch('.found .one', says)
}
async function into(label: string, text: string): Promise<void> {
  const id = await browser.run<string>('return [...document.querySelectorAll("label")].find(l => l.textContent.includes(arguments[0]) && l.htmlFor && document.getElementById(l.htmlFor)?.checkVisibility()).htmlFor', label)
  await touch(`[id="${id}"]`)
  await browser.typeOver(text)
  await browser.press(Key.ENTER)
}
async function newJob(way: string): Promise<void> {
  await world.go('/')
  await browser.see('.quickline')
  touches = 0
  await touch('.head button', 'new job')
  await browser.see('.rename input')
  await browser.press(Key.ENTER)
  await touch('.ways .offer', way)
}
async function stored(): Promise<Job> {
  await browser.see('.kept', 'saved')
  return (await world.readJob((await browser.path()).split('/')[2]!.split('?')[0]!)).job as unknown as Job
}

test('a restaurant of three rooms, from nothing to amplifiers, cable and two controls', async () => {
  await newJob('A room')
  for (const [name, floor, noise] of [['Dining', '12x8', 'a café'], ['Bar', '8x6', 'a busy bar'], ['Hall', '6x4', 'a shop']] as const) {
    if (name !== 'Dining') await touch('.spaces .act', '+ space')
    await browser.driver.wait(() => browser.run('return document.activeElement.closest(".space-form") !== null'), 4000)
    await type(name)
    await into('Floor', floor)
    await touch('.space-form .tap', noise)
    if (name === 'Dining') {
      await touch('.space-form button', 'a model of the library')
      await browser.see('.pick .model')
      await browser.press(...'can 130')
      await touch('.pick .model', 'Ceiling 130 back-can')
    }
    await touch('.space-foot .act', 'lay out')
    await touch('.space-foot [title^="hang speakers"]')
    await browser.see('.said.shown', 'now')
  }
  await touch('.space-foot .act', 'amplifiers')
  await touch('.set button', 'Put these in')
  await browser.gone('[role=dialog]')
  await touch('.stations a', 'Match')
  await touch('.rail-row .terminal')
  await fromMore('.pane', 'cable of the whole job')
  await touch('[role=dialog] .tap', '1.5 mm²')
  await touch('[role=dialog] .p-dialog-close-button')
  await browser.gone('[role=dialog]')
  const outputs = outputsOf(await stored()).filter(o => speakersOf(o.wiring).length > 0)
  for (const output of outputs.slice(0, 2)) {
    await touch(`[id="tag-${speakersOf(output.wiring)[0]!.id}"]`)
    await touch('.pane .act', 'whole rail')
    await touch('.pane .act', 'control')
    await touch('.pane .library')
    await browser.see('.pick .fits')
    await touch('.pick .model', 'Wall control')
    await browser.see('.said.shown', 'is Wall control')
    await touch('.pane .head .act', 'lower')
  }
  const job = await stored()
  expect(job.spaces.map(s => [s.name, s.spots.length > 0 && s.spots.every(p => p.nodeId !== null)])).toEqual([['Dining', true], ['Bar', true], ['Hall', true]])
  expect([job.amplifiers.some(a => a.from !== null), throughsOf(job).map(t => t.through.kind)]).toEqual([true, ['control', 'control']])
  console.log(`restaurant by the thumb: ${touches} touches`)
  expect(touches).toBeLessThanOrEqual(40)
}, 180_000)

test('a church hall: four columns, a dual-coil sub on a bridged pair, a limiter, and what if', async () => {
  await newJob('A typed line')
  await type('(8 + 8) || (8 + 8)')
  await browser.see('.rail-row')
  await touch('.rail-row .terminal')
  await touch('[role=tab]', 'Change')
  await touch('.pane .model .act', 'a model of the library')
  await browser.see('.pick .model')
  await browser.press(...'power 200')
  await touch('.pick .model')
  await browser.see('.said.shown', 'ratings taken over')
  await into('A limiter holds it at', '30 V')
  await touch('.pane .head .act', 'lower')
  await touch('.rail-row:nth-of-type(2) .terminal')
  await touch('[role=tab]', 'Change')
  await touch('.pane .tap', 'two, bridged')
  await touch('.pane .act', 'add')
  await touch('.pane .library')
  await browser.see('.pick .model')
  await browser.press(...'dual')
  await touch('.pick .model')
  await browser.see('.said.shown', 'Sub 250 dual coil')
  await touch('.pane .head .act', 'lower')
  await touch('.rail-row .terminal')
  await touch('.pane .act', 'what if')
  await touch('[role=dialog] button', 'Keep this wiring')
  await touch('[role=dialog] .p-dialog-close-button')
  const job = await stored()
  const [a1, a2] = outputsOf(job)
  expect([speakersOf(a1!.wiring).length, a1!.limiterV, speakersOf(a2!.wiring).map(s => s.name), job.variants.length]).toEqual([4, 30, ['Sub 250 dual coil, 120 W'], 1])
  expect(a2!.rating).toMatchObject({ kind: 'solid-state', mode: 'bridged' })
  console.log(`church hall by the thumb: ${touches} touches`)
  expect(touches).toBeLessThanOrEqual(25)
}, 120_000)
