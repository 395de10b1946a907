import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import { setTap } from '#core/hands/intents'
import { Records } from '#core/job/records'
import type { Job } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { jobOf } from '#core/testing/jobs'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/** The main job, through every station, by keyboard wherever a key exists. Each step has a job of its own. */

let world: World
let browser: Browser
let path = ''
const jobId = () => /jobs\/([0-9a-f-]+)/.exec(path)![1]!
const taps = async () => speakersOf((await world.readJob(jobId())).job.amplifiers[0]!.outputs[0]!.wiring).map(s => s.load.kind === 'tap' ? s.load.tapW : 0)
const saved = () => browser.see('.kept', 'saved')

const LINE = '10 x 20 W on 70 V 240 W'
/** Opens a job of ten taps of 20 W, with what the step is to find there. */
async function begin(...changes: ((job: Job) => Job)[]): Promise<void> {
  const id = await world.putJob(changes.reduce((job, change) => change(job), { ...jobOf(LINE), name: LINE }))
  path = `/jobs/${id}`
  await world.go(path)
  await browser.see('.rail-row')
}
const tapAt = (k: number, tapW: number) => (job: Job) => applyEdit(job, setTap(speakersOf(outputsOf(job)[0]!.wiring)[k]!, tapW)!).job
const read = (ohm: number) => (job: Job): Job => ({ ...job, readings: Records.of([{
  id: 'before', at: '2026-05-04T09:00:00Z', kind: 'line-impedance', outputId: 'out1', nodeId: null, value: { is: 'ohm', ohm }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false }]) })

beforeAll(async () => {
  world = await World.open()
  browser = world.browser
}, 120_000)
afterAll(() => world.close(), 60_000)

test('a typed line is answered while typing; an error points at its character', async () => {
  await world.go('/quick')
  await browser.see('.typed')
  await browser.press(...'10 x 20 W')
  await browser.see('.error-words', 'need their line voltage')
  await browser.press(...' on 70 V 240 W')
  await browser.see('.tag.large', 'Tight')
  expect(await browser.text('.numbers')).toMatch(/all taps\s+200 W/)
  expect(await browser.text('.what')).toContain('this output carries 192 W')
  expect(await browser.path()).toContain('line=')
}, 60_000)

test('a wiring left open is answered with every way; one press takes one, and a mending goes where the error is', async () => {
  await world.go(`/quick?line=${encodeURIComponent('4 x 8 ohm 300 W at 4 ohm')}`)
  await browser.see('.ways', '2 strings of 2')
  expect((await browser.text('.ways')).replace(/\s+/g, ' ')).toMatch(/all in parallel 2 Ω not allowed Stop take it 2 strings of 2 8 Ω 150 W Good take it all in series 32 Ω 37.5 W Good/)
  await browser.click('.piece', 'series')
  await browser.see('.numbers', '32 Ω')
  expect(decodeURIComponent(await browser.path()).replaceAll('+', ' ')).toContain('4 x 8 ohm series 300 W at 4 ohm')
  await browser.click('.ways button', 'take it')
  await browser.see('.what', '2 Ω is under')
}, 60_000)

test('Enter keeps it as a job, and its run sheet opens with the finding beside it', async () => {
  await world.go(`/quick?line=${encodeURIComponent(LINE)}`)
  await browser.see('.tag.large', 'Tight')
  await browser.press(Key.ENTER)
  await browser.see('.rail-row')
  path = await browser.path()
  expect(await browser.text('.pane .finding')).toContain('Over by 8 W')
  expect((await browser.driver.findElements({ css: '.tag[role=button]' })).length).toBe(10)
}, 60_000)

test('taps change by keys, and results follow', async () => {
  await begin()
  await browser.press(Key.ARROW_RIGHT, Key.ARROW_RIGHT, '-')
  await browser.see('.tag.chosen', '10 W')
  await browser.see('.pane .subject', 'speaker 02')
  await browser.gone('.pane .offer')
  await browser.see('.rail-row .top', 'Good')
  await saved()
  expect(await taps()).toEqual([20, 10, 20, 20, 20, 20, 20, 20, 20, 20])
  await browser.press('u')
  await browser.see('.rail-row .top', 'Tight')
}, 60_000)

test('a remedy is one edit and can be taken back and done again', async () => {
  await begin()
  await browser.see('.pane .offer', 'All 10 speakers down to 10 W')
  await browser.see('.pane .offer', 'Speaker 10 alone down to 10 W')
  await browser.press('2')
  await browser.see('.rail-row .top', 'Good')
  await saved()
  expect((await taps()).at(-1)).toBe(10)
  await browser.press('u')
  await browser.see('.rail-row .top', 'Tight')
  await browser.press('U')
  await browser.see('.rail-row .top', 'Good')
  await saved()
  expect((await taps()).at(-1)).toBe(10)
}, 60_000)

