import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { BENCH_ID } from '#core/job/bench'
import { stillOpen } from '#core/bench/closing'
import { ticketsOf } from '#core/bench/ticket'
import { readJob } from '#core/job/readJob'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { Key } from '../support/browser'
import { axeFinds, THEMES } from '../support/axe'
import { World } from '../support/world'

/** The bench: from the complaint to gone out by thumb and by keys, a missing screw told, a run with its warning, the server away, the drawer. */

let world: World
beforeAll(async () => { world = await World.open() }, 120_000)
afterAll(() => world.close())
const ticket = async (unit: string) => ticketsOf(readJob((await world.readJob(BENCH_ID)).job)).findLast(t => t.head.unit === unit)!
const saved = () => world.browser.see('.kept', 'saved')
/** Touches, where a test counts them. */
let acts = 0
async function field(label: string, text: string): Promise<void> {
  acts++
  const css = 'main label'
  const find = 'return [...document.querySelectorAll(arguments[0])].find(l => l.textContent.trim().startsWith(arguments[1]))?.querySelector("input") ?? null'
  const input = await world.browser.driver.wait(() => world.browser.run<import('selenium-webdriver').WebElement | null>(find, css, label), 8000, `no field “${label}”`)
  await input!.click()
  await input!.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE, text)
}

test('by thumb at 390: a talk-back from its complaint to gone out, with a screw that is missing', async () => {
  const { browser } = world
  acts = 0
  const tap = (css: string, text?: string) => {
    acts++
    return browser.click(css, text)
  }
  await browser.size(390, 844, true)
  await world.go('/bench')
  await browser.see('.state', 'No ticket yet')
  await tap('.begin')
  await field('Unit', 'Talk-back')
  await tap('.new-ticket .tap', 'talk-back unit')
  await field('Ohms', '16')
  await field('In its owner', 'scratches when the button is held')
  await tap('.new-ticket button', 'Open the ticket')
  await tap('.next .act', 'go there')
  await browser.see('.face .warn', 'Do not open it yet')
  await tap('.face .answers .tap', 'plays scratchy')
  await browser.see('.cause')
  await tap('.faces .tab', 'Opening')
  for (const step of ['off', 'unplugged', 'discharged']) await tap('.face .answers .tap', step)
  await field('where', 'corners')
  await tap('.face form button', 'Out')
  await browser.see('.face .missing', '4 of 4 “screws” (corners) are missing')
  for (let n = 0; n < 3; n++) await tap('.face .back .tap', '+')
  await browser.see('.face .missing', '1 of 4 “screws” (corners) is missing')
  await tap('.faces .tab', 'Before it is closed')
  for (let n = 0; n < 6; n++) {
    await browser.see('.check:nth-child(' + String(n + 1) + ')', 'open')
    await tap('.face .answers .tap', 'right')
  }
  // The lid waits for the screw.
  await browser.see('.face .warn', 'Not yet: 1 of 4 “screws” (corners) is missing')
  expect(await browser.run('return [...document.querySelectorAll(".out .p-button")].map(b => b.disabled)')).toEqual([true, true])
  await tap('.next .act', 'go there')
  await tap('.face .back .tap', '+')
  await browser.see('.face', 'All that came out is in again')
  await tap('.faces .tab', 'Before it is closed')
  for (let n = 6; n < 9; n++) {
    await browser.see('.check:nth-child(' + String(n + 1) + ')', 'open')
    await tap('.face .answers .tap', 'right')
  }
  await browser.see('.out', 'Nothing is open')
  expect(await axeFinds(browser, THEMES[0]!)).toEqual([])
  await tap('.out .p-button', 'as proved')
  await browser.see('.stands', 'gone out as proved, look again')
  // As docs/acts.md says.
  expect(acts).toBe(31)
  await saved()
  const done = await ticket('Talk-back')
  expect([done.state.as, done.state.on !== null, stillOpen(done)]).toEqual(['proved', true, []])
  await browser.size(1280, 800)
}, 120_000)

