import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { Job } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { cabled, jobOf } from '#core/testing/jobs'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/** Equals: drawn as one tag, made one kind, changed once; what is found on the walk goes into the plan. */

let world: World
let browser: Browser
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
}, 120_000)
afterAll(() => world.close(), 60_000)

const open = async (job: Job, station = '') => {
  const id = await world.putJob(job)
  await world.go(`/jobs/${id}${station}`)
  return id
}
const speakers = async (id: string) => {
  await browser.see('.kept', 'saved')
  const { job } = await world.readJob(id)
  return { kinds: job.kinds, all: outputsOf(job as never).flatMap(o => speakersOf(o.wiring)) }
}
const fill = (label: string, text: string, within?: string) => browser.fill(label, text, within)
const count = (css: string) => browser.run<number>('return document.querySelectorAll(arguments[0]).length', css)
const forty = cabled(jobOf('40 x 5 W on 70 V 400 W', '8'), { cable: { awg: 16 }, lengthM: 6 })

test('forty equals are one tag: one press chooses them, K makes them one kind, one change changes all, each one undo', async () => {
  const id = await open(forty)
  await browser.see('[data-nodes]', '40 × 5 W')
  expect([await count('g.tag'), await count('[data-nodes]')]).toEqual([2, 1])
  await browser.click('[data-nodes]')
  await browser.see('.about', '40 speakers chosen')
  await browser.press('K')
  await browser.see('.said.shown', '40 of one kind now')
  await browser.click('.kind .change')
  await fill('What they are', 'Ceiling 165', '.kind-form')
  await fill('Rating stated', '30 W', '.kind-form')
  const after = await speakers(id)
  expect([after.kinds.map(k => k.model.name), new Set(after.all.slice(0, 40).map(s => `${s.name} ${s.continuousW} ${s.kindId}`)).size, after.all[3]!.name, after.all[40]!.name]).toEqual([['Ceiling 165'], 1, 'Ceiling 165', ''])
  // One by hand stands out of the fold, marked.
  await browser.press(Key.ESCAPE, 'z')
  await browser.see(`[data-node="${after.all[7]!.id}"]`)
  expect(await count('g.tag')).toBe(41)
  await browser.click(`[data-node="${after.all[7]!.id}"]`)
  await browser.press('e')
  await fill('Continuous rating', '15 W')
  await browser.see(`[data-node="${after.all[7]!.id}"]`, '≠')
  await browser.press(Key.ESCAPE, 'z', Key.HOME)
  expect([await count('[data-nodes]'), await count('g.tag')]).toEqual([2, 4])
  // The arrow keys stop at a fold as at one tag.
  await browser.press(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ARROW_RIGHT)
  await browser.see('.about', '32 speakers chosen')
  // One more hangs behind the last of what is chosen, not behind its first.
  await browser.press('a')
  await browser.see('.about', 'speaker 41')
  expect((await speakers(id)).all[40]!.label).toBe('41')
  await browser.press('u', 'u', 'u', 'u', 'u')
  const back = await speakers(id)
  expect([back.kinds, back.all.map(s => s.name).join('')]).toEqual([[], ''])
}, 90_000)

test('several coils as one thing: one tag, one load, one coil reading foretold', async () => {
  const id = await open(jobOf('8 on 200 W at 4 from 2'))
  await browser.click('g.tag')
  await browser.press('e')
  await browser.click('.field .p-select')
  await browser.click('[role=option]', 'several coils or drivers')
  await fill('Each, Ω', '2 x 4')
  await browser.see('.form', '2 Ω together')
  await browser.click('[aria-label="Joined"] button:last-of-type')
  await browser.see('g.tag .wiring', '8 Ω')
  const { all } = await speakers(id)
  expect(all[0]!.load).toEqual({ kind: 'members', joined: 'series', members: [{ kind: 'nominal', nominalOhm: 4 }, { kind: 'nominal', nominalOhm: 4 }] })
  await browser.press(Key.ESCAPE, 'r')
  await browser.see('.reading', '2 in series, read as one')
}, 60_000)

test('the thinnest cable of a line, found and laid by one press', async () => {
  const id = await open(cabled(jobOf('20 x 10 W on 70 V 400 W'), { cable: { awg: 12 }, lengthM: 8 }))
  await browser.see('.rail-row')
  await browser.press(Key.HOME, 'e')
  await fill('At most so much lost, dB', '0.75')
  await browser.see('.finder .offer', '160 m of 16 AWG')
  await browser.see('.finder', 'Every other choice of these sizes needs more copper')
  await browser.click('.finder .offer')
  await browser.see('.kept', 'saved')
  const { job } = await world.readJob(id)
  expect(new Set(outputsOf(job as never)[0]!.wiring.children.map(b => JSON.stringify(b.lead!.cable)))).toEqual(new Set(['{"awg":16}']))
}, 60_000)

test('found on the walk, into the plan by one press: a tap, a length, one more, a driver that reads as another', async () => {
  const id = await open(jobOf('3 x 10 W on 70 V 100 W', '8 on 100 W at 4'), '/check')
  await browser.see('.check')
  await browser.click('.places .place', '01')
  await browser.click('[aria-label="Tap found"] .tap', 'tap 5 W')
  await browser.see('.said.shown', '01 on 5 W: in the plan now')
  await fill('Cable to here', '12 m', '.found')
  await browser.click('.found .acts .act')
  const { all } = await speakers(id)
  expect(all.map(s => s.load.kind === 'tap' ? s.load.tapW : s.load.kind)).toEqual([5, 5, 10, 10, 'nominal'])
  const { job } = await world.readJob(id)
  expect(outputsOf(job as never)[0]!.wiring.children[0]!.lead).toEqual({ cable: null, lengthM: 12 })
  await browser.press(']')
  await browser.click('.places .place', '01')
  await browser.press('r')
  await browser.press(...'3.3', Key.ENTER, Key.ESCAPE)
  await browser.click('.found .offer')
  expect((await speakers(id)).all[4]!.load).toEqual({ kind: 'nominal', nominalOhm: 4 })
}, 60_000)
