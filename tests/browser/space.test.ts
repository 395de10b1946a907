import { same } from '#core/quantity/same'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { emptyJob } from '#core/job/document'
import { readJob } from '#core/job/readJob'
import { speakerAt } from '#core/hands/spaces'
import { outputsOf, speakersOf } from '#core/job/tree'
import { cabled, jobOf } from '#core/testing/jobs'
import { demoGear } from '../../demo/gear'
import { demoJobs } from '../../demo'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/** From the room to the line: a space drawn, laid out, tapped, hung, measured; what is done there shows on the run sheet, and back. */

let world: World
let browser: Browser
let id = ''
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
  await world.post('/gear', { models: demoGear })
}, 120_000)
afterAll(() => world.close(), 60_000)

const stored = async () => readJob((await world.readJob(id)).job)
/** Until what is kept is so; gives what it then is. */
async function until<T>(read: (job: Awaited<ReturnType<typeof stored>>) => T, wanted: T): Promise<void> {
  let now: T | undefined
  await browser.driver.wait(async () => same(now = read(await stored()), wanted), 8000).catch(() => {})
  expect(now).toEqual(wanted)
}
async function enter(label: string, text: string): Promise<void> {
  await browser.run(`const l = [...document.querySelectorAll('.space-form label')].find(l => l.textContent.trim() === arguments[0])
    const field = document.getElementById(l.htmlFor)
    field.focus()
    field.select()`, label)
  await browser.press(...text, Key.ENTER)
}
const loads = (job: Awaited<ReturnType<typeof stored>>) => outputsOf(job).map(o => `${o.label} ${o.name}: ${speakersOf(o.wiring).map(s => s.load.kind === 'tap' ? s.load.tapW : '?').join(' ')}`)

test('by keys: a room typed, its speaker, its places, its line; one undo a step', async () => {
  await browser.size(1280, 800)
  id = await world.putJob(emptyJob('A bar'))
  await world.go(`/jobs/${id}`)
  await browser.see('.rails')
  await browser.press('p')
  await browser.see('.empty', 'Begin with the room')
  await browser.press('A')
  await browser.see('.space-form')
  await browser.press(...'Bar', Key.ENTER)
  await enter('Floor', '14 x 7 kg')
  await browser.see('.error-words', '“kg” is not a unit of length')
  await enter('Floor', '14 x 7 m')
  await enter('Noise, system off', '70')
  await until(job => job.spaces.map(s => [s.name, s.outline.at(2), s.noiseDb]), [['Bar', { xM: 14, yM: 7 }, 70]])
  await browser.click('.space-form button', 'a model of the library')
  await browser.see('.pick .model')
  await browser.press(...'back-can 100', Key.ENTER)
  await browser.see('.space-form [role=combobox]', 'Ceiling 100 back-can')
  await browser.press(Key.ESCAPE, 'f', 'g')
  await browser.see('.pane', '1.4 dB short of its target')
  expect(await browser.run('return document.querySelectorAll("[data-spot]").length')).toBe(8)
  await browser.press('=')
  await browser.see('.pane', 'Reaches its target: 77.6 dB on average, 76 dB wanted')
  await browser.press('H')
  await until(loads, ['A1 Bar: 4 4 4 4 4 4 4 4'])
  await until(job => job.spaces[0]!.spots.every(s => speakerAt(job, s) !== null), true)
  await until(job => outputsOf(job)[0]!.wiring.children.map(b => b.lead?.lengthM ?? null), [null, 3.9, 3.9, 3.9, 3.9, 3.9, 3.9, 3.9])
  await browser.press('u')
  await until(loads, [])
  await browser.press('U')
  await until(loads, ['A1 Bar: 4 4 4 4 4 4 4 4'])
}, 90_000)

