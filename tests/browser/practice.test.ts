import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { By } from 'selenium-webdriver'
import { FAULT_WORDS } from '#core/check/faultWords'
import { readCode, writeCode } from '#core/practice/code'
import { EXERCISES } from '#core/practice/exercises'
import { nameIn } from '#core/practice/places'
import { rigOf, type Rig } from '#core/practice/rig'
import type { Result } from '#core/practice/result'
import { jobOf, outputOf } from '#core/testing/jobs'
import { axeFinds, THEMES } from '../support/axe'
import { Key } from '../support/browser'
import { readOf, rigWhere } from '../support/rigs'
import { World } from '../support/world'

/** Practice: an exercise by mouse, by keys and by thumb to its score, the wrong step told, a code in a second window, one's own line, a teacher's exercise. */

let world: World
const folder = mkdtempSync(join(tmpdir(), 'practice-'))
beforeAll(async () => { world = await World.open() }, 120_000)
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true })
  await world.close()
})
const results = async () => (await (await fetch(`${world.url}/api/practice`)).json() as { results: Result[] }).results
/** On this one 02 stands on 20 W in place of 5, and is heard and read as such. */
const LOUD = rigWhere(7, rig => rig.faults[0]!.kind === 'wrong-tap' && rig.faults[0]!.nodeId === 's2' && rig.faults[0]!.tapW === 20
  && readOf(rig, 'beside', 's2', 's1').is === 'louder' && readOf(rig, 'tap-found', 's2').is === 'tap' && readOf(rig, 'line-impedance').is === 'ohm')
const CODE = LOUD.code
const ohmAt = (rig: Rig) => {
  const head = readOf(rig, 'line-impedance')
  return head.is === 'ohm' ? head.ohm : NaN
}

test('by mouse: read, walk, look at the dial, named; the score against the tracer, the way that was gone, and from a point of it once more', async () => {
  const { browser } = world
  await browser.size(1280, 800)
  await world.go('/practice')
  await browser.see('.world', 'nothing here touches a job')
  await (await browser.see('.code input')).sendKeys(CODE.toLowerCase())
  await browser.click('.code button', 'Open it')
  await browser.click('.doables .offer', 'impedance of the line')
  await browser.see('.last', 'Ω')
  await browser.click('.switch button', 'switch it on')
  await browser.click('.doables .offer', 'listen at every speaker')
  await browser.click('.doables .offer', 'with the pulse on')
  await browser.see('.last', 'right way round')
  await browser.click('.place', '02')
  await browser.click('.doables .offer', 'as loud as')
  await browser.see('.last', 'louder than 01')
  await browser.see('.last button', 'hear it')
  await browser.click('.doables .offer', 'dial of 02')
  await browser.see('.last.stop', 'a meter on a line that is on')
  await browser.click('.switch button', 'switch it off')
  await browser.click('.doables .offer', 'dial of 02')
  await browser.see('.last', '20 W on 70 V')
  await browser.click('.naming button', 'This is it')
  await browser.click('.kinds button', 'Wrong tap at 02')
  await browser.see('.score', 'Found: Wrong tap at 02')
  await browser.see('.score', 'The tracer takes', 60_000)
  await browser.click('.score summary', 'How the tracer goes about it here')
  await browser.see('.score .tracers li:last-child', 'put right')
  await browser.see('.score', 'Once it could have hurt')
  await browser.see('.steps', 'Amplifier on', 60_000)
  expect(await browser.driver.findElements(By.css('svg .act-dot'))).toHaveLength(9)
  for (const theme of THEMES) expect([theme, await axeFinds(browser, theme)]).toEqual([theme, []])
  await browser.driver.wait(async () => (await results()).some(r => r.code === CODE && r.isFound && r.bestMinutes !== null && r.risks === 1), 20_000)
  await browser.click('.steps li:nth-child(3) button', 'go on from before it')
  await browser.see('.log', 'Amplifier on')
  expect(await browser.driver.findElements(By.css('.log li'))).toHaveLength(2)
}, 180_000)

