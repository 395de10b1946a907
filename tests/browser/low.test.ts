import { same } from '#core/quantity/same'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { JobDocument } from '#core/job/schema'
import { jobOf } from '#core/testing/jobs'
import { demoJobs } from '../../demo'
import { demoGear, withKinds } from '../../demo/gear'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/** Loads of ohms: a valve head plugged by its instructions, a sub of two coils, a box under the floor, a measured curve mended and taken. */

let world: World
let browser: Browser
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
  await world.post('/gear', { models: demoGear })
}, 120_000)
afterAll(() => world.close(), 60_000)

const open = async (job: Parameters<World['putJob']>[0], line = '') => {
  const id = await world.putJob(job)
  await world.go(`/jobs/${id}${line}`)
  await browser.see('.rail-row')
  return async (): Promise<JobDocument> => {
    await browser.see('.kept', 'saved')
    return (await world.readJob(id)).job
  }
}
/** Two drivers of the library by themselves. */
const withDrivers = withKinds({ ...jobOf('8 ohm 80 W || 8 ohm 80 W on 100 W at 4'), amplifiers: jobOf('8 ohm 80 W || 8 ohm 80 W on 100 W at 4').amplifiers.map(a => ({ ...a, outputs: a.outputs.map(o => ({ ...o, wiring: { ...o.wiring, children: o.wiring.children.map(c => c.node.kind === 'speaker' ? { ...c, node: { ...c.node, name: 'Driver 200, 8 Ω, 80 W' } } : c) } })) })) })
const rating = (job: JobDocument) => job.amplifiers[0]!.outputs[0]!.rating
const loads = (job: JobDocument) => job.amplifiers[0]!.outputs[0]!.wiring.children.map(({ node }) => node.kind === 'speaker' ? node.load : null)

test('two cabinets on a valve head: at 4 Ω both are below every tap; one press plugs them at 16, on the 8 Ω tap, and the steps say how', async () => {
  const loft = demoJobs.find(d => d.job.name === 'Rehearsal loft')!.job
  const stored = await open(loft, '?line=rl-head')
  // By keys: the first cabinet, its form, its jack of 4 Ω; then the second.
  for (const label of ['01', '02']) {
    await browser.click('.rail-row .tag', label)
    await browser.press('e')
    await browser.click('[aria-label="Plugged at"] .tap', '4 Ω, mono')
  }
  expect(loads(await stored()).map(l => l?.kind === 'cabinet' && l.at)).toEqual([1, 1])
  await browser.press(Key.ESCAPE, Key.HOME, 'f')
  await browser.see('.finding', 'below all taps there are')
  await browser.press('e')
  await browser.see('.valve', 'No steps: this load is not allowed on this tap.')
  await browser.click('.ways .act', '8.03 Ω on 8 Ω')
  expect([rating(await stored()), loads(await stored()).map(l => l?.kind === 'cabinet' && l.at)]).toEqual([expect.objectContaining({ kind: 'valve', tapOhm: 8 }), [0, 0]])
  const steps = await browser.text('.steps')
  expect(steps).toMatch(/Switch Valve head 50 W off\.[^]*Turn its selector to 8 Ω\.[^]*to “mono”\.[^]*of Cabinet[^]*\(02\)[^]*to its jack “16 Ω”[^]*on, quietly/)
  await browser.see('.caution', 'lethal voltage')
  // Down is no school's safe direction; up is one's.
  await browser.click('[aria-label="The line is on the tap"] .tap', '4 Ω')
  await browser.press(Key.ESCAPE, 'f')
  await browser.see('.finding', '2.01 times what it is made for')
  await browser.press('1')
  await browser.see('.finding', 'on the 8 Ω tap: matched')
  await browser.press('u', 'u', 'u', 'u')
  expect(rating(await stored())).toMatchObject({ tapOhm: 8 })
}, 90_000)