test('and on to its amplifier, by keys and by mouse: found, put in, kept; taken back', async () => {
  const named = (job: Awaited<ReturnType<typeof stored>>) => job.amplifiers.map(a => [a.name, a.outputs.map(o => o.label).includes('A1'), a.from !== null])
  const before = named(await stored())
  await browser.press('F')
  await browser.see('.set .leads', 'Least money')
  await browser.press(Key.ENTER)
  await until(named, [['Mixing amplifier 60 W', true, true]])
  await browser.see('.kept', 'saved')
  await browser.press('u')
  await until(named, before)
  await browser.click('.action-row .act', 'plan taps')
  await browser.see('.verdict', 'Every space reaches its target with')
  await browser.press(Key.ESCAPE)
  await browser.gone('[role=dialog]')
  await browser.click('.action-row .act', 'amplifiers')
  await browser.click('.set .put')
  await until(named, [['Mixing amplifier 60 W', true, true]])
  await browser.run('document.activeElement.blur()')
  await browser.press('u')
  await until(named, before)
  await until(loads, ['A1 Bar: 4 4 4 4 4 4 4 4'])
}, 90_000)

test('a place chosen and moved by keys, put back; taken off with its speaker; the run sheet follows, and back', async () => {
  await browser.press(']', Key.ARROW_RIGHT, Key.ARROW_DOWN)
  await until(job => job.spaces[0]!.spots.filter(s => s.yM === 1.85).map(s => s.xM), [1.85])
  await browser.press('u', 'u')
  await browser.press(']', ']', 'x')
  await until(loads, ['A1 Bar: 4 4 4 4 4 4 4'])
  await browser.press('v')
  await browser.see('.rail-row .name', 'Bar')
  expect(await browser.run('return document.querySelectorAll("g.tag[data-node]").length')).toBe(7)
  await browser.press(Key.END, 'x')
  await until(loads, ['A1 Bar: 4 4 4 4 4 4'])
  await browser.press('p')
  await browser.see('.offer', 'Hang the 1 missing on A1 Bar')
  await browser.press('H')
  await until(loads, ['A1 Bar: 4 4 4 4 4 4 4'])
}, 60_000)

test('by mouse: pressed, dragged along the floor, read under the pointer; a tap for all; a storey, feet', async () => {
  const box = (css: string) => browser.run<{ x: number, y: number }>('const r = document.querySelector(arguments[0]).getBoundingClientRect(); return { x: r.left + r.width / 2, y: r.top + r.height / 2 }', css)
  const before = (await stored()).spaces[0]!.spots[0]!
  const tag = await box(`#spot-${before.id}`)
  const mouse = (type: string, x: number, y: number) => browser.cdp('Input.dispatchMouseEvent', { type, x, y, button: type === 'mouseMoved' ? 'none' : 'left', buttons: type === 'mouseReleased' ? 0 : 1, clickCount: 1 })
  await mouse('mousePressed', tag.x, tag.y)
  for (const d of [10, 30, 60]) await mouse('mouseMoved', tag.x + d, tag.y + d / 2)
  await mouse('mouseReleased', tag.x + 60, tag.y + 30)
  await until(job => job.spaces[0]!.spots.find(s => s.id === before.id)!.xM > before.xM + 0.8, true)
  await browser.press('u')
  await until(job => job.spaces[0]!.spots.find(s => s.id === before.id)!.xM, before.xM)
  await mouse('mousePressed', tag.x + 90, tag.y + 60)
  await mouse('mouseReleased', tag.x + 90, tag.y + 60)
  await browser.see('.reading .read', 'dB')
  await browser.click('.step', '8 W')
  await until(loads, ['A1 Bar: 8 8 8 8 8 8 8'])
  await browser.click('.units')
  await browser.see('.beside', 'ft²')
  await browser.click('.units')
  // Feet are the job's, for every station and everybody: read on the rail, typed bare into a field, taken back like all else.
  await browser.press('v')
  await browser.see('.rail-row .length', '3.9 m')
  await browser.press(Key.END, 'M')
  await browser.see('.rail-row .length', '12.8 ft')
  await browser.press('e')
  await browser.fill('Length', '10', '.lead')
  await until(job => outputsOf(job)[0]!.wiring.children.at(-1)!.lead?.lengthM, 3.048)
  await until(job => job.units, 'imperial')
  await browser.press(Key.ESCAPE, 'M', 'u', 'u', 'u')
  await browser.see('.rail-row .length', '3.9 m')
  await until(job => job.units, 'metric')
  await browser.press('p')
  await browser.see('.plan')
}, 60_000)