test('by keys: a coil whose leads were not nulled, a place that is right, given up; progress is on the list, and in a window that kept nothing', async () => {
  const { browser } = world
  const rig = rigWhere(2, r => readOf(r, 'coil-dcr', 's1').is === 'ohm')
  await world.go(`/practice/${rig.code}`)
  await browser.see('.doables')
  await browser.press('2', 'o')
  await browser.see('.switch', 'Amplifier ON')
  await browser.press('1')
  await browser.see('.last', 'Walk')
  await browser.press('o', Key.ARROW_DOWN)
  await browser.see('.here h2', 'At 01')
  for (const k of [4]) await browser.press(String(k))
  await browser.see('.last', 'coil of 01')
  // The first that may be wrong there and is not.
  const wrong = rig.faults[0]!.nodeId === 's1' ? 's2' : 's1'
  if (wrong === 's2') await browser.press(Key.ARROW_DOWN)
  await browser.press('m')
  await browser.see('.kinds button')
  await browser.press('1')
  await browser.see('.last.stop', 'it is right there')
  await browser.run('[...document.querySelectorAll(".ends button")].at(-1).click()')
  await browser.see('.score', 'Not found:')
  await browser.see('.score', 'The leads were not nulled')
  await browser.see('.steps .lost', undefined, 60_000)
  await browser.see('.score', 'The best possible play takes')
  await browser.press('b')
  await browser.see('.go .stands', 'tried once, not found')
  await browser.driver.wait(async () => (await results()).length >= 2, 10_000)
  await browser.run('localStorage.clear()')
  await world.go('/practice')
  await browser.see('.go .stands', 'tried once, not found')
}, 180_000)

test('by thumb at 390, as a newcomer: from the jobs to the first thing found', async () => {
  const { browser } = world
  await browser.size(390, 844, true)
  await world.go('/')
  let acts = 0
  const tap = (css: string, text?: string) => {
    acts++
    return browser.click(css, text)
  }
  await tap('.menu')
  await tap('.items button', 'practice')
  await tap('.begin .offer', 'One driver on the bench')
  await browser.see('.doables')
  const code = (await browser.driver.getCurrentUrl()).split('/').at(-1)!
  const rig = rigOf(readCode(code, EXERCISES.length))
  await tap('.doables .offer', 'impedance of the line')
  await tap('.leads button', 'null')
  await tap('.place', '01')
  await tap('.doables .offer', 'Read the coil')
  await tap('.naming button', 'This is it')
  await tap('.kinds button', FAULT_WORDS[rig.faults[0]!.kind].at(nameIn(rig.output)('s1')))
  await browser.see('.score', 'Found: ')
  await browser.see('.score', 'The best possible play takes', 30_000)
  // docs/acts.md says how many touches it is.
  expect(acts).toBe(9)
  const [wide, full] = await browser.run<[number, number]>('return [document.documentElement.scrollWidth, innerWidth]')
  expect(wide).toBeLessThanOrEqual(full)
}, 90_000)

test('the same code in a second window is the same rig; a meter over its range reads nothing; a code that is none is told', async () => {
  const { browser } = world
  await browser.size(1280, 800)
  const hiddenIn = async () => {
    await world.go(`/practice/${writeCode({ level: 13, seed: 12 })}`)
    await browser.see('.doables')
    await browser.press('2')
    const read = await (await browser.see('.last b')).getText()
    await browser.run('[...document.querySelectorAll(".ends button")].at(-1).click()')
    return [read, await (await browser.see('.score h2')).getText()]
  }
  const one = await hiddenIn()
  const first = await browser.driver.getWindowHandle()
  await browser.driver.switchTo().newWindow('tab')
  await browser.size(1280, 800)
  await world.go('/practice')
  await browser.run('localStorage.clear()')
  expect(await hiddenIn()).toEqual(one)
  await browser.driver.close()
  await browser.driver.switchTo().window(first)
  // Over 200 Ω on a range of 200: open, or more, nobody knows; then the meter finds its own.
  const high = rigWhere(11, rig => ohmAt(rig) > 300 && ohmAt(rig) < 900)
  await world.go(`/practice/${high.code}`)
  await browser.click('.here summary', 'finds its own range')
  await browser.click('.meter .tap', '200 Ω')
  await browser.click('.doables .offer', 'impedance of the line')
  await browser.see('.last', 'over its range')
  await browser.click('.meter .tap', 'its own')
  await browser.click('.doables .offer', 'impedance of the line')
  await browser.see('.last b', `${ohmAt(high)} Ω`)
  for (const [code, says] of [['R1-07-0002A', 'of catalogue 1'], ['X-12345678', 'not on this device'], ['what do I type', 'no code of a rig']] as const) {
    await world.go(`/practice/${encodeURIComponent(code)}`)
    await browser.see('.gone', says)
  }
}, 90_000)

