import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { By } from 'selenium-webdriver'
import type { Job } from '#core/job/schema'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { Browser, Key } from '../support/browser'
import { World } from '../support/world'

/** A phone above a ceiling: its page starts with no network, and what is done there is on the server once, whatever comes between. */

let world: World
let browser: Browser
const folder = mkdtempSync(join(tmpdir(), 'offline-'))
beforeAll(async () => {
  world = await World.open()
  browser = await Browser.open()
}, 60_000)
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true })
  await browser.close()
  await world.close()
})

const COUNT = 25
const job = (): Job => ({ ...jobOf(`${COUNT} x 2 W on 70 V 100 W`), name: 'Above the ceiling' })
const ids = nodeIds(outputOf(job()))
const go = (path: string) => browser.go(world.url + path)
const waitFor = (is: () => Promise<boolean>, ms = 20_000) => browser.driver.wait(is, ms)
/** All that starts the page is on the device. */
const installed = async () => void await waitFor(() => browser.run<boolean>('return navigator.serviceWorker.controller !== null'))
const kept = async (name = 'Above the ceiling') => void await waitFor(() => browser.driver.executeAsyncScript<boolean>(`const [name, done] = arguments; const open = indexedDB.open('plain-match')
  open.onsuccess = () => { const r = open.result.transaction('jobList').objectStore('jobList').get('list'); r.onsuccess = () => { open.result.close(); done((r.result ?? '').includes(name)) } }`, name))
const readings = async (id: string) => (await world.readJob(id)).job.readings

/** One of each speaker of a stretch, by thumb. */
async function read(from: number, to: number): Promise<void> {
  for (let k = from; k < to; k++) {
    await go(`/jobs/${jobId}/check?line=out1&speaker=${ids[k]}`)
    await browser.see('.reading')
    await browser.click('.kinds .tab', 'coil DCR')
    for (const key of ['6', '.', String(k % 10)]) await browser.click('.keypad .key', key)
    await browser.click('.keypad .record', 'Record')
    await browser.see('.reading', 'stands')
  }
}
let jobId = ''

test('started with no network: readings and photos across a reload and a restart of the browser, the server killed while they are sent: all once', async () => {
  jobId = await world.putJob(job())
  await browser.size(390, 844, true)
  await go(`/jobs/${jobId}/check?line=out1`)
  await browser.see('.reading')
  await installed()
  await kept()
  await browser.offline(true)
  // A page that is loaded anew comes from the device, and the job with it.
  await read(0, 4)
  await browser.see('.kept', '4 kept here')
  const picture = join(folder, 'joint.png')
  writeFileSync(picture, Buffer.from(await browser.run<string>(`const c = Object.assign(document.createElement('canvas'), { width: 640, height: 480 }); const g = c.getContext('2d')
    g.fillStyle = '#844'; g.fillRect(0, 0, 640, 480); return c.toDataURL('image/png').split(',')[1]`), 'base64'))
  await browser.see('.photos')
  for (let k = 0; k < 3; k++) {
    await (await browser.driver.findElement(By.css('.photos input[type=file]'))).sendKeys(picture)
    await waitFor(async () => (await browser.driver.findElements(By.css('.photos .waits'))).length === k + 1)
  }
  browser = await browser.endAndStartAgain()
  await browser.size(390, 844, true)
  await browser.offline(true)
  await go('/')
  await browser.see('.kept-here', 'These jobs are on this device')
  await browser.see('.waiting', '4 edits of “Above the ceiling” wait on this device')
  await browser.click('.kept-here .open', 'Above the ceiling')
  await browser.see('.reading, .rail-row, main')
  await read(4, 7)
  expect(await readings(jobId)).toEqual([])
  // Back, and the server goes in the middle of it.
  const url = world.url
  await world.server.stop('SIGKILL')
  await browser.offline(false)
  await go(`/jobs/${jobId}/check?line=out1&speaker=${ids[3]}`)
  await browser.see('.kept', '7 kept here')
  await world.startAgain()
  expect(world.url).toBe(url)
  await waitFor(async () => (await readings(jobId)).length === 7 && (await world.readJob(jobId)).job.photos.length === 3, 40_000)
  await browser.see('.kept', 'saved', 20_000)
  const told = (await readings(jobId)).map(r => `${ids.indexOf(r.nodeId!)} ${r.value.is === 'ohm' ? r.value.ohm : r.value.is}`)
  expect(told).toEqual(Array.from({ length: 7 }, (_, k) => `${k} ${Number(`6.${k}`)}`))
}, 120_000)

test('another has changed the job meanwhile: what fits is done, what does not is told with its reason, and it is the person who decides', async () => {
  await go(`/jobs/${jobId}`)
  await browser.see('.rail-row')
  await installed()
  await kept()
  await browser.offline(true)
  await go(`/jobs/${jobId}`)
  await browser.see('.kept', 'server away')
  await browser.click('header .menu', 'menu')
  await browser.click('header .act', 'rename')
  await browser.typeOver('Named above')
  await browser.press(Key.ENTER)
  await browser.see('.title', 'Named above')
  await world.post(`/jobs/${jobId}/sync`, { since: 0, by: 'desk', version: (await world.readJob(jobId)).job.version, edits: [{ id: 'desk-1', by: 'desk', who: null, undoes: null, edit: { kind: 'job.set', was: { name: 'Above the ceiling' }, to: { name: 'Named below' } } }] })
  await browser.offline(false)
  await browser.see('.notices', 'Named below', 20_000)
  expect((await world.readJob(jobId)).job.name).toBe('Named below')
  await browser.click('.notices .act', 'do mine anyway')
  await waitFor(async () => (await world.readJob(jobId)).job.name === 'Named above')
  await kept('Named above')
}, 60_000)

test('what waits leaves as a file, and is sent from another device once', async () => {
  await browser.offline(true)
  await go(`/jobs/${jobId}`)
  await browser.see('.rail-row')
  await browser.click('header .menu', 'menu')
  await browser.click('header .act', 'rename')
  await browser.typeOver('By file')
  await browser.press(Key.ENTER)
  await go('/')
  await browser.see('.waiting', '1 edit of')
  await browser.click('.waiting .act', 'as a file for another device')
  const downloads = browser.downloads()
  await waitFor(() => Promise.resolve(readdirSync(downloads).includes('waiting.plainmatch-queue.json')))
  const other = world.browser
  await other.size(1280, 800)
  await world.go('/')
  await other.see('.row')
  await (await other.driver.findElement(By.css('input[type=file]'))).sendKeys(join(downloads, 'waiting.plainmatch-queue.json'))
  await other.see('.problem', '1 edit and 0 photos of another device wait here now')
  await other.driver.wait(async () => (await world.readJob(jobId)).job.name === 'By file', 10_000)
  const before = (await world.readJob(jobId)).revision
  await browser.offline(false)
  await go('/')
  await browser.gone('.waiting')
  expect((await world.readJob(jobId)).revision).toBe(before)
}, 60_000)

test('kept here for good by one press, with what the browser promises; what has never been here is said', async () => {
  await go('/')
  await browser.click('.kept-here .act', 'on this device')
  await browser.click('.kept-here .tap', 'keep it here')
  await browser.see('.kept-here .tap', 'stays here')
  await browser.see('.kept-here', 'promise')
  await browser.offline(true)
  await go('/jobs/00000000-0000-4000-8000-000000000000')
  await browser.see('[role=alert]', 'The job cannot be read just now')
  await browser.offline(false)
}, 60_000)
