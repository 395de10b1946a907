import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { saySplice } from '#core/hands/splices'
import { applyEdit } from '#core/job/apply'
import { emptyJob } from '#core/job/document'
import type { Job } from '#core/job/schema'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { marigold } from '../../demo/marigold'
import { Key } from '../support/browser'
import { axeFinds, THEMES } from '../support/axe'
import { World } from '../support/world'

let world: World
beforeAll(async () => { world = await World.open() }, 60_000)
afterAll(async () => { await world.close() })

/** What was done is with the server. */
const settled = async () => void await world.browser.driver.wait(async () => (await world.browser.run<string>('return document.querySelector(".kept")?.textContent ?? ""')).includes('saved'), 8000)

/** The boat's saloon alone: the harness with its crossed splice. */
const boat = (): Job => {
  const [amplifier] = marigold.amplifiers
  return { ...marigold, amplifiers: [{ ...amplifier!, outputs: amplifier!.outputs.slice(0, 2) }], splices: marigold.splices.map(s => s) }
}

test.each([[1280, 800, false], [390, 844, true], [844, 390, true]])('a boat with one crossed splice at %s x %s: found, corrected by one press, read again, proved', async (width, height, mobile) => {
  const { browser } = world
  await browser.size(width, height, mobile)
  const id = await world.putJob(boat())
  await world.go(`/jobs/${id}/wire?line=mg-saloon`)
  await browser.see('.wire-pane', 'One swap makes all agree')
  await browser.see('.line', 'turned round')
  await browser.click('.offer', 'At the roof junction, orange goes to violet, and orange with black to violet with black.')
  await browser.gone('.offer')
  await browser.see('.wire-pane', 'those that are known agree')
  // It is told what it has to be told: a repair, and the drawing.
  await browser.see('.line', 'right way round')
  await world.go(`/jobs/${id}/check?line=mg-saloon&speaker=mg-saloon-03&read=polarity`)
  await browser.click('.answers button', 'cone out')
  await browser.see('.reading', 'Right way round')
  await browser.see('.reading', 'stands')
  await settled()
  const { job } = await world.readJob(id)
  expect([job.splices.find(s => s.nodeId === 'mg-saloon-starboard')!.start, job.repairs.map(r => r.fault), job.readings.at(-1)!.value]).toEqual([
    'straight', ['turned-round'], { is: 'right-way', how: 'battery-run', against: null },
  ])
  expect(await browser.complaints()).toEqual([])
})

test('a bare run is named by keys alone: its pair typed, it runs on, crossed at one joint and back by undo', async () => {
  const { browser } = world
  await browser.size(1280, 800)
  const id = await world.putJob(jobOf('8 || 8 || 8'))
  await world.go(`/jobs/${id}/wire`)
  await browser.see('.line', 'not named')
  await browser.press(Key.ARROW_RIGHT, 'n')
  await browser.typeOver('green')
  await browser.press(Key.ENTER)
  await browser.see('.pair-form', 'A pair is two conductors; here is one.')
  await browser.typeOver('green, green/white')
  await browser.press(Key.ENTER)
  await browser.see('.pair-form', 'green is plus on this job.')
  await browser.press('o', Key.ARROW_RIGHT, 'x')
  await browser.see('.line', 'crossed')
  await browser.see('.wire-pane', 'One swap makes all agree')
  const turns = async () => (await world.readJob(id)).job.splices.map(s => `${s.pair?.[1].stripe} ${s.start}`)
  await browser.see('.kept', 'saved')
  expect(await turns()).toEqual(['white straight', 'white crossed', 'white straight'])
  await browser.press('u')
  await browser.gone('.offer')
  await browser.see('.kept', 'saved')
  expect(await turns()).toEqual(['white straight', 'white straight', 'white straight'])
})

