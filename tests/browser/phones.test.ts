import { afterAll, beforeAll, expect, test } from '@jest/globals'
import jsQR from 'jsqr'
import type { Job } from '#core/job/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { Browser, Key } from '../support/browser'
import { NAME, TestEntrance } from '../support/entrance'
import { startServer } from '../support/server'
import { World } from '../support/world'

/** Phones on the firm's network: let in by the code that a desk shows, at work together, offline and back, and taken back in the middle. */

let world: World
let entrance: TestEntrance
let anna: Browser
let ben: Browser
let desk: Browser
beforeAll(async () => {
  entrance = await TestEntrance.make()
  world = await World.open(entrance.env)
  desk = world.browser
  const phone = () => Browser.open(undefined, { home: entrance.browserHome(), flags: [`--host-resolver-rules=MAP ${NAME} 127.0.0.1`] })
  anna = await phone()
  ben = await phone()
  for (const browser of [anna, ben]) await browser.size(390, 844, true)
}, 120_000)
afterAll(async () => {
  await anna.close()
  await ben.close()
  await world.close()
  entrance.remove()
})

const job = (): Job => {
  const plan = jobOf('6 x 5 W on 70 V 60 W')
  const ids = nodeIds(outputOf(plan))
  const spot = (k: number) => ({ id: `s${k}`, xM: 1 + k, yM: 1, heightM: null, aim: null, nodeId: ids[k]! })
  return { ...plan, name: 'Shared', spaces: [{ ...plainSpace('hall', 'Hall'), spots: [0, 1, 2].map(spot) }, { ...plainSpace('bar', 'Bar'), spots: [3, 4, 5].map(spot) }] }
}
const ids = nodeIds(outputOf(job()))
let jobId = ''
const at = (path: string) => entrance.origin + path
const readings = async () => (await world.readJob(jobId)).job.readings
const waitFor = (browser: Browser, is: () => Promise<boolean>) => browser.driver.wait(is, 20_000)

/** The code as a camera reads it off the desk's screen: the address that the picture is of. */
async function codeOnScreen(): Promise<string> {
  await desk.see('.digits')
  await desk.stands('.pictures figure:last-child .picture')
  const { pixels, width, height } = await desk.driver.executeAsyncScript<{ pixels: number[], width: number, height: number }>(`const done = arguments[0]
    const svg = document.querySelector('.pictures figure:last-child .picture'); const image = new Image(420, 420)
    image.onload = () => { const c = Object.assign(document.createElement('canvas'), { width: 420, height: 420 }); const g = c.getContext('2d'); g.drawImage(image, 0, 0, 420, 420)
      done({ pixels: [...g.getImageData(0, 0, 420, 420).data], width: 420, height: 420 }) }
    const copy = svg.cloneNode(true); copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg'); copy.setAttribute('width', 420); copy.setAttribute('height', 420)
    image.src = 'data:image/svg+xml,' + encodeURIComponent(copy.outerHTML)`)
  return jsQR(Uint8ClampedArray.from(pixels), width, height)!.data
}
async function letIn(phone: Browser, name: string): Promise<void> {
  await desk.click('.p-dialog .p-button', 'Show a code')
  await phone.go(await codeOnScreen())
  await phone.see('.door')
  await phone.click('.door input:not(.code)')
  await phone.typeOver(name)
  await phone.click('.door button[type=submit]', 'Come in')
  await phone.see('.row, .state')
  await desk.see('.ask', `“${name}” is in`)
}
/** A coil of a speaker by thumb. */
async function read(phone: Browser, speaker: number, keys: string): Promise<void> {
  await phone.go(at(`/jobs/${jobId}/check?line=out1&speaker=${ids[speaker]}`))
  await phone.see('.reading')
  await phone.click('.kinds .tab', 'coil DCR')
  for (const key of keys) await phone.click('.keypad .key', key)
  await phone.click('.keypad .record', 'Record')
  await phone.see('.reading', 'stands')
}

test('whoever is not in comes to the door; the wrong digits say how many tries are left; a camera reads the code off the desk', async () => {
  jobId = await world.putJob(job())
  await anna.go(at('/'))
  await anna.see('.door', 'lets in only devices that it knows')
  await world.go('/')
  await desk.see('.row')
  await desk.press('p')
  await desk.see('.p-dialog', 'No device has been let in yet')
  await desk.click('.p-dialog .p-button', 'Show a code')
  const code = (await (await desk.see('.digits')).getText()).replace(' ', '')
  await anna.click('.door .code')
  await anna.typeOver(code === '123456' ? '654321' : '123 456')
  await anna.click('.door input:not(.code)')
  await anna.typeOver('Anna’s phone')
  await anna.press(Key.ENTER)
  await anna.see('.door .error-words', '4 tries are left')
  await desk.click('.code .act', 'hide it')
  await letIn(anna, 'Anna’s phone')
  await letIn(ben, 'Ben’s phone')
  await anna.see('.row', 'Shared')
  expect(await anna.run<boolean>('return isSecureContext')).toBe(true)
}, 90_000)

