import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { jobOf } from '#core/testing/jobs'
import { speakersOf } from '#core/job/tree'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/** What hands do beside the main road. */

let world: World
let browser: Browser
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
}, 120_000)
afterAll(() => world.close(), 60_000)

const SENTENCE = 'loose cover, dig out the xs and = - 1 2'

test.each([
  ['the output’s form', '', ['e'], '.pane form'], ['the speaker’s form', '', [Key.ARROW_RIGHT, 'e'], '.pane form'], ['the reading at a desk', '', ['r'], '.pane .reading'],
  ['the reading of a walk', '/check', [], '.reading'], ['what was done', '/trace', [], '.trace [data-form]'],
])('a sentence typed into and beside every field of %s does nothing to the job', async (_, path, keys, css) => {
  const made = jobOf('10 x 20 W on 70 V 240 W')
  const reading = { id: 'r', at: '2026-05-04T09:00:00Z', kind: 'line-impedance' as const, outputId: 'out1', nodeId: null, value: { is: 'ohm' as const, ohm: 29 }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false }
  const id = await world.putJob({ ...made, readings: made.readings.added(reading) })
  await world.go(`/jobs/${id}${path}`)
  await browser.see(path === '/check' ? '.reading' : '.rail-row')
  if (keys.length > 0) await browser.press(...keys)
  await browser.see(css)
  // What is read next comes a moment later, and has a field of its own.
  if (path === '/trace') await browser.see('.next h2')
  // What is folded away is opened first: its fields count too.
  await browser.run('for (const d of document.querySelectorAll("details")) d.open = true')
  const all = `[...document.querySelectorAll('${css} input, ${css} button, ${css} summary, ${css} [tabindex="0"]')].filter(e => !e.disabled && e.checkVisibility({ contentVisibilityAuto: true }))`
  const count = await browser.run<number>(`return ${all}.length`)
  expect(count).toBeGreaterThan(1)
  for (let k = 0; k < count; k++) {
    // What has gone meanwhile (a row that was worked out anew) is nowhere to type into.
    const isField = await browser.run<boolean | null>(`const e = ${all}[${k}]; e?.focus(); return !e || document.activeElement !== e ? null : e.tagName === 'INPUT'`)
    if (isField === null) continue
    // Space presses a button, as it should: beside fields only words without it are typed.
    await browser.press(...(isField ? SENTENCE : SENTENCE.replaceAll(' ', '')))
    if (isField) await browser.press(Key.ESCAPE)
  }
  const after = await world.readJob(id)
  expect([after.revision, await browser.path()]).toEqual([0, expect.stringContaining(`/jobs/${id}${path}`)])
}, 120_000)

test('a line that reads as a short: no sound is asked for until it is cleared, or somebody answers for it', async () => {
  const made = jobOf('4 x 5 W on 70 V 100 W')
  const short = { id: 'r', at: '2026-05-04T09:00:00Z', kind: 'line-impedance' as const, outputId: 'out1', nodeId: null, value: { is: 'ohm' as const, ohm: 0.2 }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false }
  const id = await world.putJob({ ...made, readings: made.readings.added(short) })
  await world.go(`/jobs/${id}/check?line=out1`)
  await browser.click('.stop-row', '02 sound')
  await browser.see('.risk', 'Do not switch on')
  expect(await browser.text('.reading .amplifier')).toMatch(/^Amplifier OFF/)
  await browser.gone('.entry button')
  await browser.click('button', 'I switch on all the same')
  await browser.click('.entry button', 'It plays')
  await browser.see('.stop-row.on', '02 sound')
  await browser.see('.kept', 'saved')
  expect((await world.readJob(id)).job.readings.at(-1)).toMatchObject({ kind: 'sound', note: 'amplifier on all the same' })
  // Read right, it is clear again.
  await browser.click('.stop-row', 'line impedance')
  await browser.click('.value input')
  await browser.press(...'250')
  await browser.click('button', 'Record')
  await browser.click('.stop-row', '03 sound')
  await browser.see('.entry button', 'It plays')
  await browser.gone('.risk')
}, 60_000)

test('a note that is opened has the focus: what is typed goes there', async () => {
  const id = await world.putJob(jobOf('8 on 100 W at 8'))
  await world.go(`/jobs/${id}/check`)
  await browser.see('.reading')
  await browser.click('button', 'with a note')
  await browser.press(...'loose cover')
  expect(await browser.run('return document.querySelector("[aria-label=\'Note to this reading\']").value')).toBe('loose cover')
}, 60_000)

test('in a new job the first press on “An amplifier” counts', async () => {
  await world.go('/')
  await browser.see('.quickline')
  await browser.click('button', 'new job')
  await browser.see('.rename input')
  await browser.click('.ways .offer', 'An amplifier')
  await browser.see('.rail-row')
}, 60_000)