test('a sub of two 4 Ω coils on a channel that carries 2 Ω: in parallel it does, on one of 4 Ω it does not; bridged wants both in series', async () => {
  const stored = await open(jobOf('4 on 90 W at 2, 60 W at 4, from 2', '4 on 90 W at 2, 60 W at 4, from 2'))
  await browser.press(Key.HOME, Key.ARROW_RIGHT, 'e')
  await browser.click('.p-select', 'impedance by its label')
  await browser.click('[role=option]', 'several coils or drivers')
  await browser.gone('[role=option]')
  await browser.see('.form', '2 Ω together')
  await browser.press(Key.ESCAPE, Key.HOME, 'f')
  await browser.see('.finding', '2 Ω is what this output is made for')
  await browser.press(Key.HOME, 'e')
  await browser.fill('What this output gives', '60 W at 4, from 4', '.form')
  await browser.press(Key.ESCAPE, Key.HOME, 'f')
  await browser.see('.finding', '2 Ω is under this output’s floor of 4 Ω')
  await browser.press(Key.ARROW_RIGHT, 'e')
  await browser.click('[aria-label="Joined"] .tap', 'in series')
  await browser.press(Key.ESCAPE, Key.HOME, 'f')
  await browser.see('.finding', '8 Ω is above this output’s floor of 4 Ω')
  // The channel beside is in use: bridging says so, and does nothing.
  await browser.press(Key.HOME, 'e')
  await browser.click('[aria-label="Channels of this output"] .tap', 'two, bridged')
  await browser.see('.said.shown', 'The channel beside A1 must be empty and rated like it')
  expect(rating(await stored())).toMatchObject({ mode: 'single' })
}, 90_000)

test('a box under the floor is stopped, and remedied in one press; the charts show it, by keys', async () => {
  const stored = await open(jobOf('4 x 8 parallel on 300 W at 4'))
  await browser.press(Key.HOME, 'G')
  await browser.see('.verdict', 'Too low a load: 2 Ω is under the 4 Ω')
  await browser.press(Key.ESCAPE)
  await browser.gone('.p-dialog')
  await browser.press('f')
  await browser.see('.finding', '2 Ω is under')
  await browser.click('.offer', 'Wire neighbours in series')
  await browser.gone('.finding', '2 Ω is under')
  expect((await stored()).amplifiers[0]!.outputs[0]!.wiring.children.map(c => c.node.kind)).toEqual(['series', 'series'])
  await browser.press('G')
  await browser.see('.verdict', 'How much they stand is not known')
  await browser.press(Key.ESCAPE)
  await browser.gone('.p-dialog')
  await browser.press('g')
  const cursor = await browser.see('.p-dialog [role=slider]')
  await browser.driver.wait(() => browser.run<boolean>('return document.querySelector(".p-dialog-enter-active") === null'), 8000)
  await browser.run('arguments[0].focus()', cursor)
  await browser.press(Key.HOME)
  expect(await cursor.getAttribute('aria-valuetext')).toBe('20 Hz: 8 Ω, 0°')
  await browser.press(Key.ARROW_RIGHT)
  expect(await cursor.getAttribute('aria-valuetext')).not.toBe('20 Hz: 8 Ω, 0°')
  expect(await browser.complaints()).toEqual([])
}, 90_000)

