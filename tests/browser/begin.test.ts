import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { Job } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/** From an empty job: by a room, by speakers that hang already, by an amplifier, a table, a typed line; by mouse, keys and thumb, the acts counted. */
let world: World
let browser: Browser
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
}, 120_000)
afterAll(() => world.close(), 60_000)

let acts = 0
async function press(css: string, text?: string): Promise<void> {
  acts++
  await browser.click(css, text)
}
async function begin(): Promise<void> {
  await world.go('/')
  await browser.see('.quickline')
  acts = 0
  await press('.head button', 'new job')
  await browser.see('.begin')
}
async function drawn(): Promise<unknown> {
  await browser.see('.kept', 'saved')
  const { job } = await world.readJob((await browser.path()).split('/')[2]!.split('?')[0]!)
  return outputsOf(job as unknown as Job).map(o => [o.rating, speakersOf(o.wiring).map(s => s.load.kind === 'tap' ? s.load.tapW : s.load.kind === 'nominal' ? `${s.load.nominalOhm} Ω` : '?').join(' '), o.wiring.children.map(c => c.lead && [c.lead.lengthM, JSON.stringify(c.lead.cable)].join(' ')).join(', ')])
}
const LINE = { kind: 'constant-voltage', lineV: 70.71, powerW: null }

test('six ceiling speakers with their cable, by thumb from nothing: five acts and what is typed', async () => {
  await browser.size(390, 844, true)
  try {
    await begin()
    await press('.offer', 'Speakers that hang already')
    for (const [label, text] of [['So far apart', '6'], ['Cable', '1.5 mm2']] as const) await browser.fill(label, text, '.hanging')
    await press('.hanging button', 'Hang 6 of 5 W')
    await browser.see('.rail-row')
    expect(await drawn()).toEqual([[LINE, '5 5 5 5 5 5', Array.from({ length: 6 }, () => '6 {"areaMm2":1.5}').join(', ')]])
    expect(acts + 2).toBeLessThanOrEqual(5)
    expect(await browser.run('return document.documentElement.scrollWidth')).toBeLessThanOrEqual(390)
  }
  finally {
    await browser.size(1280, 800)
  }
}, 60_000)

test('by keys: a digit takes a way; a typed line is mended where it is wrong, and put in by Enter; one undo takes it all back', async () => {
  await begin()
  await browser.press(Key.ENTER, '5', ...'4 x 8 parallel on 300 W at 2 and')
  await browser.see('.begin .wrong')
  for (let k = 0; k < 4; k++) await browser.press(Key.BACK_SPACE)
  await browser.press(Key.ENTER)
  await browser.see('.rail-row')
  expect(await drawn()).toEqual([[expect.objectContaining({ kind: 'solid-state' }), '8 Ω 8 Ω 8 Ω 8 Ω', ', , , ']])
  await browser.press(Key.ESCAPE, 'u')
  await browser.see('.begin')
}, 60_000)

test('a table: what is wrong is told beside its rows, what can be read is hung', async () => {
  await begin()
  await press('.offer', 'A table')
  await browser.run(`const t = document.querySelector('.paste textarea'); t.value = arguments[0]; t.dispatchEvent(new Event('input', { bubbles: true }))`, 'no.\ttap\tlength\nC1\t10 W\t5 m\nC2\t10 W\tfar\nC3\t\t\nC4\t20 W\t6 m')
  await browser.see('.bad', 'far')
  expect((await browser.text('.bad')).replace(/\s+/g, ' ')).toMatch(/^3 C2 10 W far length: .* 4 C3 how it is wired is not said\.$/)
  await press('.paste button', 'Hang the 2 that can be read')
  await browser.see('.rail-row')
  expect(await drawn()).toEqual([[LINE, '10 20', '5 null, 6 null']])
}, 60_000)

test('a room: its form stands open; a job with rooms and no line is called so, and is not offered to be deleted', async () => {
  await begin()
  await press('.offer', 'A room')
  await browser.see('.space-form')
  await browser.see('.kept', 'saved')
  await browser.press(Key.ESCAPE, 'v')
  await browser.see('.begin', '1 space planned, and no line yet')
  await browser.press('j')
  const row = await browser.see('.row', '1 space planned, no line yet.')
  expect(await row.getText()).not.toContain('delete')
}, 60_000)

test('a table pasted on the sheet that cannot be hung as it is: all that is wrong at once, mended there, or left out', async () => {
  await begin()
  await press('.offer', 'An amplifier')
  await browser.see('.rail-row')
  await browser.press(Key.ESCAPE, Key.HOME)
  await browser.run(`const d = new DataTransfer(); d.setData('text/plain', arguments[0]); document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: d, bubbles: true, cancelable: true }))`, 'tap\tlength\n10 W\tfar\nx\t3 m\n5 W\t4 m')
  await browser.see('.p-dialog .bad', 'far')
  await browser.click('.p-dialog button', 'Hang the 1 that can be read')
  await browser.gone('.p-dialog')
  await browser.see('.said.shown', '1 pasted')
  expect((await drawn() as unknown[][])[0]![1]).toBe('5')
}, 60_000)

test('a field that is done gives the keys back to the page; Tab goes on from it', async () => {
  await begin()
  await press('.offer', 'Speakers that hang already')
  await press('.hanging button', 'Hang 6 of 5 W')
  await browser.see('.rail-row')
  await browser.fill('What it is', 'Ceiling')
  await browser.press('-')
  await browser.see('.tag.chosen', '2.5 W')
  await browser.fill('Label', '11')
  await browser.press(Key.TAB, ...'Pendant', Key.ENTER, 'u')
  await browser.see('.said.shown', 'undone: A1 11: name “Ceiling” → “Pendant”')
}, 60_000)

test('C asks before what; a move asks for the cable, keeps numbers single and says so', async () => {
  await begin()
  await press('.offer', 'Speakers that hang already')
  await press('.hanging button', 'Hang 6 of 5 W')
  await browser.see('.rail-row')
  await browser.press(Key.ESCAPE, 'A', Key.ESCAPE, 'a')
  await browser.see('.rail-row:nth-of-type(1)')
  await browser.click('#tag-none, .rail-row .tag', '03')
  await browser.press('C')
  await browser.see('.picker', '03 and all behind it')
  await browser.press('2')
  await browser.see('g.box', 'C1')
  await browser.press(Key.ESCAPE)
  await browser.click('.rail-row .tag', '01')
  await browser.press('m')
  await browser.see('.picker h3', 'Move 01 to')
  await browser.press('1')
  await browser.see('.said.shown', '01 is 02 now: that number stood there already')
}, 60_000)

test('what is not there on the ladder is taken off once: a second press in the same place does nothing to the next', async () => {
  await begin()
  await press('.offer', 'Speakers that hang already')
  await press('.hanging button', 'Hang 6 of 5 W')
  await browser.see('.rail-row')
  const path = (await browser.path()).split('?')[0]!
  await world.go(`${path}/check`)
  await browser.click('.place', '03')
  await browser.see('.found button', 'it is not there')
  // At once, in one go: the hand is still there, however slow what drives it is.
  await browser.run(`
    const drawn = () => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))
    const press = (css, text) => [...document.querySelectorAll(css)].find(b => b.textContent.includes(text)).click()
    press('.found button', 'it is not there')
    return drawn().then(() => { press('.place', '04'); return drawn() }).then(() => press('.found button', 'it is not there'))`)
  expect((await drawn() as unknown[][])[0]![1]).toBe('5 5 5 5 5')
}, 60_000)