test('a fault in one’s own line: the job stays as it was', async () => {
  const { browser } = world
  const job = { ...jobOf('6 x 5 W on 70 V 60 W'), name: 'Fern house' }
  const jobId = await world.putJob(job)
  const before = await world.readJob(jobId)
  await world.go(`/jobs/${jobId}`)
  await browser.see('.tag[role=button]')
  await browser.press('N')
  await browser.see('.head .title', `Fern house, ${outputOf(job).label}`)
  await browser.see('.world', 'nothing here touches a job')
  await browser.press('2')
  await browser.see('.last', 'Ω')
  await browser.run('[...document.querySelectorAll(".ends button")].at(-1).click()')
  await browser.see('.score', 'Not found:')
  expect(await world.readJob(jobId)).toEqual(before)
}, 60_000)

test('a teacher: an exercise is made, played, its play comes back; a sentence in every field, and files that are none, are told and lose nothing', async () => {
  const { browser } = world
  await world.go('/practice')
  await browser.press('c')
  await browser.see('.make')
  await browser.click('.make button', 'Make it')
  await browser.see('.make .error-words', 'has a name')
  const fields = await browser.driver.findElements(By.css('.make input:not([type=checkbox])'))
  for (const field of fields.slice(0, 3)) await field.sendKeys('Guests hear nothing at the window')
  await browser.click('.make button', 'Make it')
  await browser.see('.make .error-words', 'not chosen yet')
  const choose = async (label: string, option: string) => {
    await browser.click(`.make [aria-label="${label}"]`)
    await browser.click('.p-select-option', option)
  }
  await choose('Place 1', '03')
  await choose('What is wrong 1', 'Coil of 03 open')
  await browser.click('.make button', 'Make it')
  await browser.see('.teach', 'Guests hear nothing')
  await browser.click('.place', '03')
  await browser.click('.naming button', 'This is it')
  await browser.click('.kinds button', 'Coil of 03 open')
  await browser.see('.score', 'Found: Coil of 03 open')
  await (await browser.see('.give input')).sendKeys('Mila')
  const href = await (await browser.see('.give a')).getAttribute('href')
  writeFileSync(join(folder, 'play.json'), decodeURIComponent(href!.slice(href!.indexOf(',') + 1)))
  writeFileSync(join(folder, 'rubbish.json'), 'What do I type here?')
  await world.go('/practice')
  await browser.driver.findElement(By.css('input[type=file]')).sendKeys(`${join(folder, 'play.json')}\n${join(folder, 'rubbish.json')}`)
  await browser.see('main', 'Mila')
  await browser.see('main', 'found in 8 minutes, no tests')
  await browser.see('.error-words', 'rubbish.json: This is no exercise')
}, 90_000)

test('with the server away: opened, played, kept on the device, sent when it is back', async () => {
  const { browser } = world
  await world.go('/practice')
  await browser.driver.wait(() => browser.run<boolean>('return navigator.serviceWorker.controller !== null'), 20_000)
  await world.killServer()
  const broken = rigWhere(1, rig => readOf(rig, 'line-impedance').is === 'open')
  await world.go(`/practice/${broken.code}`)
  await browser.see('.doables')
  await browser.press('2')
  await browser.see('.last b', 'open')
  await browser.run('[...document.querySelectorAll(".ends button")].at(-1).click()')
  await browser.see('.score', 'Not found:')
  await world.startAgain()
  await world.go('/practice')
  await browser.driver.wait(async () => (await results()).some(r => r.code === broken.code), 20_000)
}, 90_000)