test('a curve with an error: where it is said, mended, looked at, taken; what the label says against it is said; out of the undo it comes back', async () => {
  const stored = await open(jobOf('8 on 100 W at 4'))
  await browser.press(Key.HOME, Key.ARROW_RIGHT, 'e')
  await browser.click('.p-select', 'impedance by its label')
  await browser.click('[role=option]', 'a measured curve')
  await browser.gone('[role=option]')
  const lines = ['* Box 300', '20 22.5 40', '60 tea -30', '400 5.1 2', '20000 30 45']
  const paste = async (text: string) => {
    const field = await browser.see('#curve-text')
    await browser.run('arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event("change"))', field, text)
  }
  await paste(lines.join('\n'))
  await browser.see('[role=alert]', 'Line 3: “tea” is not a number')
  expect(await browser.run('return getSelection().toString() || document.activeElement.value.slice(document.activeElement.selectionStart, document.activeElement.selectionEnd)')).toMatch(/^tea/)
  await paste(lines.join('\n').replace('tea', '38'))
  await browser.gone('[role=alert]', 'tea')
  await browser.see('.curve', 'lowest 5.1 Ω at 400 Hz')
  await browser.see('.remark', 'under four fifths of a label of 8 Ω; 6 Ω would fit')
  expect(loads(await stored())[0]).toMatchObject({ kind: 'curve', points: [[20, 8, null], [20_000, 8, null]] })
  await browser.click('.acts .act', 'take it, label 6 Ω')
  expect(loads(await stored())[0]).toEqual({ kind: 'curve', nominalOhm: 6, reOhm: null, points: [[20, 22.5, 40], [60, 38, -30], [400, 5.1, 2], [20_000, 30, 45]] })
  await browser.press(Key.ESCAPE, 'u')
  await browser.see('.rail-row .tag', '8 Ω')
  expect(loads(await stored())[0]).toMatchObject({ nominalOhm: 8 })
}, 90_000)

test('what replaces a driver: before and after, why others do not; one press puts it in, one takes it back', async () => {
  const stored = await open(demoJobs.find(d => d.job.name === 'Rehearsal loft')!.job, '?line=rl-bass')
  await browser.press(Key.HOME, Key.ARROW_RIGHT, 'R')
  await browser.see('.p-dialog .verdict', 'No speaker of the library can take its place')
  await browser.click('.p-dialog summary', 'others do not')
  await browser.see('.refused li', 'more than 15 % off')
  await browser.press(Key.ESCAPE)
  await browser.gone('.p-dialog')
  expect((await stored()).amplifiers.flatMap(a => a.outputs).length).toBe(3)
  const drivers = await open(withDrivers)
  await browser.press(Key.HOME, Key.ARROW_RIGHT, 'R')
  await browser.see('.p-dialog .verdict', 'of the library could take its place')
  await browser.see('.p-dialog .was', 'there now')
  await browser.click('.p-dialog button', 'Put it in')
  await browser.see('.said.shown', '01 is ')
  expect((await drivers()).kinds.map(k => k.model.name)).toEqual(['Driver 200, 8 Ω, 80 W', expect.stringMatching(/^Driver .* 8 Ω/)])
  await browser.press('u')
  await browser.gone('.said.shown', '01 is ')
  expect((await drivers()).kinds).toHaveLength(1)
}, 90_000)

