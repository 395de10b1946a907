import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { writeJobFile } from '#core/format/plainMatch'
import { jobOf } from '#core/testing/jobs'
import { demoGear } from '../../demo/gear'
import { demoJobs } from '../../demo'
import { fernhollow } from '../../demo/fernhollow'
import { marigold } from '../../demo/marigold'
import { axeFinds, THEMES } from '../support/axe'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

let world: World
let browser: Browser
let fern = ''
let boat = ''
let rooms = ''

beforeAll(async () => {
  world = await World.open()
  browser = world.browser
  await world.post('/gear', { models: demoGear })
  fern = await world.putJob(fernhollow)
  boat = await world.putJob(marigold)
  rooms = await world.putJob({ ...demoJobs[0]!.job, name: 'Glasshouses with rooms' })
}, 120_000)
afterAll(() => world.close(), 60_000)

describe('jobs', () => {
  test('new, rename, duplicate, archive, bring back', async () => {
    await world.go('/')
    await browser.see('.row', 'Fernhollow Glasshouses')
    await browser.press('c')
    await browser.see('.rename input')
    await browser.typeOver('Chapel')
    await browser.press(Key.ENTER)
    await browser.see('h1', 'Chapel')
    await browser.see('.empty', 'Nothing drawn yet')
    await browser.press('A')
    await browser.see('.rail-row')
    await browser.see('.kept', 'saved')
    expect((await world.readJob((await browser.driver.getCurrentUrl()).split('/jobs/')[1]!.slice(0, 36))).job.units).toBe('metric')
    await browser.press('j')
    await browser.click('[aria-label="rename Chapel"]')
    await browser.typeOver('Chapel, north')
    await browser.press(Key.ENTER)
    await browser.click('[aria-label="duplicate Chapel, north"]')
    await browser.see('.row', 'Chapel, north (copy)')
    await browser.click('[aria-label="archive Chapel, north (copy)"]')
    await browser.see('.problem', 'is archived')
    await browser.gone('.row', '(copy)')
    await browser.press('u')
    await browser.see('.row', '(copy)')
  }, 60_000)

  test('a file comes in; one that is no job is refused with its name and what is wrong', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'files-'))
    const put = async (name: string, text: string) => {
      writeFileSync(join(folder, name), text)
      await (await browser.driver.findElement({ css: 'input[type=file]' })).sendKeys(join(folder, name))
    }
    await world.go('/')
    await browser.see('.row')
    await put('letter.json', '{"dear": "sir"}')
    await browser.see('.problem', 'letter.json: format')
    await put('cut.plainmatch.json', writeJobFile(fernhollow).slice(0, 500))
    await browser.see('.problem', 'cut short')
    await put('boat.plainmatch.json', writeJobFile({ ...marigold, name: 'Boat from a file' }))
    await browser.see('h1', 'Boat from a file')
  }, 60_000)

  test('a job that is not there, and a page that is not', async () => {
    await world.go('/jobs/00000000-0000-4000-8000-000000000000')
    await browser.see('[role=alert]', 'This job is not here')
    await world.go('/nowhere')
    await browser.see('h1', 'There is no such page')
  }, 60_000)
})

describe('quick match', () => {
  test('a line built by tapping alone', async () => {
    await world.go('/quick')
    await browser.click('button', 'build it by tapping')
    for (const piece of ['12 x', '5 W', '+', '2 x', '20 W', 'on 70 V', '120 W']) await browser.click('.piece:not(:disabled)', piece)
    await browser.see('.tag.large', 'Tight')
    expect(await (await browser.see('.typed')).getAttribute('value')).toBe('12 x 5 W + 2 x 20 W on 70 V 120 W')
    await browser.click('.piece', 'take back')
    await browser.click('.piece', 'take back')
    expect(await (await browser.see('.typed')).getAttribute('value')).toBe('12 x 5 W + 2 x 20 W on 70 V')
  }, 60_000)
})

describe('bad input at every field says what is wrong and keeps what was typed', () => {
  const cases: [string, string, string[], string, string, RegExp][] = [
    ['label', '01', [Key.ARROW_RIGHT], 'Label', ' ', /must not be empty/],
    ['taps', '01', [Key.ARROW_RIGHT], 'Its taps', 'many', /“many” is not a power/],
    ['line voltage', '01', [Key.ARROW_RIGHT], 'Printed for, V', '-70', /between 1 and 1000/],
    ['driver', '01', [Key.ARROW_RIGHT], 'Driver behind it', '8 W', /“W” is not a unit of resistance/],
    ['rating', '01', [Key.ARROW_RIGHT], 'Continuous rating', '0', /cannot be used/],
    ['length', '01', [Key.ARROW_RIGHT], 'Length', 'far', /“far” is not a length/],
    ['cable', '01', [Key.ARROW_RIGHT], 'Size', '16', /could be a gauge or an area/],
    ['output', 'A1', [], 'Output', ' ', /must not be empty/],
    ['what it gives', 'A1', [], 'What this output gives', '300 W', /which load/],
    ['cable of the line', 'A1', [], 'Cable of the whole line', '99 AWG', /No speaker cable of 99 AWG/],
    ['amplifier', 'A1', [], 'Name', ' ', /must not be empty/],
  ]
  test.each(cases)('%s', async (_, __, keys, label, typed, says) => {
    await world.go(`/jobs/${fern}?line=fh-palm`)
    await browser.see('.rail-row')
    await browser.press(Key.HOME, ...keys, 'e')
    const id = await (await browser.see('.entry label', label)).getAttribute('for')
    const field = await browser.see(`[id="${id}"]`)
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), typed, Key.ENTER)
    await browser.see('.entry .error-words')
    expect(await browser.text('.entry .error-words')).toMatch(says)
    expect(await field.getAttribute('value')).toBe(typed)
  }, 60_000)

  test('a reading', async () => {
    await world.go(`/jobs/${fern}?line=fh-palm`)
    await browser.see('.rail-row')
    await browser.press(Key.HOME, 'r', ...'lots', Key.ENTER)
    await browser.see('.reading .error-words', 'A reading is a number')
    expect((await world.readJob(fern)).revision).toBe(0)
  }, 60_000)
})

