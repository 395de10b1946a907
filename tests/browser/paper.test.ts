import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { demoJobs } from '../../demo'
import { Key } from '../support/browser'
import { World } from '../support/world'

/** Sheets as the browser itself prints them, and what comes back on them. */

let world: World
let jobId = ''
const fern = demoJobs.find(d => d.job.name.includes('Fernhollow'))!.job
beforeAll(async () => {
  world = await World.open()
  jobId = await world.putJob({ ...fern, name: 'Glass "A"; b' })
}, 60_000)
afterAll(() => world.close())

interface Page { text: string, width: number, height: number }
/** Printed to PDF as a person would, and read back by a library that makes none. */
async function printed(): Promise<Page[]> {
  const { data } = await world.browser.cdp('Page.printToPDF', { preferCSSPageSize: true }) as { data: string }
  const document = await getDocument({ data: new Uint8Array(Buffer.from(data, 'base64')), verbosity: 0 }).promise
  return Promise.all(Array.from({ length: document.numPages }, async (_, k) => {
    const page = await document.getPage(k + 1)
    const { width, height } = page.getViewport({ scale: 1 })
    const { items } = await page.getTextContent()
    return { width, height, text: items.map(i => 'str' in i ? i.str : '').join(' ').replace(/\s+/g, ' ') }
  }))
}
async function open(kept: string): Promise<void> {
  await world.go('/')
  await world.browser.run('localStorage.setItem("plain-match.paper", arguments[0])', kept)
  await world.go(`/jobs/${jobId}/paper`)
  await world.browser.see('.paper-choose .p-button', 'Print')
}

test.each([['A4', 595, 842], ['letter', 612, 792]])('on %s: pages of that size, each with the job, the day, its number; nothing of the screen; every reading of the walk once', async (size, width, height) => {
  await open(`${size} run schedule walk record`)
  const pages = await printed()
  const upright = pages.filter(p => p.width < p.height)
  expect([pages.length > 6, pages.length < 30, upright.length < pages.length]).toEqual([true, true, true])
  for (const [k, { text, width: w, height: h }] of pages.entries()) {
    expect([k, Math.abs(Math.min(w, h) - width) < 1, Math.abs(Math.max(w, h) - height) < 1]).toEqual([k, true, true])
    expect(text).toContain(`page ${k + 1} of ${pages.length}`)
    expect(text).toContain('Glass "A"; b ·')
    expect(text).not.toMatch(/to print|what came back|rename|undo/)
  }
  const walk = pages.map(p => p.text).join(' ')
  const count = await world.browser.run<number>('return document.querySelectorAll(".sheet-walk tbody tr:has(.written)").length')
  expect(count).toBe(112)
  for (const no of [1, 57, 112]) expect(walk).toMatch(new RegExp(`\\b${no} [AB]\\d`))
  for (const line of fern.amplifiers.flatMap(a => a.outputs)) expect(walk).toContain(line.name)
}, 60_000)

test('what came back is typed in in its order by keys alone: judged at once, what cannot be read stays with its reason, and each is on the server', async () => {
  const { browser } = world
  await open('A4 walk')
  const code = await (await browser.see('.paper header .code')).getText()
  const before = (await world.readJob(jobId)).job.readings.length
  await browser.press('b')
  await browser.click('.head input', undefined)
  await browser.press(...'XXXX')
  await browser.see('.error-words', code)
  await browser.typeOver(code.toLowerCase())
  await browser.gone('.error-words')
  await browser.click('.typed-in li input')
  await browser.press(...'6.1', Key.ENTER)
  await browser.see('.verdict', 'As it should be')
  await browser.press(...'open', Key.ENTER)
  await browser.see('.verdict', 'Reads wrong: open')
  await browser.press(...'rubbish', Key.ENTER)
  await browser.see('.typed-in .error-words', '“rubbish” is not')
  expect(await browser.run<string>('return document.activeElement.value')).toBe('rubbish')
  await browser.typeOver('6.3')
  await browser.press(Key.ENTER)
  await browser.driver.wait(async () => (await world.readJob(jobId)).job.readings.length === before + 3, 10_000)
  expect((await world.readJob(jobId)).job.readings.slice(before).map(r => [r.value.is === 'ohm' ? r.value.ohm : r.value.is, r.note])).toEqual([6.1, 'open', 6.3].map(v => [v, 'typed in from paper']))
}, 60_000)

test('a bench meter by wire fills a reading by one key; with none chosen it asks which', async () => {
  const { createServer } = await import('node:net')
  const meter = createServer((socket) => {
    socket.on('error', () => undefined)
    socket.on('data', text => String(text).trim().split('\n').forEach(line => socket.write({ '*IDN?': 'A,BENCH,1,1\n', 'SYST:ERR?': '0,"No error"\n', 'READ?': '6.4321\n' }[line.trim()] ?? '')))
  })
  await new Promise<void>(resolve => meter.listen(0, '127.0.0.1', () => resolve()))
  const { port } = meter.address() as { port: number }
  const { browser } = world
  try {
    await world.go(`/jobs/${jobId}/check?line=fh-fern&speaker=fh-fern-05`)
    await browser.see('.reading')
    await browser.click('.kinds .tab', 'coil DCR')
    await browser.press(Key.ESCAPE, 'm')
    await browser.see('.p-dialog .meters', 'None yet')
    await browser.stands('.p-dialog')
    for (const [at, text] of [[1, 'Bench two'], [2, '127.0.0.1'], [3, String(port)]] as const) await browser.type(`.p-dialog .fields label:nth-child(${at}) input`, text)
    await browser.click('.p-dialog button', 'Add it')
    await browser.see('.p-dialog .name', 'Bench two')
    await browser.click('.p-dialog .acts .act', 'try it')
    await browser.see('.p-dialog .said', 'A BENCH reads 6.432 Ω')
    await browser.press(Key.ESCAPE)
    await browser.gone('.p-dialog')
    await browser.press(Key.ESCAPE, 'm')
    await browser.driver.wait(() => browser.run<boolean>('return document.querySelector(".reading .value input").value === "6.432"'), 8000)
    await browser.see('.reading .result', 'As it should be')
    await browser.press(Key.ENTER)
    await browser.see('.history', '6.43 Ω')
    await browser.see('.history', 'A BENCH')
    // On the bench it reads whatever lies between its leads.
    const reading = await browser.path()
    await world.go('/bench')
    await browser.see('.begin')
    await browser.press('c')
    await browser.type('.new-ticket input', 'Driver')
    await browser.press(Key.ENTER)
    await browser.click('.faces .tab', 'Readings')
    await browser.click('.face .act', 'by wire')
    await browser.driver.wait(() => browser.run<boolean>('return document.querySelector(".ohms input").value === "6.432"'), 8000)
    await browser.click('.face .p-button', 'Record')
    await browser.see('.history', 'coil of this one: 6.43 Ω, as it lay, A BENCH, leads not nulled')
    await world.go(reading)
    await browser.see('.reading')
    await browser.press(Key.ESCAPE)
    // Its plug is pulled.
    meter.close()
    await browser.press('m')
    await browser.see('.reading .error-words', 'Nothing listens at 127.0.0.1')
  }
  finally {
    meter.close()
  }
}, 60_000)