test('two-way: how loud the bands are to each other, noted in one press; a part of the range for another output; what feeds the amplifier, and a limiter', async () => {
  const stored = await open(demoJobs.find(d => d.job.name.startsWith('Bandstand'))!.job, '?line=mm-left')
  const bands = async () => (await stored()).amplifiers.flatMap(a => a.outputs.map(o => o.band && [o.band.system, o.band.fromHz, o.band.toHz, o.band.setDb]))
  await browser.see('.rail-row', 'plays up to 100 Hz')
  await browser.press('B')
  await browser.see('.p-dialog .verdict', 'Equally loud with B1 0.3 dB down.')
  await browser.see('.p-dialog', 'W above 100 Hz, where a clean signal has')
  await browser.click('.p-dialog .act', 'note these levels as set')
  await browser.see('.p-dialog .verdict', 'equally loud within half a decibel')
  expect(await bands()).toEqual([['Stage', 100, null, 0], ['Stage', 100, null, 0], ['Stage', null, 100, 0.5], null])
  await browser.press(Key.ESCAPE)
  await browser.gone('.p-dialog')
  await browser.press(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN, Key.HOME, 'e')
  await browser.click('[aria-label="This output plays"] .tap', 'a part of the range')
  await browser.fill('Up to', '50 Hz', '.form')
  await browser.see('.form .error-words', 'It would end below where it begins')
  await browser.fill('From', '', '.form')
  await browser.gone('.form .error-words')
  expect((await bands()).at(-1)).toEqual(['Stage 2', null, 50, null])
  await browser.fill('Up to', '2 kHz', '.form')
  await browser.fill('From', '100 Hz', '.form')
  await browser.press(Key.ESCAPE, 'f')
  await browser.see('.finding', 'Of Stage 2 only one band has an output: nothing plays below 100 Hz or above 2 kHz')
  await browser.press('e')
  await browser.click('[aria-label="This output plays"] .tap', 'everything')
  await browser.fill('A limiter holds it at', '20 V', '.form')
  await browser.fill('It brings', '0.4 V', '.form')
  await browser.press(Key.ESCAPE, 'f')
  await browser.see('.finding', 'The limiter holds it at 20 V')
  await browser.see('.finding', 'Mixer, second output brings')
  await browser.see('.finding', 'short')
  await browser.press('e')
  await browser.fill('What comes in', '', '.form')
  await browser.press(Key.ESCAPE, 'f')
  await browser.gone('.finding', 'Mixer, second output')
  await browser.press(...new Array<string>(9).fill('u'))
  await browser.driver.wait(async () => same((await bands())[0], ['Stage', 100, null, null]), 6000)
  expect((await stored()).amplifiers[2]).toMatchObject({ inputs: [{ source: { name: 'Mixer, second output', volts: 1.2, ohm: 600 } }], outputs: [{ band: null, limiterV: null }] })
  expect(await browser.complaints()).toEqual([])
}, 90_000)

test('a vehicle unit: what “stable” promises; its two channels bridged by the wiring finder, coils one by one', async () => {
  const job = jobOf('dvc 4 series on 60 W at 4, 2 ohm stable', '4 on 60 W at 4, 2 ohm stable')
  const bare = (o: typeof job.amplifiers[0]['outputs'][0]) => ({ ...o, wiring: { ...o.wiring, children: [] } })
  const empty = { ...job, amplifiers: job.amplifiers.map(a => ({ ...a, outputs: a.outputs.map((o, k) => k === 0 ? o : bare(o)) })) }
  const stored = await open(empty)
  await browser.press(Key.HOME, 'i')
  await browser.see('.p-dialog .verdict', '1 different wiring')
  await browser.click('.asked label', 'coils, or drivers of a box, one by one')
  await browser.see('.p-dialog .verdict', '2 different wirings')
  await browser.click('.asked label', 'two channels bridged')
  await browser.see('.p-dialog .refused summary', '1 is too low a load')
  await browser.click('[role=dialog] .card', '8 Ω')
  await browser.see('.said.shown', 'A1 wired: 8 Ω')
  const { outputs } = (await stored()).amplifiers[0]!
  expect([outputs.length, outputs[0]!.rating, outputs[0]!.wiring.children.map(c => c.node.kind)]).toEqual([1, expect.objectContaining({ mode: 'bridged' }), ['series']])
  await browser.press(Key.HOME, 'e')
  await browser.click('[aria-label="Made as"] .tap', 'a vehicle unit')
  await browser.press(Key.ESCAPE, 'f')
  await browser.see('.finding', 'The lowest load of two bridged is not stated; 4 Ω is taken')
  await browser.press('e')
  await browser.fill('What this output gives', '2 x 60 W at 4, from 2 bridged from 4', '.form')
  await browser.press(Key.ESCAPE, 'f')
  await browser.gone('.finding', 'The lowest load of two bridged')
  expect(rating(await stored())).toMatchObject({ mode: 'bridged', floorOhm: 2, bridgedFloorOhm: 4 })
}, 90_000)