test('speakers are added, reordered, joined and taken off; an output is added, rated, and a speaker moved to it', async () => {
  await begin()
  await browser.press('a')
  await browser.see('.tag.chosen', '11')
  await browser.chord(Key.CONTROL, Key.ARROW_LEFT)
  await browser.press('s')
  await browser.see('.bracket', 'in series')
  await browser.press('d')
  await browser.gone('.bracket', 'in series')
  await browser.press('x')
  await saved()
  expect(await taps()).toHaveLength(10)

  await browser.press('o')
  await browser.see('.rail-row .nothing')
  await browser.press('e')
  await browser.press(Key.TAB, ...'Terrace', Key.TAB)
  await browser.typeOver('70 V 60 W')
  await browser.press(Key.ENTER, Key.ESCAPE)
  await browser.see('.rail-row .name', 'Terrace')
  await browser.press(Key.ARROW_UP, Key.END, 'm')
  await browser.see('.picker', 'Move')
  await browser.press('1')
  await browser.gone('.rail-row .nothing')
  await saved()
  const { job } = await world.readJob(jobId())
  expect(job.amplifiers[0]!.outputs.map(o => [o.name, speakersOf(o.wiring).length, o.rating.kind === 'constant-voltage' && o.rating.powerW])).toEqual([['', 9, 240], ['Terrace', 1, 60]])
}, 60_000)

test('cable and length are typed as people write them', async () => {
  await begin()
  await browser.press(Key.HOME, Key.ARROW_RIGHT, 'e')
  await browser.see('.lead')
  const fields = await browser.driver.findElements({ css: '.lead input' })
  await fields[0]!.sendKeys('40 ft', Key.ENTER)
  await browser.see('.length', '12.2 m')
  await (await browser.driver.findElements({ css: '.lead input' }))[1]!.sendKeys(Key.chord(Key.CONTROL, 'a'), '1.5 mm2', Key.ENTER)
  await browser.see('.fine', '1.5 mm²')
  await browser.press(Key.ESCAPE)
  await saved()
  const [first] = (await world.readJob(jobId())).job.amplifiers[0]!.outputs[0]!.wiring.children
  expect(first!.lead).toEqual({ cable: { areaMm2: 1.5 }, lengthM: 12.192 })
}, 60_000)

test('a bad reading is judged at once, its suspects are marked on the rail, the repair is recorded, and a good reading proves it', async () => {
  await begin(tapAt(9, 10))
  await browser.press(Key.HOME, 'r')
  await browser.see('.reading', 'Impedance of the line')
  // The line's plan is 26.3 Ω; 29.4 is what is left with one 20 W speaker gone.
  await browser.press(...'31')
  await browser.see('.result', 'Reads wrong: too high')
  await browser.press(Key.ENTER)
  await browser.see('.history', '31 Ω')
  await browser.click('button', 'Trace it')
  await browser.see('.suspect', 'Open joint or plug at')
  await browser.see('.rail-row .rank')
  await browser.click('.suspect', 'Open joint or plug at')
  await browser.click('button', 'Record the repair')
  await browser.see('.trace', 'Repaired, not proved yet')
  await browser.see('.marks', '⚒')
  await browser.click('button', 'Read again')
  await browser.see('.reading')
  await browser.press(...'26.6', Key.ENTER)
  await browser.see('.read', 'line impedance right')
  await browser.gone('.mend.awaiting')
  await saved()
  const { job } = await world.readJob(jobId())
  expect([job.readings.length, job.repairs.length, job.repairs[0]!.fault]).toEqual([2, 1, 'open-at-drop'])
}, 60_000)

test('where the line is meant as it reads, the plan is corrected, and the reading is right', async () => {
  await begin(read(28.2))
  await browser.press('T')
  // Many read alike by one reading: all of them are one press away.
  await browser.see('.next h2', undefined, 25_000)
  while ((await browser.driver.findElements({ css: '.group .act' })).length > 0) await browser.click('.group .act')
  // One row of all places; which of them is said by its chip.
  await browser.click('.suspect', ': on 5 W')
  await browser.click('.places .tap', '01')
  await browser.click('button', 'correct the plan')
  await browser.see('.read', 'line impedance right')
  await saved()
  expect(await taps()).toEqual([5, 20, 20, 20, 20, 20, 20, 20, 20, 20])
}, 60_000)

test('a reading that was wrong is superseded, never changed', async () => {
  await begin(tapAt(9, 10), read(26.6))
  await browser.press(Key.HOME, 'r')
  await browser.click('.history button', 'was wrong')
  await browser.see('.correcting', 'In place of 26.6 Ω')
  await browser.press(...'26.4', Key.ENTER)
  await browser.see('.history', 'was wrong')
  await saved()
  const { readings } = (await world.readJob(jobId())).job
  expect(readings.map(r => r.value)).toEqual([{ is: 'ohm', ohm: 26.6 }, { is: 'ohm', ohm: 26.4 }])
  expect(readings[1]!.supersedes).toBe(readings[0]!.id)
}, 60_000)

