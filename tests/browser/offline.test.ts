import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import pg from 'pg'
import { By } from 'selenium-webdriver'
import type { Job } from '#core/job/schema'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { Browser, Key } from '../support/browser'
import { startServer } from '../support/server'
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

const COUNT = 60
const job = (): Job => ({ ...jobOf(`${COUNT} x 2 W on 70 V 200 W`), name: 'Above the ceiling' })
const ids = nodeIds(outputOf(job()))
const go = (path: string) => browser.go(world.url + path)
const waitFor = (is: () => Promise<boolean>, ms = 20_000) => browser.driver.wait(is, ms)
/** All that starts the page is on the device. */
const installed = async () => void await waitFor(() => browser.run<boolean>('return navigator.serviceWorker.controller !== null'))
const kept = async (name = 'Above the ceiling') => void await waitFor(() => browser.driver.executeAsyncScript<boolean>(`const [name, done] = arguments; const open = indexedDB.open('plain-match')
  open.onsuccess = () => { const r = open.result.transaction('jobList').objectStore('jobList').get('list'); r.onsuccess = () => { open.result.close(); done((r.result ?? '').includes(name)) } }`, name))
const readings = async (id: string) => (await world.readJob(id)).job.readings

/** Ohms of the k-th, as they are typed: each another. */
const typed = (k: number) => `6.${String(k).padStart(2, '0')}`
/** One of each speaker of a stretch by thumb, as the walk leads on. */
async function read(from: number, to: number): Promise<void> {
  await go(`/jobs/${jobId}/check?line=out1&speaker=${ids[from]}`)
  await browser.see('.reading')
  await browser.click('.kinds .tab', 'coil DCR')
  for (let k = from; k < to; k++) {
    // The first by the thumb itself; the others by the same keys, in one go, for fifty would take a minute.
    if (k === from) for (const key of typed(k)) await browser.click('.keypad .key', key)
    else await browser.run('for (const key of arguments[0]) [...document.querySelectorAll(".keypad .key")].find(b => b.textContent.trim() === key).click()', typed(k))
    await onTheKey('Record')
    await onTheKey('Next place', k + 1 < to)
    if (k + 1 < to) await waitFor(() => browser.run<boolean>('return location.search.includes(arguments[0])', `speaker=${ids[k + 1]}`))
  }
}
/** Waits until the big key says so and can be pressed; presses it. */
const onTheKey = (says: string, isPressed = true) => waitFor(() => browser.run<boolean>(`const key = document.querySelector('.keypad .record')
  if (key.textContent.trim() !== arguments[0] || key.disabled) return false
  if (arguments[1]) key.click()
  return true`, says, isPressed))
/** Begins a transaction that holds the job: what a server writes to it waits in the middle. */
async function heldJob(): Promise<{ waiting: () => Promise<number>, killWhatWaits: () => Promise<void>, letGo: () => Promise<void> }> {
  const [holder, other] = [new pg.Client({ connectionString: world.database.url }), new pg.Client({ connectionString: world.database.url })]
  await Promise.all([holder.connect(), other.connect()])
  await holder.query('begin')
  await holder.query('select 1 from jobs where id = $1 for update', [jobId])
  const waits = `from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock' and state = 'active'`
  return {
    waiting: async () => Number((await other.query<{ count: string }>(`select count(*) ${waits}`)).rows[0]!.count),
    killWhatWaits: async () => { await other.query(`select pg_terminate_backend(pid) ${waits}`) },
    letGo: async () => {
      await holder.query('rollback')
      await Promise.all([holder.end(), other.end()])
    },
  }
}
let jobId = ''

