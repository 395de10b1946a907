import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { By } from 'selenium-webdriver'
import { spliceAt } from '#core/hands/splices'
import { readJob } from '#core/job/readJob'
import type { Job } from '#core/job/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { axeFinds, THEMES } from '../support/axe'
import { Key } from '../support/browser'
import { World } from '../support/world'

let world: World
let folder: string
beforeAll(async () => {
  world = await World.open()
  folder = mkdtempSync(join(tmpdir(), 'rack-'))
}, 60_000)
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true })
  await world.close()
})

const settled = async () => void await world.browser.driver.wait(async () => (await world.browser.run<string>('return document.querySelector(".kept")?.textContent ?? ""')).includes('saved'), 8000)
const named = (): Job => {
  const job = jobOf('80 W on 70 V 100 W', '80 W on 70 V 100 W')
  return { ...job, amplifiers: job.amplifiers.map(a => ({ ...a, highPassHz: 80, outputs: a.outputs.map((o, k) => ({ ...o, name: ['Deck', 'Saloon'][k]! })) })) }
}

test('what comes in is said at the rack, with a mixer before it; the sheet judges it: a player comes in twice, a call does not go over it', async () => {
  const { browser } = world
  await browser.size(1280, 800)
  const id = await world.putJob(named())
  await world.go(`/jobs/${id}/wire?line=out1`)
  await browser.see('.line')
  await browser.press('R')
  await browser.see('.device', 'What comes in is not stated')
  await browser.click('.foot-acts .act', 'a mixer more')
  await browser.see('.device h3', 'Mixer')
  await browser.fill('What comes in', 'Gallery player', '.input-part')
  await browser.press(Key.ENTER)
  await browser.click('.input-part .tap', 'two sides')
  await browser.click('.input-part [aria-label="What it brings"] .tap', 'music player')
  await browser.click('.input-part [aria-label="How both sides come in"] .tap', 'summed')
  const device = async (k: number) => (await browser.driver.findElements(By.css('.device')))[k]!
  const press = async (k: number, css: string, says: string) => {
    for (const button of await (await device(k)).findElements(By.css(css))) if ((await button.getText()).includes(says)) return button.click()
    throw new Error(`no “${says}”`)
  }
  await press(1, '.act', 'an input more')
  await press(1, '.input-part .tap', 'Mixer')
  await press(1, '.act', 'an input more')
  await press(1, '.input-part .tap', 'Gallery player')
  await press(0, '.act', 'an input more')
  await browser.fill('What comes in', 'Desk', '.input-part')
  await browser.press(Key.ENTER)
  await browser.click('.input-part [aria-label="What it brings"] .tap', 'microphone')
  await browser.click('.input-part [aria-label="Over the others"] .tap', 'beside them')
  await settled()
  await browser.press(Key.ESCAPE)
  await world.go(`/jobs/${id}?line=out1`)
  await browser.see('.pane', 'Gallery player comes in twice: input 1, through Mixer; input 2.')
  await browser.see('.pane', 'Desk calls over Gallery player')
  const { job } = await world.readJob(id)
  expect(job.amplifiers.map(a => [a.name, a.made, a.outputs.length, a.inputs.map(i => `${i.source?.name} ${i.source?.kind} ${i.sum} ${i.isOver} ${i.source?.deviceId === null ? '' : 'device'}`.trim())])).toEqual([
    ['Mixer', 'mixer', 0, ['Gallery player media summed null', 'Desk microphone null false']], ['Amplifier A', null, 2, ['Mixer line null null device', 'Gallery player media null null']],
  ])
  expect(await browser.complaints()).toEqual([])
}, 60_000)

test('a harness is typed once: its pairs are named, it is kept, and another job takes it from the library, by thumb', async () => {
  const { browser } = world
  await browser.size(1280, 800)
  const id = await world.putJob(named())
  await world.go(`/jobs/${id}/wire?line=out1`)
  await browser.see('.line')
  await browser.press('H')
  await browser.see('[role=dialog]', 'No map in it yet')
  await browser.fill('Or typed: each way with its terminals and its conductors, the plus first', 'it is in the drawer', '[role=dialog]')
  await browser.press(Key.ENTER)
  await browser.see('[role=dialog] .error-words', 'must have its conductors or its terminals')
  await browser.fill('Or typed: each way with its terminals and its conductors, the plus first', 'saloon [3 4] = grey/black, grey; deck [1 2] = white, white/black', '[role=dialog]')
  await browser.press(Key.ENTER)
  await browser.see('[role=dialog] td', 'saloon')
  await browser.fill('Keep what was typed as', 'Four-way plug', '[role=dialog]')
  await browser.press(Key.ENTER)
  await browser.see('[role=dialog] .good', 'Kept as “Four-way plug”')
  await browser.click('[role=dialog] button', 'Name these pairs')
  await browser.gone('[role=dialog]')
  await browser.see('.line', 'white/black')
  await settled()
  const drawn = async (of: string) => {
    const job = readJob((await world.readJob(of)).job)
    return job.amplifiers[0]!.outputs.map(o => [o.terminals?.plus, spliceAt(job, o.wiring.children[0]!.node.id).pair?.map(c => `${c.base}/${c.stripe}`).join(' '), spliceAt(job, o.wiring.children[0]!.node.id).start])
  }
  const wanted = [['1', 'white/ white/black', 'straight'], ['3', 'grey/black grey/', 'straight']]
  expect([await drawn(id), (await world.readJob(id)).job.colourExceptions.length]).toEqual([wanted, 1])
  await browser.size(390, 844, true)
  const other = await world.putJob(named())
  await world.go(`/jobs/${other}/wire?line=out1`)
  await browser.click('button', 'harness')
  await browser.click('.maps .tap', 'Four-way plug')
  await browser.click('[role=dialog] button', 'Name these pairs')
  await browser.gone('[role=dialog]')
  await settled()
  expect(await drawn(other)).toEqual(wanted)
  await browser.click('button', 'undo')
  await settled()
  expect(await drawn(other)).toEqual([[undefined, undefined, null], [undefined, undefined, null]])
  expect(await browser.complaints()).toEqual([])
}, 60_000)

