import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { Group } from '#core/job/schema'
import { outputsOf, throughsOf } from '#core/job/tree'
import { cabled, jobOf } from '#core/testing/jobs'
import { demoGear } from '../../demo/gear'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/** A control before a stretch of a rail: chosen, put there, made one of the library, found too small, mended, turned, taken out; each one press to undo. */

let world: World
let browser: Browser
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
  await world.post('/gear', { models: demoGear })
}, 120_000)
afterAll(() => world.close(), 60_000)

const line = cabled(jobOf('8 x 10 W on 70 V 240 W'), { cable: { awg: 16 }, lengthM: 6 })
const openLine = async () => {
  const id = await world.putJob(line)
  await world.go(`/jobs/${id}`)
  await browser.see('.rail-row')
  const stored = async () => {
    await browser.see('.kept', 'saved')
    return (await world.readJob(id)).job
  }
  const drawn = async () => {
    const job = await stored()
    const text = (group: Group): string => group.children.map(({ node }) => node.kind === 'speaker' ? `${node.label}:${node.load.kind === 'tap' ? node.load.tapW : ''}` : `${node.through?.label}(${text(node)})`).join(' ')
    return text(outputsOf(job as never)[0]!.wiring)
  }
  return { stored, drawn, controls: async () => throughsOf(await stored() as never).map(t => t.through) }
}

test('by keys: a stretch chosen, a control before it from the library, its rating found short, the remedy taken, all undone in one press each', async () => {
  const { drawn, controls } = await openLine()
  await browser.press(Key.HOME, Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ARROW_RIGHT)
  for (let k = 0; k < 3; k++) await browser.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_RIGHT).keyUp(Key.SHIFT).perform()
  await browser.press('C')
  await browser.see('g.box', 'C1')
  await browser.see('.said.shown', 'C1 is before them; choose which one it is')
  expect(await drawn()).toBe('01:10 02:10 C1(03:10 04:10 05:10 06:10) 07:10 08:10')
  await browser.click('.library')
  await browser.press(...'control 35', Key.ENTER)
  await browser.see('.said.shown', 'C1 is Wall control 35 W now')
  expect(await controls()).toEqual([{ kind: 'control', label: 'C1', name: 'Wall control 35 W', from: { modelId: expect.any(String), version: 1, passed: null }, setDb: null, stepsDb: [0, 3, 6, 9, 12, 15, 18, 21, 24, 27], ratingW: 35, lineV: 70.71, insertionDb: 0.4 }])
  await browser.press(Key.ESCAPE, 'f')
  await browser.see('.finding', 'Behind C1 hang 40 W; it is rated 35 W. Over by 5 W.')
  expect(await (await browser.see('g.box')).getAttribute('aria-label')).toMatch(/^Volume control C1, Wall control 35 W, level not stated, 40\/35, 40 W behind it, rated 35 W, before 03, 04, 05, 06, on A1$/)
  await browser.press('1')
  await browser.gone('.finding', 'Over by 5 W')
  expect(await drawn()).toBe('01:10 02:10 C1(03:5 04:5 05:5 06:5) 07:10 08:10')
  await browser.press('-', '-')
  await browser.see('g.box', '−6 dB')
  expect((await controls())[0]).toMatchObject({ setDb: 6 })
  await browser.press('u', 'u')
  expect((await controls())[0]).toMatchObject({ setDb: null })
  await browser.press('u')
  expect(await drawn()).toBe('01:10 02:10 C1(03:10 04:10 05:10 06:10) 07:10 08:10')
  await browser.press('u')
  expect((await controls())[0]).toMatchObject({ ratingW: null })
  await browser.press('u')
  expect(await drawn()).toBe('01:10 02:10 03:10 04:10 05:10 06:10 07:10 08:10')
}, 60_000)

test('by mouse: put before the whole rail, turned, another speaker behind it, taken out; what cannot be is said', async () => {
  const { drawn, controls } = await openLine()
  await browser.click('.terminal .core')
  await browser.click('.foot .action-row .act', 'whole rail')
  await browser.click('.foot .action-row .act', 'control')
  await browser.see('g.box', 'C1')
  await browser.click('.taps .tap', '−9')
  await browser.see('g.box', '−9 dB')
  await browser.see('.fine', 'as its controls stand')
  await browser.click('.foot .action-row .act', 'step +')
  await browser.see('g.box', '−6 dB')
  await browser.click('.foot .action-row .act', 'add behind')
  await browser.see('.said.shown', 'added')
  expect(await drawn()).toBe('C1(01:10 02:10 03:10 04:10 05:10 06:10 07:10 08:10 09:10)')
  await browser.press('C')
  await browser.see('.picker', '09 alone')
  await browser.press('1')
  await browser.see('.refusal, .said.shown', 'a control behind a control')
  expect(await controls()).toHaveLength(1)
  await browser.click('g.box')
  await browser.click('.foot .action-row .act', 'take out')
  await browser.gone('g.box')
  expect(await drawn()).toBe('01:10 02:10 03:10 04:10 05:10 06:10 07:10 08:10 09:10')
}, 60_000)

test('a zone of a stretch: named, marked on the rail, given a control of its own, given up; the cable of the job by size and price', async () => {
  const { drawn, stored } = await openLine()
  await browser.press(Key.HOME, Key.ARROW_RIGHT)
  for (let k = 0; k < 2; k++) await browser.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_RIGHT).keyUp(Key.SHIFT).perform()
  await browser.fill('A new zone, named', 'Shop', '.pane .zone')
  await browser.see('.rail .zone text', 'Shop')
  await browser.see('.pane .zone', 'Nothing gives it a level of its own but the taps of its speakers.')
  await browser.see('.way', '30 W behind it. 31.00 by the library (Wall control 35 W).')
  await browser.see('.way', 'together 9 dB down, 4.8 dB up from now')
  await browser.click('.way .act', 'put it there')
  await browser.see('g.box', 'C1')
  await browser.see('.pane .zone', 'Its level is that of C1.')
  expect(await drawn()).toBe('C1(01:10 02:10 03:10) 04:10 05:10 06:10 07:10 08:10')
  await browser.click('.pane .zone .act', 'give up this zone')
  await browser.gone('.rail .zone')
  await browser.driver.wait(async () => (await stored()).zones.length === 0, 5000)
  await browser.run('document.activeElement.blur()')
  await browser.press('u')
  await browser.see('.rail .zone text', 'Shop')
  await browser.press('b')
  await browser.see('[role=dialog] table', 'Pair 16 AWG')
  expect((await (await browser.see('[role=dialog] tbody tr')).getText()).replace(/\s+/g, ' ')).toBe('16 AWG 8 48 m 53 m 32.86 Pair 16 AWG')
  await browser.press(Key.ESCAPE)
}, 60_000)

test('by thumb at 390 px: a control before one speaker, off and on', async () => {
  await browser.size(390, 844, true)
  try {
    const { drawn, controls } = await openLine()
    await browser.click('[data-node]')
    await browser.click('.pane .action-row .act', 'control')
    await browser.click('.picker .offer', '01 alone')
    await browser.see('.pane .library')
    await browser.click('.taps .tap', 'off')
    await browser.see('g.box', 'off')
    expect([await drawn(), (await controls())[0]]).toEqual(['C1(01:10) 02:10 03:10 04:10 05:10 06:10 07:10 08:10', expect.objectContaining({ setDb: 'off' })])
    expect(await browser.run('return document.documentElement.scrollWidth <= innerWidth')).toBe(true)
  }
  finally {
    await browser.size(1280, 800)
  }
}, 60_000)