describe('checks at phone width', () => {
  test('a reading by thumb: keypad, verdict, suspects, and the next place', async () => {
    await browser.size(390, 844, true)
    try {
      await world.go(`/jobs/${fern}/check?line=fh-fern&speaker=fh-fern-02`)
      await browser.see('.keypad')
      for (const key of ['3', '1', '.', '4']) await browser.click('.key', key)
      await browser.see('.result', 'Reads wrong: far too high')
      await browser.click('.key', 'Record')
      await browser.click('button', 'Trace it')
      await browser.see('.suspect', 'Failing coil at 02')
      await browser.click('button', 'back to the reading')
      await browser.click('.pad button', 'Next place')
      await browser.see('.place.on', '03')
      await browser.run('scrollTo(0, 0)')
      await browser.click('.place', '02')
      await browser.click('.kinds .tab', 'sound')
      await browser.see('.reading', 'Does it play')
      await browser.click('button', 'It plays')
      await browser.see('.result', 'Plays')
      await browser.see('.kept', 'saved')
      expect((await world.readJob(fern)).job.readings.slice(-2).map(r => [r.nodeId, r.kind, r.value.is])).toEqual([['fh-fern-02', 'coil-dcr', 'ohm'], ['fh-fern-02', 'sound', 'plays']])
      // Nothing lies beyond the edge of the screen.
      expect(await browser.run('return document.documentElement.scrollWidth')).toBeLessThanOrEqual(390)
    }
    finally {
      await browser.size(1280, 800)
    }
  }, 60_000)
})

describe('every main view, by day, by night and in forced colours', () => {
  const views: [string, () => string, string][] = [
    ['jobs', () => '/', '.row'], ['quick match', () => '/quick?line=12%20x%205%20W%20on%2070%20V%2060%20W', '.answer'], ['run sheet', () => `/jobs/${fern}`, '.rail-row'],
    ['run sheet, low impedance', () => `/jobs/${boat}`, '.rail-row'],
    ['space', () => `/jobs/${rooms}/space`, '.plan'],
    ['a space planned', () => `/jobs/${rooms}/space?space=fh-space-staff`, '.step'],
    ['check', () => `/jobs/${fern}/check?line=fh-roof`, '.reading'],
    ['suspects', () => `/jobs/${fern}/trace`, '.suspect'], ['paper', () => `/jobs/${fern}/paper`, '.paper header'], ['come in', () => '/let-in', '.door'],
    ['gear', () => '/gear', '.body .line'], ['a model', () => `/gear/${demoGear[6]!.id}`, '.fields'], ['a table in', () => '/gear/in?kind=speaker', '.source'],
  ]
  test.each(views)('%s: names, roles and contrast pass (axe-core, WCAG 2 AA)', async (_, path, css) => {
    // Opened once; day, night and forced colours change nothing but colours.
    await world.go(path())
    await browser.see(css)
    for (const theme of THEMES) expect([theme.name, await axeFinds(browser, theme)]).toEqual([theme.name, []])
  }, 60_000)

  test('names as long as allowed push nothing out of the sheet', async () => {
    const long = jobOf('6 x 10 W on 70 V 100 W')
    const name = 'The long and winding gallery above the old bottling hall, east end, behind the second pair of doors, as drawn in nineteen'.slice(0, 120)
    const [amplifier] = long.amplifiers
    const id = await world.putJob({ ...long, name, amplifiers: [{ ...amplifier!, name, place: name, outputs: amplifier!.outputs.map(o => ({ ...o, name, label: 'OUTPUT-NUMBER-TWENTYFOUR'.slice(0, 24) })) }] })
    await world.go(`/jobs/${id}`)
    await browser.see('.rail-row')
    expect(await browser.run('return document.documentElement.scrollWidth')).toBeLessThanOrEqual(1280)
  }, 60_000)
})

test('no request left this machine, and the pages had nothing to complain of', async () => {
  const requests = (await browser.requests()).filter(url => !url.startsWith('data:') && !url.startsWith('blob:') && !url.startsWith('chrome'))
  expect(requests.length).toBeGreaterThan(50)
  expect(requests.filter(url => new URL(url).hostname !== '127.0.0.1')).toEqual([])
  // The browser itself notes every answer of 404 and 422 that was asked for above.
  expect((await browser.complaints()).filter(text => !/status of (404|422)|Page not found: \/nowhere/.test(text))).toEqual([])
})