test('a floor drawn on the grid: by keys, one corner taken back; by mouse; walls that cross are named', async () => {
  const keys = async (key: string, times: number) => { for (let k = 0; k < times; k++) await browser.press(key) }
  await browser.press(Key.ESCAPE, 'D')
  await browser.see('[role=dialog]', 'The floor of Bar')
  // It has the focus once it stands still.
  const isOpen = () => browser.driver.wait(() => browser.run<boolean>('return document.activeElement.tagName === "svg"'), 4000)
  await isOpen()
  // Squares of half a metre on a grid of 24 m.
  await keys(Key.ARROW_RIGHT, 4)
  await browser.press(Key.ENTER)
  await keys(Key.ARROW_RIGHT, 20)
  await browser.press(Key.ENTER, Key.ARROW_DOWN, Key.ENTER, Key.BACK_SPACE)
  await keys(Key.ARROW_DOWN, 15)
  await browser.press(Key.ENTER)
  await keys(Key.ARROW_LEFT, 20)
  await browser.press(Key.ENTER)
  await keys(Key.ARROW_UP, 16)
  await browser.press(Key.ENTER)
  await browser.see('[role=dialog] .says', '80 m² with 4 walls')
  await browser.press(Key.ENTER)
  await until(job => job.spaces[0]!.outline, [{ xM: 0, yM: 0 }, { xM: 10, yM: 0 }, { xM: 10, yM: 8 }, { xM: 0, yM: 8 }])
  await browser.press('u')
  await until(job => job.spaces[0]!.outline.at(2), { xM: 14, yM: 7 })
  await browser.gone('[role=dialog]')
  await browser.press('D')
  await isOpen()
  await browser.stands('[role=dialog] svg')
  const { x, y, w } = await browser.see('[role=dialog] svg').then(() => browser.run<{ x: number, y: number, w: number }>('const r = document.querySelector("[role=dialog] .draw .grid").getBoundingClientRect(); return { x: r.left, y: r.top, w: r.width }'))
  const press = async (xM: number, yM: number) => {
    for (const type of ['mousePressed', 'mouseReleased']) await browser.cdp('Input.dispatchMouseEvent', { type, x: x + w * xM / 24, y: y + w * yM / 24, button: 'left', clickCount: 1 })
  }
  for (const [xM, yM] of [[1, 1], [9, 9], [9, 1], [1, 9], [1, 1]] as const) await press(xM, yM)
  await browser.see('[role=dialog] .error-words', 'Walls 1 and 3 cross. Take a corner back.')
  await browser.click('[role=dialog] button', 'begin again')
  for (const [xM, yM] of [[1, 1], [15, 1], [15, 8], [1, 8], [1, 1]] as const) await press(xM, yM)
  await browser.click('[role=dialog] button', 'Use this floor')
  await browser.gone('[role=dialog]')
  await until(job => job.spaces[0]!.outline.at(2), { xM: 14, yM: 7 })
}, 60_000)

test('the menu at a place, by right press: of what was pressed, with its keys', async () => {
  const spot = (await stored()).spaces[0]!.spots[1]!
  const box = await browser.run<{ x: number, y: number }>('const r = document.getElementById(arguments[0]).getBoundingClientRect(); return { x: r.left + r.width / 2, y: r.top + r.height / 2 }', `spot-${spot.id}`)
  for (const type of ['mousePressed', 'mouseReleased']) await browser.cdp('Input.dispatchMouseEvent', { type, x: box.x, y: box.y, button: 'right', clickCount: 1 })
  await browser.see('.p-contextmenu', 'the speaker of this place on the run sheet')
  await browser.see('.subject', 'a place')
  await browser.driver.wait(() => browser.run<boolean>('return document.activeElement.closest(".p-contextmenu") !== null'), 4000)
  await browser.press(Key.ESCAPE)
  await browser.gone('.p-contextmenu')
}, 60_000)

