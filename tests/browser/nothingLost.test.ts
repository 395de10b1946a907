import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals'
import { speakersOf } from '#core/job/tree'
import { jobOf } from '#core/testing/jobs'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/** What a person did is on the server once, or in front of them with a reason: tried in a real browser, with the server really gone. */

let world: World
let browser: Browser
let id = ''

const open = (jobId = id) => world.go(`/jobs/${jobId}`).then(() => browser.see('.rail-row'))
const saved = () => browser.see('.kept', 'saved', 30_000)
const names = async (jobId = id) => (await world.readJob(jobId)).job.amplifiers[0]!.outputs.map(o => o.name)
const labels = async (jobId = id) => speakersOf((await world.readJob(jobId)).job.amplifiers[0]!.outputs[0]!.wiring).length
const editCount = async (jobId = id) => (await world.readJob(jobId)).revision
const IN_DATABASE = 'const shelf = run => new Promise((done, fail) => { const o = indexedDB.open("plain-match"); o.onerror = fail; o.onsuccess = () => { const r = run(o.result.transaction("edits", "readwrite").objectStore("edits")); r.onerror = fail; r.onsuccess = () => { o.result.close(); done(r.result) } } });'
const keptKeys = () => browser.run<string[]>(`${IN_DATABASE} return shelf(s => s.getAllKeys())`)
const putKept = (key: string, text: string) => browser.run(`${IN_DATABASE} return shelf(s => s.put(arguments[1], arguments[0])).then(() => null)`, key, text)
/** Runs before any script of every page from now on. */
const atFirst = (source: string) => browser.cdp('Page.addScriptToEvaluateOnNewDocument', { source })
/** Whether the browser would ask before the page is left. */
const isAsked = () => browser.run<boolean>('const e = new Event("beforeunload", { cancelable: true }); window.dispatchEvent(e); return e.defaultPrevented')
/** Adds a speaker at the end of the first rail: every one shows in the count. */
const addOne = () => browser.press(Key.HOME, 'a')

beforeAll(async () => {
  world = await World.open()
  browser = world.browser
}, 120_000)
afterAll(() => world.close(), 60_000)
beforeEach(async () => {
  if (!await fetch(world.url).then(() => true, () => false)) await world.startAgain()
  id = await world.putJob({ ...jobOf('3 x 5 W on 70 V 100 W'), name: 'Roof walk' })
}, 30_000)

test('away, to the list, back, one more edit: all are there', async () => {
  await open()
  await world.killServer()
  for (let k = 0; k < 3; k++) await addOne()
  await browser.see('.kept', '3 kept here to send')
  await browser.driver.wait(() => browser.driver.executeAsyncScript<boolean>(`const done = arguments[0]; const open = indexedDB.open('plain-match')
    open.onsuccess = () => { const r = open.result.transaction('jobList').objectStore('jobList').get('list'); r.onsuccess = () => { open.result.close(); done((r.result ?? '').includes('Roof walk')) } }`), 8000)
  await browser.press('j')
  await browser.see('.waiting', '3 edits of “Roof walk” wait on this device')
  await browser.click('.waiting .act', 'try now')
  await browser.driver.navigate().back()
  // The device has the job, and what waits stands on it.
  await browser.see('.rail-row')
  await browser.see('.kept', '3 kept here to send')
  await world.startAgain()
  // It reads the job anew by itself, and sends what waits with what is done now.
  await browser.see('.rail-row', undefined, 20_000)
  await addOne()
  await saved()
  expect([await labels(), await editCount(), await keptKeys()]).toEqual([7, 4, []])
}, 90_000)

test('reload while away, then one more edit: all are there', async () => {
  await open()
  await world.killServer()
  await addOne()
  await addOne()
  await browser.see('.kept', '2 kept here to send')
  await browser.driver.navigate().refresh().catch(() => undefined)
  await world.startAgain()
  await open()
  await addOne()
  await saved()
  expect([await labels(), await editCount(), await keptKeys()]).toEqual([6, 3, []])
  // The undo stack reaches over it.
  await browser.press('u')
  await saved()
  expect(await labels()).toBe(5)
}, 90_000)

test('a tab closed while away, and only the list opened later: said, and sent', async () => {
  await open()
  await world.killServer()
  await addOne()
  await addOne()
  await browser.see('.kept', '2 kept here to send')
  await browser.leaveTab()
  await world.startAgain()
  await world.go('/')
  await browser.see('.row', 'Roof walk')
  await browser.gone('.waiting')
  expect([await labels(), await editCount(), await keptKeys()]).toEqual([5, 2, []])
}, 90_000)

test('the job is switched while an exchange hangs: the next one is saved, and nothing of the first is lost', async () => {
  const other = await world.putJob({ ...jobOf('2 x 5 W on 70 V 100 W'), name: 'Palm house' })
  await open()
  await browser.cdp('Network.enable')
  await browser.cdp('Network.emulateNetworkConditions', { offline: false, latency: 2500, downloadThroughput: -1, uploadThroughput: -1 })
  await addOne()
  await browser.see('.kept', 'saving')
  await browser.press('j')
  await browser.click('a.open', 'Palm house')
  await browser.see('h1', 'Palm house', 20_000)
  await addOne()
  await saved()
  await browser.cdp('Network.emulateNetworkConditions', { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: -1 })
  expect(await labels(other)).toBe(3)
  await browser.driver.wait(async () => await labels() === 4, 15_000)
}, 90_000)