test('what is found among a thousand speakers comes into view', async () => {
  const id = await world.putJob(jobOf(...Array.from({ length: 25 }, () => '40 x 5 W on 70 V 300 W')))
  await world.go(`/jobs/${id}`)
  await browser.see('.rail-row')
  await browser.press('/', ...'A25 40', Key.ENTER)
  await browser.see('.tag.chosen', '40')
  const inView = () => browser.run<boolean>('const r = document.querySelector(".tag.chosen").getBoundingClientRect(); const p = document.querySelector(".rails").getBoundingClientRect(); return r.top >= p.top && r.bottom <= p.bottom')
  await new Promise(resolve => setTimeout(resolve, 300))
  expect(await inView()).toBe(true)
}, 60_000)

test('what is said to a screen reader is shown to all, for a while', async () => {
  const id = await world.putJob(jobOf('10 x 20 W on 70 V 240 W'))
  await world.go(`/jobs/${id}`)
  await browser.see('.rail-row')
  await browser.press(Key.ARROW_RIGHT, '-', 'u')
  await browser.see('.said.shown', 'undone')
  await browser.gone('.said.shown')
}, 60_000)

test('what was done is listed with its time, and gone back to; what was taken back, forth again', async () => {
  const id = await world.putJob(jobOf('10 x 20 W on 70 V 240 W'))
  await world.go(`/jobs/${id}`)
  await browser.see('.rail-row')
  await browser.press(Key.ARROW_RIGHT, '-', 'w', '-', 'x', 'h')
  await browser.see('.p-dialog .entry', 'speaker removed × 10')
  await browser.see('.p-dialog .entry', '10 speakers: tap or impedance changed')
  const entry = async (words: string, press: string) => browser.driver.findElement({ xpath: `//li[contains(., '${words}')]//button[contains(., '${press}')]` }).click()
  await entry('10 speakers: tap or impedance changed', 'back to before this')
  await browser.see('.p-dialog .back', 'speaker removed × 10')
  await browser.press(Key.ESCAPE)
  await browser.see('.kept', 'saved')
  const taps = async () => (await world.readJob(id)).job.amplifiers[0]!.outputs[0]!.wiring.children.map(({ node }) => node.kind === 'speaker' && node.load.kind === 'tap' ? node.load.tapW : 0)
  expect(await taps()).toEqual([10, ...Array(9).fill(20)])
  // It outlives a reload, with its time.
  await browser.driver.navigate().refresh()
  await browser.see('.rail-row')
  await browser.press('h')
  expect(await browser.text('.p-dialog .entry:last-child')).toMatch(/^\d\d:\d\d/)
  await entry('10 speakers: tap or impedance changed', 'do again up to here')
  await browser.press(Key.ESCAPE)
  await browser.see('.kept', 'saved')
  expect(await taps()).toEqual([5, ...Array(9).fill(10)])
}, 60_000)

test('anything that can be done is found by a few letters, done to what is chosen, and says why when it cannot be', async () => {
  const id = await world.putJob(jobOf('3 x 10 W on 70 V 240 W'))
  await world.go(`/jobs/${id}`)
  await browser.see('.rail-row')
  await browser.press(Key.HOME, '/', ...'undo')
  await browser.see('.one.cannot', 'Nothing was done here yet.')
  await browser.press(Key.ENTER)
  await browser.see('.find-box', 'undo')
  await browser.press(Key.ESCAPE)
  await browser.gone('.find-box')
  // The focus is back where it was, and the keys with it.
  await browser.press(Key.ARROW_RIGHT, '/', ...'tap down')
  await browser.see('.one.on', 'tap down')
  await browser.press(Key.ENTER)
  await browser.see('.tag.chosen', '5 W')
  await browser.press('/', ...'nothing such')
  await browser.see('.find-box', 'Fewer letters find more')
  await browser.press(Key.ESCAPE, '/', ...'cable whole', Key.ENTER)
  await browser.see('[role=dialog]', 'Cable')
}, 60_000)

test('on a phone the same list stands behind more, with its field', async () => {
  const id = await world.putJob(jobOf('3 x 10 W on 70 V 240 W'))
  await browser.size(390, 844, true)
  try {
    await world.go(`/jobs/${id}`)
    await browser.click('.tag', '02')
    await browser.click('.pane .act', 'more')
    await browser.click('.find-box .one', 'take off')
    await browser.driver.wait(async () => (await world.readJob(id)).job.amplifiers[0]!.outputs[0]!.wiring.children.length === 2, 6000)
    expect(await browser.run('return document.documentElement.scrollWidth')).toBeLessThanOrEqual(390)
  }
  finally {
    await browser.size(1280, 800)
  }
}, 60_000)