test('a level measured at the cross is kept beside what is worked out there, and taken back', async () => {
  await browser.press('m')
  await browser.see('.measure')
  await browser.type('.measure input', '74.5')
  await browser.press(Key.ENTER)
  await browser.see('.measured', '74.5 dB measured')
  await until(job => job.spaces[0]!.measured.map(m => m.db), [74.5])
  await browser.click('.measured .act', 'take back')
  await until(job => job.spaces[0]!.measured.length, 0)
}, 60_000)

test('letters typed in a field of the room are words', async () => {
  await browser.press(Key.ESCAPE, 'e')
  const before = JSON.stringify((await stored()).spaces[0]!.spots)
  await browser.click('summary', 'Cable and ceiling')
  await enter('Listing that the local code asks of cable here', 'gx hang all wait for -= the inspector')
  await until(job => job.spaces[0]!.cableRemark, 'gx hang all wait for -= the inspector')
  expect(JSON.stringify((await stored()).spaces[0]!.spots)).toBe(before)
}, 60_000)

test('the taps of all spaces planned, set in one press, undone in one; a limit that stops it is named', async () => {
  id = await world.putJob(demoJobs[0]!.job)
  await world.go(`/jobs/${id}/space`)
  await browser.see('.plan')
  const before = loads(await stored())
  await browser.press('P')
  await browser.see('.verdict', 'Every space reaches its target with')
  await browser.press(Key.ENTER)
  await until(job => loads(job)[3], 'A4 Roof walk: 5 5 5 5')
  await browser.press('u')
  await until(loads, before)
  const loud = (await stored()).spaces.find(s => s.id === 'fh-space-fern')!
  await world.post(`/jobs/${id}/sync`, { since: 0, edits: [{ id: 'loud', by: 'other', undoes: null, edit: { kind: 'space.set', spaceId: loud.id, was: { noiseDb: loud.noiseDb }, to: { noiseDb: 79 } } }] })
  await browser.press('P')
  await browser.see('.verdict', 'It cannot be done')
  await browser.see('.limits', 'Fern grotto: the highest taps there leave it')
  await browser.press(Key.ESCAPE)
}, 60_000)

test('amplifiers of the library for every line, by keys from the rooms and by mouse from the sheet; the lines keep names and readings', async () => {
  id = await world.putJob(demoJobs[0]!.job)
  await world.go(`/jobs/${id}/space`)
  await browser.see('.plan')
  const shape = (job: Awaited<ReturnType<typeof stored>>) => job.amplifiers.map(a => `${a.name}: ${a.outputs.map(o => o.label).join(' ')}`)
  const read = async () => [...(await stored()).readings].filter(r => r.outputId === 'fh-roof').length
  const [before, readings] = [shape(await stored()), await read()]
  await browser.press('F')
  await browser.see('.set .leads', 'Least money')
  await browser.see('.refused', 'feed')
  await browser.press(Key.ENTER)
  await browser.see('[role=status]', 'Amplifier A out; 4 lines moved over')
  await until(job => outputsOf(job).filter(o => speakersOf(o.wiring).length > 0).map(o => o.label).sort(), ['A1', 'A2', 'A3', 'A4', 'B1'])
  expect([shape(await stored()).some(a => a.startsWith('Amplifier A')), await read()]).toEqual([false, readings])
  await browser.press('F')
  await browser.see('.set', 'They are in already')
  await browser.press(Key.ESCAPE, 'u')
  await until(shape, before)
  await browser.press('v')
  await browser.see('.rail-row')
  await browser.press(Key.HOME)
  await browser.click('.action-row .act', 'amplifiers')
  await browser.click('[role=dialog] .taps .tap', '30 %')
  await browser.click('.set .put')
  await until(job => shape(job).some(a => a.startsWith('Amplifier A')), false)
  await browser.press('u')
  await until(shape, before)
}, 90_000)