/** A PDF of plain boxes, a page for each size. */
function pdfOf(...pages: [width: number, height: number][]): Buffer {
  const objects = ['<</Type/Catalog/Pages 2 0 R>>', `<</Type/Pages/Count ${pages.length}/Kids[${pages.map((_, k) => `${3 + 2 * k} 0 R`).join(' ')}]>>`]
  for (const [k, [width, height]] of pages.entries()) {
    const draws = `0 0 0 rg 20 20 ${width - 40} ${height - 40} re f`
    objects.push(`<</Type/Page/Parent 2 0 R/MediaBox[0 0 ${width} ${height}]/Resources<<>>/Contents ${4 + 2 * k} 0 R>>`, `<</Length ${draws.length}>>stream\n${draws}\nendstream`)
  }
  let text = '%PDF-1.4\n'
  const places = objects.map((object, k) => {
    const at = text.length
    text += `${k + 1} 0 obj\n${object}\nendobj\n`
    return at
  })
  const xref = text.length
  text += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${places.map(p => `${String(p).padStart(10, '0')} 00000 n \n`).join('')}trailer<</Size ${objects.length + 1}/Root 1 0 R>>\nstartxref\n${xref}\n%%EOF\n`
  return Buffer.from(text, 'latin1')
}

test('a page of a PDF lies under a floor: the one that is asked for; what is no PDF is said', async () => {
  const { browser } = world
  await browser.size(1280, 800)
  const job = jobOf('8')
  const id = await world.putJob({ ...job, spaces: [plainSpace('hall', 'Hall')] })
  const files = { two: join(folder, 'plan.pdf'), broken: join(folder, 'broken.pdf') }
  writeFileSync(files.two, pdfOf([400, 200], [200, 400]))
  writeFileSync(files.broken, 'no plan at all')
  await world.go(`/jobs/${id}/space?space=hall`)
  await browser.see('.plan')
  await browser.press('e')
  await browser.click('.space-form summary', 'The building’s own plan')
  const choose = async (path: string) => (await browser.driver.findElement(By.css('.picture input[type=file]'))).sendKeys(path)
  await choose(files.broken)
  await browser.see('.picture .error-words', 'This PDF cannot be read')
  await choose(files.two)
  await browser.fill('Which of its 2 pages', '3', '.picture')
  await browser.press(Key.ENTER)
  await browser.see('.picture', 'A page from 1 to 2.')
  await browser.fill('Which of its 2 pages', '2', '.picture')
  await browser.press(Key.ENTER)
  await browser.see('.picture', 'another picture')
  await settled()
  const { picture } = (await world.readJob(id)).job.spaces[0]!
  expect([picture!.heightPx, picture!.widthPx]).toEqual([1600, 800])
  const bytes = new Uint8Array(await (await fetch(`${world.url}/api/photos/${picture!.hash}`)).arrayBuffer())
  expect([bytes[0], bytes[1], bytes.length > 1000]).toEqual([0xff, 0xd8, true])
}, 60_000)

test('the rack, a harness, a level: no complaint of an accessibility checker, in every theme', async () => {
  const { browser } = world
  const job = named()
  const id = await world.putJob(job)
  for (const theme of THEMES) {
    await browser.size(1280, 800)
    await world.go(`/jobs/${id}/wire?line=out1`)
    await browser.see('.line')
    await browser.press('R')
    await browser.see('.device')
    await browser.click('.device .in .act', 'an input more')
    await browser.see('.input-part')
    expect([theme.name, 'rack', await axeFinds(browser, theme)]).toEqual([theme.name, 'rack', []])
    await browser.press(Key.ESCAPE)
    await browser.press('H')
    await browser.see('[role=dialog]', 'From the library')
    expect([theme.name, 'harness', await axeFinds(browser, theme)]).toEqual([theme.name, 'harness', []])
    await world.go(`/jobs/${id}/check?line=out1&speaker=${nodeIds(outputOf(job))[0]}`)
    await browser.click('.act', 'read something else')
    await browser.click('.kinds .tab', 'level')
    await browser.see('.level')
    expect([theme.name, 'level', await axeFinds(browser, theme)]).toEqual([theme.name, 'level', []])
  }
}, 90_000)