/** The same application with another program for the browser, as a newer build has it: another page to keep, and a worker that says so. Its entry. */
function newerBuild(): string {
  const newer = join(folder, 'newer')
  cpSync(dirname(dirname(process.env.TEST_SERVER_ENTRY!)), newer, { recursive: true })
  const change = (file: string, from: RegExp, to: string) => {
    const text = readFileSync(join(newer, file), 'utf8')
    expect([file, from.test(text)]).toEqual([file, true])
    writeFileSync(join(newer, file), text.replace(from, to))
  }
  change('public/sw.js', /url:"\/",revision:"\d{13}"/, 'url:"/",revision:"4711471147114"')
  change('server/chunks/nitro/nitro.mjs', /("\/sw\.js": \{\s+"type": "[^"]+",\s+"etag": ")[^,]+",/, '$1\\"newer\\"",')
  return join(newer, 'server/index.mjs')
}

const HALF = 25
const ALL = 50
const PHOTOS = 10

test('started with no network: fifty readings and ten photos across a reload and a restart of the browser; the server killed while they are sent, the database’s end of the transaction too: all once', async () => {
  jobId = await world.putJob(job())
  await browser.size(390, 844, true)
  await go(`/jobs/${jobId}/check?line=out1`)
  await browser.see('.reading')
  await installed()
  await kept()
  await browser.offline(true)
  // A page that is loaded anew comes from the device, and the job with it.
  await read(0, HALF)
  await browser.see('.kept', `${HALF} kept here`)
  const picture = join(folder, 'joint.png')
  await browser.see('.photos')
  for (let k = 0; k < PHOTOS; k++) {
    writeFileSync(picture, Buffer.from(await browser.run<string>(`const c = Object.assign(document.createElement('canvas'), { width: 640, height: 480 }); const g = c.getContext('2d')
      g.fillStyle = 'hsl(' + 36 * arguments[0] + ' 60% 40%)'; g.fillRect(0, 0, 640, 480); return c.toDataURL('image/png').split(',')[1]`, k), 'base64'))
    await (await browser.driver.findElement(By.css('.photos input[type=file]'))).sendKeys(picture)
    await waitFor(async () => (await browser.driver.findElements(By.css('.photos .waits'))).length === k + 1)
  }
  browser = await browser.endAndStartAgain()
  await browser.size(390, 844, true)
  await browser.offline(true)
  await go('/')
  await browser.see('.kept-here', 'These jobs are on this device')
  await browser.see('.waiting', `${HALF} edits of “Above the ceiling” wait on this device`)
  await browser.click('.kept-here .open', 'Above the ceiling')
  await browser.see('.reading, .rail-row, main')
  await read(HALF, ALL)
  expect(await readings(jobId)).toEqual([])
  // Back, and the server goes in the middle of writing it; the next one loses the database in the middle of it.
  const held = await heldJob()
  await browser.offline(false)
  await waitFor(async () => await held.waiting() > 0)
  await world.startAgain()
  await waitFor(async () => await held.waiting() > 0)
  await held.killWhatWaits()
  expect(await readings(jobId)).toEqual([])
  await held.letGo()
  await waitFor(async () => (await readings(jobId)).length === ALL && (await world.readJob(jobId)).job.photos.length === PHOTOS, 60_000)
  await browser.see('.kept', 'saved', 20_000)
  const told = (await readings(jobId)).map(r => `${ids.indexOf(r.nodeId!)} ${r.value.is === 'ohm' ? r.value.ohm : r.value.is}`)
  expect(told).toEqual(Array.from({ length: ALL }, (_, k) => `${k} ${Number(typed(k))}`))
  expect(new Set((await world.readJob(jobId)).job.photos.map(p => p.hash)).size).toBe(PHOTOS)
}, 240_000)

test('a newer version of the application comes while a queue waits: taken by a press, it sends what the older one kept, once', async () => {
  const held = await heldJob()
  await read(ALL, ALL + 3)
  await waitFor(async () => await held.waiting() > 0)
  const entry = newerBuild()
  await world.server.stop('SIGKILL')
  world.server = await startServer(world.database.url, Number(new URL(world.url).port), undefined, { TEST_SERVER_ENTRY: entry })
  await browser.run('navigator.serviceWorker.getRegistration().then(r => r.update())')
  await browser.see('.page-newer', 'A newer version is here', 20_000)
  await browser.click('.page-newer .act', 'take it now')
  await waitFor(() => browser.driver.executeAsyncScript<boolean>(`const done = arguments[0]; caches.keys().then(names => Promise.all(names.map(n => caches.open(n).then(c => c.keys()))))
    .then(all => done(all.flat().some(r => r.url.includes('__WB_REVISION__=4711')) && performance.getEntriesByType('navigation')[0].type === 'reload'))`))
  await browser.see('.kept', '3 kept here', 20_000)
  expect((await readings(jobId)).length).toBe(ALL)
  await held.letGo()
  await waitFor(async () => (await readings(jobId)).length === ALL + 3, 40_000)
  await browser.see('.kept', 'saved', 20_000)
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