test('a bare run whose conductors nobody knows is told by battery and meter; a harness in as few trips as there can be', async () => {
  const { browser } = world
  const id = await world.putJob(jobOf('8 || 8'))
  await world.go(`/jobs/${id}/wire`)
  await browser.see('.line', 'not named')
  await browser.press(Key.ARROW_RIGHT, Key.ARROW_RIGHT, 'b')
  await browser.see('[role=dialog]', 'begin with the lead nearest to the rack')
  await browser.press(Key.ESCAPE)
  await browser.gone('[role=dialog]')
  // The terminals of the first are known; then its run is told, and the next.
  await browser.press(Key.ESCAPE, Key.ARROW_RIGHT, 'b')
  await browser.click('[role=dialog] .answers button', 'plus')
  await browser.gone('[role=dialog]')
  await browser.press(Key.ARROW_RIGHT, 'b')
  await browser.click('[role=dialog] .answers button', 'minus')
  await browser.gone('[role=dialog]')
  await browser.see('.line', 'crossed')
  await browser.press(Key.ESCAPE, 'b')
  await browser.type('[aria-label="Conductors in it"]', 'a dozen')
  await browser.see('[role=dialog]', 'A whole number from 2 to 81.')
  await browser.type('[aria-label="Conductors in it"]', '8')
  await browser.see('[role=dialog]', '2 trips tell all of them apart, and there are no fewer.')
  expect(await axeFinds(browser, THEMES[0]!)).toEqual([])
  await settled()
  expect((await world.readJob(id)).job.splices.map(s => s.start)).toEqual(['straight', 'crossed'])
})

test('left as it is, with the reason: it stays on the list, and is taken back', async () => {
  const { browser } = world
  const id = await world.putJob(boat())
  await world.go(`/jobs/${id}/wire?line=mg-saloon`)
  await browser.click('.group .act', 'leave it as it is')
  await browser.type('.why input', 'the skipper likes it so')
  await browser.press(Key.ENTER)
  await browser.see('.wire-pane', 'Found and left')
  await browser.see('.wire-pane', 'the skipper likes it so')
  await browser.gone('.offer')
  await browser.click('.wire-pane .act', 'take that back')
  await browser.see('.offer', 'roof junction')
})

test('which is plus: both schools, an exception; the schedule with its tags; no violation of any', async () => {
  const { browser } = world
  const id = await world.putJob(boat())
  await world.go(`/jobs/${id}/wire?line=mg-saloon`)
  await browser.see('.line')
  expect(await axeFinds(browser, THEMES[0]!)).toEqual([])
  await browser.press('g')
  await browser.click('.offer', 'the striped one is plus')
  await browser.fill('A pair whose plus is otherwise, the plus first', 'pink, pink/black', '[role=dialog]')
  await browser.press(Key.ENTER)
  await browser.see('[role=dialog] li', 'pink is plus')
  expect(await axeFinds(browser, THEMES[0]!)).toEqual([])
  await browser.press(Key.ESCAPE)
  await browser.gone('[role=dialog]')
  await browser.press('D')
  await browser.see('[role=dialog] td', 'B2-03')
  await browser.click('[role=dialog] .tab', 'tags')
  await browser.see('[role=dialog] .tags', 'B2-03')
  await browser.click('[role=dialog] .tab', 'cut list')
  await browser.see('[role=dialog] .drums', '100 m')
  expect(await axeFinds(browser, THEMES[0]!)).toEqual([])
})

test('forty speakers, and none', async () => {
  const { browser } = world
  const job = jobOf('40 x 5 W on 70 V 300 W')
  const ids = nodeIds(outputOf(job))
  const said = [ids[0]!, ids[20]!].reduce((j, id) => applyEdit(j, saySplice(j, id, { joint: 'a box with a very long name over the third door on the left' })!).job, job)
  await world.go(`/jobs/${await world.putJob(said)}/wire`)
  await browser.see('.line', '02–20')
  await browser.see('.line', '22–40')
  await world.go(`/jobs/${await world.putJob({ ...emptyJob('none') })}/wire`)
  await browser.see('main', 'nothing to wire')
})