test('what if: the wiring kept under a name, taps planned, both side by side, gone over to and back, let go', async () => {
  const before = loads(await stored())
  await browser.press('W')
  await browser.see('[role=dialog]', 'Keep the wiring as it is now')
  await browser.fill('Kept as', 'As ordered', '[role=dialog]')
  await browser.click('[role=dialog] button', 'Keep this wiring')
  await browser.see('[role=dialog]', 'This wiring is kept as As ordered')
  await until(job => job.variants.map(v => v.name), ['As ordered'])
  await browser.press(Key.ESCAPE, 'P')
  await browser.see('.verdict', 'Every space reaches its target with')
  await browser.press(Key.ENTER)
  await until(job => loads(job)[3], 'A4 Roof walk: 5 5 5 5')
  await browser.press('W')
  await browser.see('[role=dialog] thead', 'As ordered')
  await browser.see('[role=dialog] td', '25 taps otherwise')
  await browser.see('[role=dialog] td.better', 'W')
  await browser.click('[role=dialog] .act', 'go over to it')
  await until(loads, before)
  await browser.press(Key.ESCAPE, 'u')
  await until(job => loads(job)[3], 'A4 Roof walk: 5 5 5 5')
  await browser.press('W')
  await browser.click('[role=dialog] .act', 'let go')
  await until(job => job.variants.length, 0)
  await browser.press(Key.ESCAPE)
}, 90_000)

test('a line that is too much for its output is split in one press, and put together in one', async () => {
  const other = await world.putJob(cabled(jobOf('12 x 10 W on 70 V 100 W'), { cable: { awg: 14 }, lengthM: 5 }))
  const spaces = id
  id = other
  await world.go(`/jobs/${other}`)
  await browser.see('.rail-row')
  await browser.press(Key.HOME, 'Y')
  // What is said goes away by itself: it is looked for first.
  await browser.see('[role=status]', 'no other split takes less cable')
  await until(job => outputsOf(job).map(o => speakersOf(o.wiring).length), [8, 4])
  await browser.press('u')
  await until(job => outputsOf(job).map(o => speakersOf(o.wiring).length), [12])
  id = spaces
  await world.go(`/jobs/${id}/space`)
  await browser.see('.plan')
}, 60_000)

test('without the server: the room is changed all the same, and kept when it is back', async () => {
  await browser.press('[')
  await world.killServer()
  await browser.press('w', Key.ARROW_UP)
  await browser.see('.kept', 'kept here to send')
  await world.startAgain()
  await browser.see('.kept', 'saved', 30_000)
  await until(job => job.spaces[0]!.spots[0]!.yM, 9.9)
}, 90_000)

test('far over on its lowest tap: a speaker of the library that comes near is put in by a press, and the room is as loud as was said', async () => {
  const { job } = demoJobs[0]!
  id = await world.putJob({ ...job, spaces: job.spaces.map(s => s.id === 'fh-space-fern' ? { ...s, noiseDb: 60 } : s) })
  await world.go(`/jobs/${id}/space?space=fh-space-fern`)
  await browser.click('.step', '2.5 W')
  const offer = await browser.see('.other .offer', 'Ceiling 100 back-can')
  const said = /([\d.]+) dB, ([\d.]+) dB over/.exec(await offer.getText())!
  await offer.click()
  await browser.see('.what', `${said[2]} dB to spare: ${said[1]} dB on average`)
  await until(job => job.kinds.find(k => k.id === job.spaces.find(s => s.id === 'fh-space-fern')!.kindId)!.model.name, 'Ceiling 100 back-can, 16 W')
  await browser.press('u')
  await browser.see('.other .offer', 'Ceiling 100 back-can')
}, 60_000)

test('by thumb at 390: the plan fits, a place is pressed, a tap is pressed; nothing runs over the edge', async () => {
  id = await world.putJob(demoJobs[0]!.job)
  await browser.size(390, 844, true)
  await world.go(`/jobs/${id}/space?space=fh-space-staff`)
  await browser.see('.plan')
  expect(await browser.run('return document.documentElement.scrollWidth')).toBeLessThanOrEqual(390)
  await browser.click('[data-spot]')
  await browser.see('.subject', 'a place')
  // As a thumb scrolls: the row of words lies over the foot of the page.
  await browser.run('document.querySelector(".steps").scrollIntoView({ block: "center" })')
  await browser.click('.step', '4 W')
  await until(job => job.spaces.find(s => s.id === 'fh-space-staff')!.tapW, 4)
  await browser.size(1280, 800)
}, 60_000)