test('a choice list lets go of the keys under the name of a phone’s browser, too: Enter opens and takes, Tab goes on and back', async () => {
  const agent = await browser.run<string>('return navigator.userAgent')
  await browser.cdp('Network.setUserAgentOverride', { userAgent: 'Mozilla/5.0 (Linux; Android 14; Phone) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/130.0.0.0 Mobile Safari/537.36' })
  try {
    const id = await world.putJob(jobOf('3 x 10 W on 70 V 240 W'))
    await world.go(`/jobs/${id}`)
    await browser.see('.rail-row')
    await browser.press(Key.ARROW_RIGHT, 'e')
    const focus = () => browser.run<string>('return document.activeElement.id || document.activeElement.getAttribute("aria-label") || document.activeElement.tagName')
    await browser.run('document.getElementById("load-kind").focus()')
    await browser.press(Key.ENTER)
    await browser.see('[role=listbox] [role=option]')
    await browser.press(Key.ESCAPE)
    await browser.gone('[role=listbox]')
    await browser.press(Key.TAB)
    expect(await focus()).not.toBe('load-kind')
    await browser.chord(Key.SHIFT, Key.TAB)
    expect(await focus()).toBe('load-kind')
    await browser.press(Key.ENTER)
    // The list is there a moment after the key; down goes from the one that stands, or to it first, as the library has it by then.
    await browser.see('[role=listbox] [role=option]')
    const pointed = () => browser.run<string>('return document.querySelector("[role=option][class*=focus]")?.textContent ?? ""')
    for (let k = 0; k < 3 && !(await pointed()).includes('impedance'); k++) await browser.press(Key.ARROW_DOWN)
    await browser.press(Key.ENTER)
    await browser.gone('[role=listbox]')
    await browser.driver.wait(async () => (await world.readJob(id)).job.amplifiers[0]!.outputs[0]!.wiring.children.some(({ node }) => node.kind === 'speaker' && node.load.kind !== 'tap'), 6000)
  }
  finally {
    await browser.cdp('Network.setUserAgentOverride', { userAgent: agent })
  }
}, 60_000)

test('on a slow line: what is typed before its form is there goes into the field, and is no key of the page; a form that cannot be had is said, and comes by itself', async () => {
  const id = await world.putJob(jobOf('3 x 10 W on 70 V 240 W'))
  const net = (latency: number) => browser.slowNetwork(latency)
  await browser.cdp('Network.enable')
  await browser.cdp('Network.clearBrowserCache')
  try {
    await net(300)
    await world.go(`/jobs/${id}`)
    await browser.see('.rail-row')
    await browser.press(Key.HOME, Key.ARROW_RIGHT, 'e', ...'Axa7')
    await browser.driver.wait(async () => await browser.run('return document.activeElement.value') === 'Axa7', 10_000)
    await browser.press(Key.ENTER)
    await browser.see('.kept', 'saved')
    expect(speakersOf((await world.readJob(id)).job.amplifiers[0]!.outputs[0]!.wiring).map(s => s.label)).toEqual(['Axa7', '02', '03'])
    await net(0)
    const later = await browser.run<string[]>(`const until = performance.getEntriesByName('others')[0].startTime
      return performance.getEntriesByType('resource').filter(e => e.startTime > until && e.name.endsWith('.js')).map(e => e.name)`)
    await browser.cdp('Network.clearBrowserCache')
    await browser.cdp('Network.setBlockedURLs', { urls: later })
    await world.go(`/jobs/${id}`)
    await browser.see('.rail-row')
    await browser.press(Key.HOME, Key.ARROW_RIGHT, 'e')
    await browser.see('.page-missing', 'cannot be fetched')
    await browser.cdp('Network.setBlockedURLs', { urls: [] })
    await browser.see('.pane form', undefined, 15_000)
    await browser.gone('.page-missing')
  }
  finally {
    await net(0)
    await browser.cdp('Network.setBlockedURLs', { urls: [] })
  }
}, 90_000)

test('in forced colours what is chosen looks otherwise than what is not', async () => {
  const id = await world.putJob(jobOf('3 x 10 W on 70 V 240 W'))
  await world.go(`/jobs/${id}`)
  await browser.see('.rail-row')
  await browser.press(Key.ARROW_RIGHT, 'e')
  await browser.see('.taps .tap')
  const looks = () => browser.run<[string, boolean][]>(`const look = e => { const s = getComputedStyle(e); return [s.backgroundColor, s.borderBottomColor, s.fill].join() }
    return [['tab', '.tab.on', '.tab:not(.on)'], ['tap', '.tap.on', '.tap:not(.on)'], ['tag', '.tag.chosen .outline', '.tag:not(.chosen) .outline']]
      .map(([name, on, off]) => [name, look(document.querySelector(on)) !== look(document.querySelector(off))])`)
  await browser.cdp('Emulation.setEmulatedMedia', { features: [{ name: 'forced-colors', value: 'active' }] })
  expect(await looks()).toEqual([['tab', true], ['tap', true], ['tag', true]])
  await browser.cdp('Emulation.setEmulatedMedia', { features: [] })
}, 60_000)
