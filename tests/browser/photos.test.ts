import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { By } from 'selenium-webdriver'
import { strToU8, zipSync } from 'fflate'
import { Records } from '#core/job/records'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { demoJobs } from '../../demo'
import { World } from '../support/world'

let world: World
const folder = mkdtempSync(join(tmpdir(), 'photos-'))
const picture = join(folder, 'grille.png')
beforeAll(async () => {
  world = await World.open()
  await world.go('/')
  // A picture larger than is kept, drawn by the browser itself.
  const base64 = await world.browser.run<string>(`const c = Object.assign(document.createElement('canvas'), { width: 2400, height: 1200 }); const g = c.getContext('2d')
    g.fillStyle = '#a44b16'; g.fillRect(0, 0, 2400, 1200); g.fillStyle = '#fff'; g.fillRect(300, 200, 900, 500); return c.toDataURL('image/png').split(',')[1]`)
  writeFileSync(picture, Buffer.from(base64, 'base64'))
}, 60_000)
afterAll(async () => { await world.close() })

const choose = async (css: string, path: string) => { await (await world.browser.driver.findElement(By.css(css))).sendKeys(path) }
const job = () => jobOf('8 || 8')
const [first] = nodeIds(outputOf(job()))
const kept = async (id: string) => (await world.readJob(id)).job.photos
const until = async <T>(ask: () => Promise<T>, is: (value: T) => boolean): Promise<T> => {
  let last = await ask()
  await world.browser.driver.wait(async () => is(last = await ask()), 10_000)
  return last
}

test('by thumb: a photo of a speaker, scaled down, looked at, taken off and brought back by undo', async () => {
  const { browser } = world
  await browser.size(390, 844, true)
  const id = await world.putJob(job())
  await world.go(`/jobs/${id}/check?line=out1&speaker=${first}`)
  await browser.see('.photos')
  await choose('.photos input[type=file]', picture)
  await browser.see('.photos li img')
  const [photo] = await until(() => kept(id), photos => photos.length === 1)
  expect([photo!.nodeId, photo!.widthPx, photo!.heightPx]).toEqual([first, 1600, 800])
  const bytes = Buffer.from(await (await fetch(`${world.url}/api/photos/${photo!.hash}`)).arrayBuffer())
  expect([bytes.subarray(0, 3).toString('hex'), bytes.length < 400_000]).toEqual(['ffd8ff', true])
  await browser.gone('.photos .waits')
  await browser.click('.photos li button')
  await browser.click('[role=dialog] .act', 'take it off')
  await browser.gone('.photos li')
  await browser.click('header .act', 'undo')
  await browser.see('.photos li img')
})

test('a photo of a repair hangs on it, and is seen at its place, too', async () => {
  const { browser } = world
  const repair = { id: 'fix', at: '2026-05-04T10:00:00Z', outputId: 'out1', nodeId: first!, fault: 'open-at-drop' as const, note: 'new joint', who: null, withdrawn: false }
  const id = await world.putJob({ ...job(), repairs: Records.of([repair]) })
  await browser.size(1280, 800)
  await world.go(`/jobs/${id}/trace?line=out1`)
  await browser.see('.trace', 'Repaired, not proved yet')
  await browser.see('.trace .photos')
  await choose('.trace .photos input[type=file]', picture)
  const [photo] = await until(() => kept(id), photos => photos.length === 1)
  expect([photo!.repairId, photo!.nodeId]).toEqual(['fix', first])
  await world.go(`/jobs/${id}/check?line=out1&speaker=${first}`)
  await browser.see('.photos li img')
})

test('what is no picture is told, and nothing is taken', async () => {
  const { browser } = world
  await browser.see('.photos')
  const text = join(folder, 'list.png')
  writeFileSync(text, 'no picture at all')
  await choose('.photos input[type=file]', text)
  await browser.see('.photos', 'no picture that the browser can read')
})

