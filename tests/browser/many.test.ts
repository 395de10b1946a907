import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { Job } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { cabled, jobOf } from '#core/testing/jobs'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'
import { nominalOhmOf } from '#core/network/tree'

/** Many at once: chosen by keys, by the mouse, by a drawn frame; changed, moved, copied, each in one edit. */

let world: World
let browser: Browser
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
}, 120_000)
afterAll(() => world.close(), 60_000)

async function open(job: Job): Promise<string> {
  const id = await world.putJob(job)
  await world.go(`/jobs/${id}`)
  await browser.see('.rail-row')
  return id
}
/** The lines as they are on the server: taps, or ohms, in the order of the cable. */
async function lines(id: string): Promise<string[]> {
  await browser.see('.kept', 'saved')
  const { job } = await world.readJob(id)
  return outputsOf(job as never).map(o => speakersOf(o.wiring).map(s => s.load.kind === 'tap' ? s.load.tapW : `${nominalOhmOf(s.load)}Ω`).join(' '))
}
const tag = (nodeId: string) => `[data-node="${nodeId}"]`
const clickWith = async (modifier: string, css: string) => {
  const element = await browser.see(css)
  await browser.driver.actions().keyDown(modifier).click(element).keyUp(modifier).perform()
}
const ids = (job: Job, k = 0) => speakersOf(job.amplifiers[0]!.outputs[k]!.wiring).map(s => s.id)

test('a whole line on other taps in two acts, and back in one', async () => {
  const id = await open(jobOf('12 x 10 W on 70 V 240 W'))
  await browser.press('w', '-')
  expect(await lines(id)).toEqual([Array(12).fill(5).join(' ')])
  await browser.see('.about', '12 speakers chosen')
  await browser.press('u')
  expect(await lines(id)).toEqual([Array(12).fill(10).join(' ')])
}, 60_000)

test('thirty speakers onto two outputs in four acts', async () => {
  const job = jobOf('30 x 5 W on 70 V 240 W')
  const id = await open(job)
  await browser.click(tag(ids(job)[15]!))
  await clickWith(Key.SHIFT, tag(ids(job)[29]!))
  await browser.press('m', '0')
  expect(await lines(id)).toEqual([Array(15).fill(5).join(' '), Array(15).fill(5).join(' ')])
  // What was moved stays chosen, on its new rail, and its order is the old one.
  await browser.see('.about', '15 speakers chosen')
  const { job: after } = await world.readJob(id)
  expect(speakersOf(outputsOf(after as never)[1]!.wiring).map(s => s.label)).toEqual(Array.from({ length: 15 }, (_, k) => String(k + 16)))
}, 60_000)

test('chosen with Ctrl and across rails; what cannot be done to some is said', async () => {
  const job = jobOf('3 x 10 W on 70 V 240 W', '8 || 8 on 100 W at 4')
  const id = await open(job)
  await browser.click(tag(ids(job)[0]!))
  await clickWith(Key.CONTROL, tag(ids(job)[2]!))
  await clickWith(Key.CONTROL, tag(ids(job, 1)[0]!))
  await browser.press('=')
  await browser.see('.said.shown', 'Not all: 01: no line transformer')
  expect(await lines(id)).toEqual(['20 10 20', '8Ω 8Ω'])
  await clickWith(Key.CONTROL, tag(ids(job, 1)[0]!))
  await browser.see('.about', '2 speakers chosen')
  await browser.press(Key.ESCAPE)
  await browser.see('.about', 'speaker')
}, 60_000)

test('a frame drawn around some chooses them; a tag is dragged along its rail and to another', async () => {
  const job = cabled(jobOf('4 x 10 W on 70 V 240 W', '5 W on 70 V 100 W'), { cable: { awg: 16 }, lengthM: 5 })
  const id = await open(job)
  const box = async (css: string) => (await browser.see(css)).getRect()
  const at = (x: number, y: number) => ({ x: Math.round(x), y: Math.round(y) })
  const drag = async (from: { x: number, y: number }, to: { x: number, y: number }) => browser.driver.actions()
    .move(at(from.x, from.y)).press().move(at((from.x + to.x) / 2, to.y)).move(at(to.x, to.y)).release().perform()
  const [a, b, d] = await Promise.all([ids(job)[0]!, ids(job)[1]!, ids(job)[3]!].map(i => box(tag(i))))
  await drag({ x: a!.x - 8, y: a!.y + a!.height + 6 }, { x: b!.x + b!.width + 4, y: a!.y + 10 })
  await browser.see('.about', '2 speakers chosen')
  // Both go along, behind the last one.
  await drag({ x: a!.x + 20, y: a!.y + 30 }, { x: d!.x + d!.width - 4, y: d!.y + 30 })
  await browser.see('.kept', 'saved')
  const labels = async () => outputsOf((await world.readJob(id)).job as never).map(o => speakersOf(o.wiring).map(s => s.label).join(' '))
  expect(await labels()).toEqual(['03 04 01 02', '01'])
  await browser.press(Key.ESCAPE)
  const other = await box(tag(ids(job, 1)[0]!))
  const first = await box(tag(ids(job)[2]!))
  await drag({ x: first.x + 20, y: first.y + 30 }, { x: other.x + 4, y: other.y + 30 })
  await browser.see('.kept', 'saved')
  expect(await labels()).toEqual(['04 01 02', '03 01'])
}, 60_000)