test('by keys at 1280: a handset, its twin, a new driver out of the drawer; undo; left so with a reason', async () => {
  const { browser } = world
  await world.go('/bench?at=drawer')
  await browser.see('.drawer')
  await field('or by its name', 'Driver 36')
  await field('ohms', '32')
  await field('frame', '36')
  await browser.press(Key.ENTER)
  await browser.see('.items', 'Driver 36')
  await saved()
  await world.go('/bench')
  await browser.see('.begin')
  await browser.press('c')
  await browser.see('.new-ticket')
  await browser.driver.wait(() => browser.run<boolean>('return document.activeElement.closest(".new-ticket") !== null'), 4000)
  await browser.press(...'Handset', Key.TAB)
  await field('Ohms', '32')
  await browser.press(Key.ENTER)
  await browser.see('.ticket h1', 'Handset')
  await browser.run('document.activeElement?.blur()')
  await browser.press(']')
  await browser.see('.face .asks', 'What does it do?')
  await browser.press('5')
  await browser.see('.cause')
  await browser.see('.history', 'silent')
  await browser.press('u')
  await browser.gone('.history li', 'silent')
  await browser.press('U')
  await browser.see('.history', 'silent')
  for (const _ of 'xx') await browser.press(']')
  await browser.see('.ohms')
  await browser.press('r')
  await browser.press(...'a sentence', Key.ENTER)
  await browser.see('.face .error-words')
  await browser.typeOver('open')
  await browser.press(Key.ENTER)
  await browser.see('.history', 'coil of this one: open')
  await browser.see('.next', 'Its coil is open')
  await browser.run('document.activeElement.blur()')
  await browser.press(']')
  await browser.see('.face .row', 'Driver 36')
  await browser.click('.face .row .tap', 'it goes in')
  await browser.see('.told', 'Driver 36')
  await browser.see('.next', 'its coil is not read')
  await browser.press(']')
  await browser.see('.face', '1.5 V through 150 Ω')
  await browser.press('1')
  await browser.see('.told', 'Proved')
  await browser.press('[', '[')
  await browser.see('.ohms')
  await browser.press('r')
  await browser.press(...'31', Key.ENTER)
  await browser.see('.history', 'coil of the new one: 31 Ω')
  await browser.run('document.activeElement.blur()')
  await browser.press(']', ']', ']')
  await browser.see('.out')
  await field('why it goes out so', 'its owner wants it today')
  await browser.click('.out .p-button', 'left so')
  await browser.see('.stands', 'gone out left so')
  await saved()
  const { job } = await world.readJob(BENCH_ID)
  expect([job.drawer[0]!.count, (await ticket('Handset')).state]).toEqual([0, { is: 'state', state: 'gone-out', on: expect.any(String), as: 'left-so', reason: 'its owner wants it today' }])
}, 120_000)

test('a run of temperatures: the warning is there before the limit is', async () => {
  const { browser } = world
  await world.go('/bench')
  await browser.see('.begin')
  await browser.press('c')
  await field('Unit', 'Cabinet')
  await browser.press(Key.ENTER)
  await browser.see('.ticket h1', 'Cabinet')
  await browser.click('.faces .tab', 'Load on a valve amplifier')
  await browser.see('.face', 'Never inside a live chassis')
  await browser.click('.face .tap', 'with the unknown one')
  await browser.click('.face .p-button', 'Begin a run')
  // 22 °C, 40 K more in the end, 30 minutes.
  for (const [k, celsius] of [22, 33.3, 41.5, 47.3].entries()) {
    await field('°C now', celsius.toFixed(1))
    await field('minute', String(10 * k))
    await browser.press(Key.ENTER)
    await browser.see('.run h3', `${k + 1} read`)
  }
  await browser.see('.face .warn', 'It will pass 51 °C')
  await field('°C now', '51.2')
  await field('minute', '40')
  await browser.press(Key.ENTER)
  await browser.see('.face .warn', 'It has reached 51 °C')
}, 90_000)

test('the server away in the middle: written all the same, sent when it is back', async () => {
  const { browser } = world
  await world.go('/bench')
  await browser.see('.begin')
  await browser.press('c')
  await field('Unit', 'Megaphone')
  await browser.press(Key.ENTER)
  await browser.see('.ticket h1', 'Megaphone')
  await saved()
  await browser.driver.wait(() => browser.run<boolean>('return navigator.serviceWorker.controller !== null'), 20_000)
  // The device has this ticket, too: what it keeps for when the server is away is written a little after the server has it.
  await browser.driver.wait(() => browser.driver.executeAsyncScript<boolean>(`const [id, done] = arguments; const open = indexedDB.open('plain-match')
    open.onsuccess = () => { const r = open.result.transaction('jobs').objectStore('jobs').get(id); r.onsuccess = () => { open.result.close(); done((r.result ?? '').includes('Megaphone')) } }`, BENCH_ID), 20_000)
  await world.killServer()
  await browser.click('.faces .tab', 'Readings')
  for (const ohm of ['3.4', '36']) {
    await field('ohms as the meter', ohm)
    await browser.press(Key.ENTER)
    await browser.see('.history', `coil of this one: ${ohm} Ω`)
  }
  await browser.see('.kept', '2 kept here to send')
  // Gone away and come back, with the server still down: the page, the bench and what waits are on this device.
  await world.go('/bench')
  await browser.see('.list .row', 'Megaphone')
  await browser.click('.list .row', 'Megaphone')
  await browser.see('.history', 'coil of this one: 36 Ω')
  await browser.see('.kept', '2 kept here to send')
  await world.startAgain()
  await saved()
  expect((await ticket('Megaphone')).entries.map(e => e.what.is)).toEqual(['opened', 'reading', 'reading'])
}, 120_000)