test('two windows away: both come back with what was done in each, once; what clashes is in front of the person', async () => {
  await open()
  const first = await browser.driver.getWindowHandle()
  await browser.driver.switchTo().newWindow('tab')
  const second = await browser.driver.getWindowHandle()
  await browser.size(1280, 800)
  await open()
  await world.killServer()
  const rename = async (name: string) => {
    await browser.press(Key.HOME, 'e')
    await browser.press(Key.TAB)
    await browser.typeOver(name)
    await browser.press(Key.ENTER, Key.ESCAPE)
  }
  await rename('north')
  await browser.see('.kept', 'kept here to send')
  await browser.driver.switchTo().window(first)
  await addOne()
  await rename('south')
  await browser.see('.kept', '2 kept here to send')
  await world.startAgain()
  await saved()
  await browser.driver.switchTo().window(second)
  await saved()
  const clashed = async () => (await browser.driver.findElements({ css: '.notice' })).length
  const inSecond = await clashed()
  await browser.driver.switchTo().window(first)
  const inFirst = await clashed()
  expect([inFirst + inSecond, await labels(), await editCount(), (await names())[0]!.length]).toEqual([1, 4, 2, 5])
  // A refusal outlives a reload; it goes when the person says so.
  await browser.driver.switchTo().window(inFirst > 0 ? first : second)
  await browser.driver.navigate().refresh()
  await browser.see('.notice', 'was changed in another window')
  await browser.click('.notice button', 'leave it so')
  await browser.gone('.notice')
  expect(await keptKeys()).toEqual([])
  await browser.driver.switchTo().window(second)
  await browser.driver.close()
  await browser.driver.switchTo().window(first)
}, 90_000)

test('what cannot be read in the storage is set aside and shown; the job opens all the same; a full storage stops nothing', async () => {
  await open()
  await putKept(`plain-match.kept.${id}.odd`, '{"version":1,"at":1,"jobName":"x","stamped":{"id":"a","by":"b","undoes":null,"edit":{"kind":"job.explode"}},"refused":null}')
  await browser.driver.navigate().refresh()
  await browser.see('.rail-row')
  await browser.run('IDBObjectStore.prototype.put = function () { throw new DOMException("full", "QuotaExceededError") }')
  await addOne()
  await browser.see('.kept', 'its storage is full')
  await saved()
  expect(await labels()).toBe(4)
  await world.go('/')
  await browser.see('.waiting', 'cannot be read')
  await browser.click('.waiting .act', 'throw it away')
  await browser.click('.waiting .act', 'really throw it away')
  await browser.gone('.waiting')
}, 90_000)

test('a storage that is closed: said, asked before the page is left, nothing lost on the way to the list, and sent from there', async () => {
  const script = await atFirst('IDBFactory.prototype.open = function () { throw new DOMException("closed", "SecurityError") }') as { identifier: string }
  try {
    await open()
    await world.killServer()
    await addOne()
    await addOne()
    await browser.see('.kept', 'its storage is full or closed')
    expect(await isAsked()).toBe(true)
    await browser.press('j')
    await browser.see('.waiting', '2 edits of “Roof walk” wait on this device')
    await browser.see('.waiting [role=alert]', 'only until this page is left')
    await browser.see('.waiting .act', 'try now')
    await world.startAgain()
    // The page tries by itself, too: where the server takes seconds to start it may have sent all before anybody can press.
    await browser.run('[...document.querySelectorAll(".waiting .act")].find(b => b.textContent.includes("try now"))?.click()')
    await browser.gone('.waiting')
    expect([await labels(), await editCount(), await isAsked()]).toEqual([5, 2, false])
  }
  finally {
    await browser.cdp('Page.removeScriptToEvaluateOnNewDocument', script)
  }
}, 90_000)

test('a page that is left in the very moment of an edit has kept it: 12 times, none is lost', async () => {
  for (let k = 0; k < 12; k++) {
    await open()
    await browser.press(Key.HOME)
    // No time is left to send it, nor to hear that the device has it.
    await browser.run('document.body.dispatchEvent(new KeyboardEvent("keydown", { key: "a", bubbles: true })); location.href = "about:blank"').catch((error: Error) => {
      // The page may be gone before the browser answers: that is what is wanted.
      if (!error.message.includes('aborted by navigation')) throw error
    })
  }
  await open()
  await saved()
  expect([await labels(), await editCount(), await keptKeys()]).toEqual([15, 12, []])
}, 90_000)

test('what version 1 kept is sent by this one; a clash of it is shown in the list', async () => {
  await world.go('/nowhere')
  const stamped = (n: number, edit: unknown) => ({ id: `old-${n}`, by: 'window-of-old', undoes: null, edit })
  await browser.run('localStorage.setItem(arguments[0], arguments[1])', `plain-match.pending.${id}.window-of-old`, JSON.stringify([
    stamped(1, { kind: 'job.set', was: { name: 'Roof walk' }, to: { name: 'Roof walk, east' } }), stamped(2, { kind: 'job.set', was: { name: 'something else' }, to: { name: 'never' } }),
  ]))
  await world.go('/')
  await browser.see('.row', 'Roof walk, east')
  await browser.see('.waiting', 'was changed in another window')
  await browser.click('.waiting .act', 'leave it so')
  await browser.gone('.waiting')
  expect([await editCount(), await keptKeys(), await browser.run('return Object.keys(localStorage).filter(k => k.includes("pending"))')]).toEqual([1, [], []])
}, 60_000)

test('the line typed on the first page outlives a reload; redo says what it does again', async () => {
  await world.go('/')
  await browser.see('.row')
  await browser.press('l', ...'8 + 8')
  await browser.see('.under', '16 Ω')
  await browser.driver.navigate().refresh()
  await browser.see('.under', '16 Ω')
  await open()
  await browser.press(Key.HOME, Key.ARROW_RIGHT, 'x')
  await browser.press('u', 'U')
  expect(await browser.run('return [...document.querySelectorAll("[role=status]")].map(e => e.textContent).join("|")')).toContain('done again: speaker removed')
}, 60_000)