test('everything that can be done stands in the menu at a tag, and is done from there', async () => {
  const job = jobOf('3 x 10 W on 70 V 240 W')
  const id = await open(job)
  await browser.driver.actions().contextClick(await browser.see(tag(ids(job)[1]!))).perform()
  await browser.click('[role=menuitem]', 'tap down')
  await browser.gone('[role=menuitem]')
  expect(await lines(id)).toEqual(['10 5 10'])
  await browser.click('.foot button', 'more')
  await browser.click('[role=menuitem]', 'take off')
  expect(await lines(id)).toEqual(['10 10'])
}, 60_000)

test('one form for all that are chosen: lengths in order, labels counted on, a tap', async () => {
  const id = await open(jobOf('4 x 10 W on 70 V 240 W'))
  await browser.press('w', 'e', ...'20, then 6', Key.ENTER)
  await browser.type('.pane form [placeholder="C01"]', 'N07')
  await browser.press(Key.ENTER)
  await browser.click('.pane .tap', '20')
  await browser.see('.kept', 'saved')
  const [output] = outputsOf((await world.readJob(id)).job as never)
  expect(output!.wiring.children.map(({ node, lead }) => [node.kind === 'speaker' && node.label, lead?.lengthM, node.kind === 'speaker' && node.load.kind === 'tap' && node.load.tapW]))
    .toEqual([['N07', 20, 20], ['N08', 6, 20], ['N09', 6, 20], ['N10', 6, 20]])
  await browser.press(Key.ESCAPE, 'u', 'u', 'u')
  expect(await lines(id)).toEqual(['10 10 10 10'])
}, 60_000)

test('a stretch is taken and pasted, here and in another job; a table and a typed line are pasted too', async () => {
  const id = await open(jobOf('2 x 10 W on 70 V 240 W'))
  const paste = (text: string) => browser.run('const d = new DataTransfer(); d.setData("text/plain", arguments[0]); document.activeElement.dispatchEvent(new ClipboardEvent("paste", { clipboardData: d, bubbles: true, cancelable: true }))', text)
  await browser.press('w')
  const taken = await browser.run<string>('const d = new DataTransfer(); document.activeElement.dispatchEvent(new ClipboardEvent("copy", { clipboardData: d, bubbles: true, cancelable: true })); return d.getData("text/plain")')
  expect(taken.split('\n').length).toBe(3)
  await paste(taken)
  expect(await lines(id)).toEqual(['10 10 10 10'])
  const other = await open(jobOf('5 W on 100 V'))
  await browser.press(Key.ARROW_RIGHT)
  await paste(taken)
  await paste('2 x 20 W')
  await paste('tap\tlength\n2.5 W\t6 m')
  expect(await lines(other)).toEqual(['5 10 10 20 20 2.5'])
  await paste('good morning')
  await browser.see('.said.refusal', 'Not done.')
}, 60_000)

test('ways to wire a line under its floor: seen, pressed, wired in one edit; over two outputs; what cannot be asked says why', async () => {
  const id = await world.putJob(jobOf('4 x 8 ohm 100 W parallel on 300 W at 4, 180 W at 8, from 4', '4 x 5 W on 70 V'))
  const shape = async () => outputsOf((await world.readJob(id)).job as never).map(o => [o.label, o.wiring.children.map(b => b.node.kind === 'speaker' ? b.node.label : `${b.node.kind} ${speakersOf(b.node).map(s => s.label).join(' ')}`).join(', ')].join(': '))
  await world.go(`/jobs/${id}`)
  await browser.see('.rail-row', 'Stop')
  await browser.press(Key.HOME, 'i')
  await browser.see('.verdict', '10 different wirings; in 6 the power falls otherwise; 1 is too low a load.')
  await browser.click('[role=dialog] .card', '45 W each')
  await browser.see('[role=status]', 'A1 wired: 8 Ω, 45 W each')
  await browser.driver.wait(async () => (await shape())[0] === 'A1: series 01 02, series 03 04', 6000)
  await browser.gone('.rail-row', 'Stop')
  await browser.press('i')
  await browser.click('[role=dialog] .tap', '2')
  await browser.see('.verdict', '2 different wirings')
  await browser.click('[role=dialog] .card', '16 Ω')
  await browser.driver.wait(async () => (await shape()).join('; ') === 'A1: series 01 02; A2: 01, 02, 03, 04; A3: series 03 04', 6000).catch(() => {})
  expect(await shape()).toEqual(['A1: series 01 02', 'A2: 01, 02, 03, 04', 'A3: series 03 04'])
  await browser.press('u', 'u')
  await browser.driver.wait(async () => (await shape())[0] === 'A1: 01, 02, 03, 04', 6000)
  await browser.press(Key.ARROW_DOWN, Key.HOME, 'i')
  await browser.see('[role=dialog]', 'Speakers of a transformer line hang in parallel')
  await browser.press(Key.ESCAPE)
}, 90_000)

test('an output driven into clipping: what the high unit gets beside what it stands; a field that cannot be read says so', async () => {
  const id = await world.putJob(jobOf('8 on 180 W at 8', '4 x 5 W on 70 V'))
  await world.go(`/jobs/${id}`)
  await browser.see('.rail-row')
  await browser.press(Key.HOME, 'O')
  await browser.see('.verdict', 'whether it is safe is not known')
  await browser.fill('The high unit stands', '5 W', '[role=dialog]')
  await browser.see('.verdict', 'dB over on the high-frequency unit gets more than the 5 W that it stands')
  await browser.click('[role=dialog] .tap', 'a tone')
  await browser.see('[role=dialog] td.number', '0.0 %')
  await browser.fill('Crossover', 'high', '[role=dialog]')
  await browser.see('[role=dialog] .error-words')
  await browser.press(Key.ESCAPE)
  await browser.gone('[role=dialog]')
  await browser.press(Key.ARROW_DOWN, Key.HOME, 'O')
  await browser.see('[role=status]', 'this is a transformer line')
}, 60_000)