test('a second window shows the same and follows live; each undoes its own', async () => {
  await begin(tapAt(9, 10), read(26.4))
  const first = await browser.driver.getWindowHandle()
  await browser.driver.switchTo().newWindow('tab')
  await browser.size(1280, 800)
  await world.go(`/jobs/${jobId()}`)
  await browser.see('.read', 'line impedance right')
  await browser.press(Key.ARROW_RIGHT, '-')
  await saved()
  const second = await browser.driver.getWindowHandle()
  await browser.driver.switchTo().window(first)
  await browser.see('.tag[role=button]', '01\n10 W')
  await browser.driver.switchTo().window(second)
  await browser.press('u')
  await saved()
  await browser.driver.close()
  await browser.driver.switchTo().window(first)
  await browser.see('.tag[role=button]', '01\n20 W')
}, 60_000)

test('the server is killed: work goes on and is kept here, over a reload of the server; all is there', async () => {
  await begin(tapAt(9, 10), read(26.4))
  await world.killServer()
  await browser.press(Key.ESCAPE, Key.HOME, Key.ARROW_RIGHT, '-')
  await browser.see('.kept', '1 kept here to send')
  await browser.see('.tag.chosen', '10 W')
  await world.startAgain()
  await browser.see('.kept', 'saved', 30_000)
  expect((await taps())[0]).toBe(10)
  await browser.driver.navigate().refresh()
  await browser.see('.tag[role=button]', '01\n10 W')
  await browser.see('.read', 'line impedance right')
  // The undo stack outlives the reload as well.
  await browser.press('u')
  await browser.see('.tag[role=button]', '01\n20 W')
}, 90_000)

test('an edit that could not be sent before the window closed is sent by the next', async () => {
  await begin()
  await browser.press(Key.HOME, Key.ARROW_RIGHT, '=')
  await saved()
  await world.killServer()
  await browser.press('=', '-', '-')
  await browser.see('.kept', 'kept here to send')
  await browser.leaveTab()
  await world.startAgain()
  await world.go(`/jobs/${jobId()}`)
  await browser.see('.rail-row')
  await saved()
  expect((await taps())[0]).toBe(10)
}, 90_000)

test('two edits that clash are explained, and the person decides', async () => {
  await begin(tapAt(0, 10))
  await browser.press(Key.HOME, Key.ARROW_RIGHT, '=')
  await saved()
  await browser.fetched()
  await browser.cdp('Network.enable')
  await browser.cdp('Network.emulateNetworkConditions', { offline: true, latency: 0, downloadThroughput: -1, uploadThroughput: -1 })
  await browser.press('-')
  await browser.see('.kept', 'kept here to send')
  const { job } = await world.readJob(jobId())
  const [speaker] = speakersOf(job.amplifiers[0]!.outputs[0]!.wiring)
  if (speaker?.load.kind !== 'tap') throw new Error('no tap')
  await world.post(`/jobs/${jobId()}/sync`, { since: 0, edits: [{
    id: 'other1', by: 'other', undoes: null,
    edit: { kind: 'speaker.set', nodeId: speaker.id, was: { load: speaker.load }, to: { load: { ...speaker.load, tapW: 5 } } },
  }] })
  await browser.cdp('Network.emulateNetworkConditions', { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: -1 })
  await browser.see('.notice', 'changed in another window: it was 20 W, it is now 5 W', 20_000)
  await browser.see('.tag[role=button]', '01\n5 W')
  await browser.click('.notice button', 'do mine anyway')
  await browser.see('.tag[role=button]', '01\n10 W')
  await saved()
  expect((await taps())[0]).toBe(10)
}, 60_000)

test.each([[844, 390], [740, 360], [640, 400], [768, 1024], [390, 844]])('at %d × %d a reading is taken by the keys on the screen: the field and all keys in sight, side by side where it is low', async (width, height) => {
  await begin()
  await browser.size(width, height, true)
  await world.go(`/jobs/${jobId()}/check`)
  await browser.see('.keypad')
  const boxOf = (css: string) => browser.run<{ left: number, top: number, right: number, bottom: number }>('return document.querySelector(arguments[0]).getBoundingClientRect().toJSON()', css)
  const [field, keys] = [await boxOf('.value input'), await boxOf('.keypad')]
  for (const box of [field, keys]) expect([box.left >= 0, box.top >= 0, box.right <= width, box.bottom <= height]).toEqual([true, true, true, true])
  expect([field.bottom <= keys.top, field.right <= keys.left]).toEqual(height < 560 ? [expect.any(Boolean), true] : [true, expect.any(Boolean)])
  for (const key of ['2', '6', '.', '4', 'Record']) await browser.click('.keypad button', key)
  await browser.see('.result', 'As it should be')
  await browser.size(1280, 800)
}, 60_000)
