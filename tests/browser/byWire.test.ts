import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { demoBench } from '../../demo/bench'
import { World } from '../support/world'
import { readOf, rigWhere } from '../support/rigs'
import { startStandIn } from '../support/standIn'

/** Readings by wire on their pages: a coil of a rig, and on the bench ohms, millivolts and degrees, from the simulated meter. */

let world: World
let meter: Awaited<ReturnType<typeof startStandIn>>
beforeAll(async () => {
  meter = await startStandIn()
  world = await World.open(meter.env)
  await world.putBench(demoBench)
}, 120_000)
afterAll(async () => {
  await world.close()
  meter.stop()
})
/** What stands in a field by its name. */
const typedIn = (name: string) => world.browser.run<string>('return [...document.querySelectorAll("main label")].find(l => l.textContent.trim().startsWith(arguments[0]))?.querySelector("input").value ?? ""', name)

test('a coil of a rig: a meter is chosen, and reads it with its leads in it', async () => {
  const { browser } = world
  const rig = rigWhere(7, r => readOf(r, 'coil-dcr', 's1').is === 'ohm')
  const coil = readOf(rig, 'coil-dcr', 's1')
  await world.go(`/practice/${rig.code}`)
  await browser.see('.doables')
  await browser.click('.place', '01')
  await browser.click('button', 'its coil by wire')
  await browser.see('.p-dialog', 'Bench meters by wire')
  await browser.click('.p-dialog label', 'Simulated bench meter')
  await browser.click('.p-dialog button', 'try it')
  await browser.see('.p-dialog .said', 'Plain Match simulated bench meter reads')
  await browser.run('document.querySelector(".p-dialog-close-button").click()')
  await browser.gone('.p-dialog')
  await browser.click('button', 'its coil by wire')
  await browser.see('.last', 'coil of 01')
  const said = Number(/([\d.]+) Ω/.exec(await (await browser.see('.last b')).getText())![1])
  // Its leads have 0.22 Ω and a contact; the rest is noise of some thousandths.
  expect(coil.is === 'ohm' && Math.abs(said - coil.ohm - 0.235)).toBeLessThan(0.05)
})

test('the bench: ohms with nothing between the leads, millivolts while the cone is pushed, degrees of a run', async () => {
  const { browser } = world
  await world.go('/bench/bt-megaphone?step=readings')
  await browser.click('.face button', 'by wire')
  await browser.driver.wait(async () => (await browser.run<string>('return document.querySelector(".face .ohms input").value')) === 'open', 8000)
  await world.go('/bench/bt-handset?step=plus')
  await browser.click('.face [aria-label="By"] button', 'millivolts')
  await browser.click('.face button', 'by wire, while you push')
  await browser.see('.face', 'mV by Plain Match simulated bench meter')
  await world.go('/bench/bt-cabinet?step=load')
  await browser.click('.face button', 'Begin a run')
  await browser.click('.face button', 'by wire')
  await browser.driver.wait(async () => Math.abs(Number(await typedIn('°C now')) - 21) < 0.2, 8000)
})