test('each sees who is here and what the other did; a room is taken, given, and walked; who contradict each other are told', async () => {
  await anna.go(at(`/jobs/${jobId}/check?line=out1&speaker=${ids[0]}`))
  await read(ben, 0, '4.1')
  await anna.see('.together', 'Ben’s phone')
  await anna.see('.together .act', 'Ben’s phone: ')
  await ben.see('.together .who', 'Anna’s phone')
  // A walk by rooms: Anna takes the hall, and gives the bar to Ben.
  await anna.click('.order', 'by rooms')
  await anna.click('.lines .tab', 'Hall')
  await anna.click('.share .act', 'I walk here')
  await anna.click('.lines .tab', 'Bar')
  await anna.click('.share .act', 'give it to Ben’s phone')
  await ben.see('.order')
  await ben.click('.order', 'by rooms')
  await ben.see('.lines .tab', 'you')
  expect((await world.readJob(jobId)).job.shares.map(s => [s.roomId, s.name])).toEqual([['hall', 'Anna’s phone'], ['bar', 'Ben’s phone']])
  // Both read one coil, otherwise.
  await anna.click('.order', 'by lines')
  await read(anna, 0, '9.9')
  for (const browser of [anna, ben]) await browser.see('.otherwise', 'cannot both be right')
  await ben.see('.otherwise', '4.1 Ω by this device, 9.9 Ω by Anna’s phone')
}, 90_000)

test('both offline on one job, both come back: everything is there once, each with whose it is', async () => {
  const before = (await readings()).length
  for (const phone of [anna, ben]) {
    await waitFor(phone, () => phone.run<boolean>('return navigator.serviceWorker.controller !== null'))
    await waitFor(phone, () => phone.driver.executeAsyncScript<boolean>(`const done = arguments[0]; const open = indexedDB.open('plain-match')
      open.onsuccess = () => { const r = open.result.transaction('jobList').objectStore('jobList').get('list'); r.onsuccess = () => { open.result.close(); done((r.result ?? '').includes('Shared')) } }`))
    await phone.offline(true)
  }
  for (const [speaker, keys] of [[1, '6.1'], [2, '6.2']] as const) await read(anna, speaker, keys)
  for (const [speaker, keys] of [[3, '6.3'], [4, '6.4'], [2, '6.6']] as const) await read(ben, speaker, keys)
  await ben.see('.kept', '3 kept here')
  await Promise.all([anna.offline(false), ben.offline(false)])
  await waitFor(anna, async () => (await readings()).length === before + 5)
  for (const phone of [anna, ben]) await phone.see('.kept', 'saved', 20_000)
  const devices = (await (await fetch(`${world.url}/api/devices`)).json() as { devices: { id: string, name: string }[] }).devices
  const nameOf = new Map(devices.map(d => [d.id, d.name]))
  expect((await readings()).slice(before).map(r => `${ids.indexOf(r.nodeId!)} ${nameOf.get(r.who!)}`).sort()).toEqual(['1 Anna’s phone', '2 Anna’s phone', '2 Ben’s phone', '3 Ben’s phone', '4 Ben’s phone'])
}, 90_000)

test('a device that is taken back in the middle of its work: said at once, what it has not sent stays on it, and goes out when it is let in again', async () => {
  const before = (await readings()).length
  await ben.go(at(`/jobs/${jobId}/check?line=out1&speaker=${ids[5]}`))
  await ben.see('.reading')
  await desk.click('.p-dialog .act[aria-label="take Ben’s phone back"]')
  await desk.click('.p-dialog .sure .act', 'take it back')
  await ben.see('.door-notice', 'taken back')
  await read(ben, 5, '6.5')
  await ben.see('.kept', '1 kept here')
  await ben.go(at('/'))
  await ben.see('.door-notice', 'stays here')
  await ben.see('.waiting', '1 edit of')
  expect((await readings()).length).toBe(before)
  await letIn(ben, 'Ben’s phone')
  await waitFor(ben, async () => (await readings()).length === before + 1)
  await ben.gone('.door-notice')
}, 90_000)

test('the server is started anew under the same name and port: a phone that was in is in, and nothing that waited is stranded', async () => {
  await anna.go(at(`/jobs/${jobId}/check?line=out1&speaker=${ids[5]}`))
  await anna.see('.reading')
  await anna.fetched()
  const before = (await readings()).length
  await world.server.stop('SIGKILL')
  await read(anna, 5, '6.7')
  world.server = await startServer(world.database.url, Number(new URL(world.url).port), undefined, entrance.env)
  await waitFor(anna, async () => (await readings()).length === before + 1)
  await anna.see('.kept', 'saved', 20_000)
}, 60_000)