test('storage full and the server away: told before anything is lost, and sent when it is back', async () => {
  const { browser } = world
  await browser.size(1280, 800)
  const id = await world.putJob(job())
  await world.go(`/jobs/${id}/check?line=out1&speaker=${first}`)
  await browser.see('.photos')
  await browser.fetched()
  // The device refuses to keep more, and no request arrives.
  await browser.run(`IDBObjectStore.prototype.put = function () { throw new DOMException('full', 'QuotaExceededError') }`)
  await browser.run(`window.realFetch = window.fetch; window.fetch = (url, ...rest) => String(url).includes('/photos') ? Promise.reject(new TypeError('away')) : window.realFetch(url, ...rest)`)
  await choose('.photos input[type=file]', picture)
  await browser.see('.photos .waits', 'not sent yet')
  await browser.see('.photos [role=alert]', 'This device cannot keep photos')
  expect(await kept(id)).toEqual([])
  await browser.run('window.fetch = window.realFetch')
  expect((await until(() => kept(id), photos => photos.length === 1)).length).toBe(1)
  await browser.gone('.photos .waits')
  await browser.gone('.photos [role=alert]')
}, 60_000)

test('an archive out, and in again as another job with its photo; one that was changed is refused with the reason', async () => {
  const { browser } = world
  const id = await world.putJob({ ...job(), name: 'Boat with photos' })
  await world.go(`/jobs/${id}/check?line=out1&speaker=${first}`)
  await browser.see('.photos')
  await choose('.photos input[type=file]', picture)
  const [photo] = await until(() => kept(id), photos => photos.length === 1)
  await browser.see('header .act', 'with photos')
  const archive = join(folder, 'boat.plainmatch.zip')
  writeFileSync(archive, Buffer.from(await (await fetch(`${world.url}/api/jobs/${id}/archive`)).arrayBuffer()))
  await world.go('/')
  await browser.see('.row')
  await choose('input[type=file]', archive)
  await browser.driver.wait(async () => /\/jobs\/(?!$)/.test(await browser.path()) && !(await browser.path()).includes(id), 10_000)
  const other = /jobs\/([0-9a-f-]{36})/.exec(await browser.path())![1]!
  expect([(await kept(other)).map(p => p.hash), (await world.readJob(other)).job.name]).toEqual([[photo!.hash], 'Boat with photos'])
  const changed = join(folder, 'changed.zip')
  writeFileSync(changed, zipSync({ 'job.plainmatch.json': strToU8('{}'), [`photos/${'0'.repeat(64)}.jpg`]: new Uint8Array([0xFF, 0xD8, 0xFF, 0x00, 0xFF, 0xD9]) }))
  await world.go('/')
  await browser.see('.row')
  await choose('input[type=file]', changed)
  await browser.see('[role=alert]', 'is not what its name says')
}, 60_000)

test('the building’s own plan under the floor: a picture, scaled by two points and a length, faded; the walk shows on it', async () => {
  const { browser } = world
  await browser.size(1280, 800)
  const { job: garden } = demoJobs[0]!
  const id = await world.putJob(garden)
  const space = garden.spaces.find(s => s.spots.some(p => p.nodeId !== null))!
  await world.go(`/jobs/${id}/space?space=${space.id}`)
  await browser.see('.plan')
  await browser.press('e')
  await browser.click('.space-form summary', 'The building’s own plan')
  await choose('.picture input[type=file]', picture)
  const pictureOf = async () => (await world.readJob(id)).job.spaces.find(s => s.id === space.id)!.picture
  const fitted = (await until(pictureOf, p => p !== null))!
  await browser.see('.plan image')
  await browser.click('.picture .tap', 'strong')
  // Two points 200 px apart on the drawing.
  const floor = await browser.see('.plan .drawing svg .walls')
  const pressAt = async (x: number) => { await browser.driver.actions().move({ origin: floor as never, x, y: 0 }).click().perform() }
  await pressAt(-100)
  await browser.click('.picture .tap', 'first point at the cross')
  await pressAt(100)
  await browser.click('.picture .tap', 'second point at the cross')
  const now = Number.parseFloat((await browser.text('.picture .moves .soft.small:last-child')).replace(' m now', ''))
  await browser.fill('Between them it is', `${(now * 2).toFixed(2)} m`, '.picture')
  const scaled = (await until(pictureOf, p => p!.mPerPx > fitted.mPerPx * 1.5))!
  expect([Math.abs(scaled.mPerPx / fitted.mPerPx / 2 - 1) < 0.05, scaled.fade]).toEqual([true, 0.8])
  const speaker = space.spots.find(p => p.nodeId !== null)!.nodeId!
  const line = garden.amplifiers.flatMap(a => a.outputs).find(o => o.wiring.children.some(c => c.node.id === speaker))!
  await world.go(`/jobs/${id}/check?line=${line.id}&speaker=${speaker}`)
  await browser.see('.on-plan', `${space.name}: filled is here`)
  await browser.see('.on-plan image')
}, 60_000)