test('two are put on test at once, and back by one undo; a second window shows who is on which ticket', async () => {
  const { browser } = world
  for (const unit of ['Horn, left', 'Horn, right']) {
    await world.go('/bench')
    await browser.see('.begin')
    await browser.press('c')
    await field('Unit', unit)
    await browser.press(Key.ENTER)
    await browser.see('.ticket h1', unit)
  }
  await world.go('/bench')
  await browser.see('.list .row', 'Horn, right')
  await browser.press('s')
  for (const unit of ['Horn, left', 'Horn, right']) await browser.run('[...document.querySelectorAll(".list li")].find(l => l.textContent.includes(arguments[0])).querySelector("input").click()', unit)
  await browser.see('.several', '2 chosen')
  await browser.click('.several .tap', 'on test')
  await saved()
  const states = async () => (await Promise.all(['Horn, left', 'Horn, right'].map(ticket))).map(t => t.state.state)
  expect(await states()).toEqual(['on-test', 'on-test'])
  await browser.press('u')
  await saved()
  expect(await states()).toEqual(['came-in', 'came-in'])
  const first = await browser.driver.getWindowHandle()
  await browser.driver.switchTo().newWindow('tab')
  await browser.size(1280, 800)
  await world.go(`/bench/${(await ticket('Horn, left')).id}`)
  await browser.see('.ticket h1', 'Horn, left')
  await browser.see('.together', 'another window here (bench)', 20_000)
  await browser.driver.close()
  await browser.driver.switchTo().window(first)
}, 90_000)

test('a speaker of a job opens its ticket; the bench is in no list of jobs, and is neither archived nor deleted', async () => {
  const { browser } = world
  const job = jobOf('4 x 5 W on 70 V 60 W')
  const jobId = await world.putJob({ ...job, name: 'Palm house' })
  const line = outputOf(job)
  await world.go(`/jobs/${jobId}/check?line=${line.id}&speaker=${nodeIds(line)[1]!}`)
  await browser.see('.reading')
  await browser.press('E')
  await browser.see('.new-ticket', 'Taken down from Palm house')
  await field('Unit', 'Ceiling speaker')
  await browser.press(Key.ENTER)
  await browser.see('.ticket .top', 'from')
  await saved()
  expect((await ticket('Ceiling speaker')).head.from?.jobId).toBe(jobId)
  const ask = async (method: string, body?: unknown) => (await fetch(`${world.url}/api/jobs/${BENCH_ID}`, { method, body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })).status
  const { jobs, counts } = await (await fetch(`${world.url}/api/jobs`)).json() as { jobs: { name: string }[], counts: { active: number } }
  expect([jobs.map(j => j.name), counts.active, await ask('DELETE'), await ask('PATCH', { archived: true })]).toEqual([['Palm house'], 1, 409, 404])
  // What went out as a file comes in again, once: here it is all there; what is new is written.
  const file = await (await fetch(`${world.url}/api/jobs/${BENCH_ID}/file`)).json() as { tickets: { id: string, ticketId: string }[] }
  const [opening] = file.tickets
  const more = { ...file, tickets: [...file.tickets, { ...opening, id: 'of-a-file', ticketId: 'of-a-file' }] }
  const came = [file, more, more].map(text => world.post('/jobs', { id: jobId, from: 'file', text: JSON.stringify(text) }) as Promise<{ id: string, remarks: string[] }>)
  for (const { id, remarks } of await Promise.all(came)) expect([id, remarks.some(r => r.includes('here already'))]).toEqual([BENCH_ID, true])
  expect((await world.readJob(BENCH_ID)).job.tickets.filter(e => e.id === 'of-a-file').length).toBe(1)
  await world.go(`/jobs/${BENCH_ID}`)
  await browser.see('.bench .list')
}, 60_000)
