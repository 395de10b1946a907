import { demoGear } from '../demo/gear'
import { demoJobs } from '../demo'
import { emptyJob } from '#core/job/document'
import { World } from '../tests/support/world'
import { Key } from '../tests/support/browser'
const world = await World.open()
const { browser } = world
const settle = (ms = 500) => new Promise(r => setTimeout(r, ms))
await world.post('/gear', { models: demoGear })
const id = await world.putJob(demoJobs[0]!.job)
await world.go(`/jobs/${id}/space?space=fh-space-roof`); await browser.see('.plan'); await browser.press('n', Key.ARROW_DOWN, Key.ARROW_RIGHT); await settle()
await browser.picture('/tmp/s1.png')
await browser.press('n')
const empty = await world.putJob(emptyJob('A bar'))
await world.go(`/jobs/${empty}/space`); await browser.see('.empty'); await browser.picture('/tmp/s2.png')
await browser.press('A'); await settle()
console.log(await browser.run('return document.activeElement.value'))
await browser.picture('/tmp/s3.png')
const fill = async (label: string, text: string) => { await browser.run(`const l = [...document.querySelectorAll('.space-form label')].find(l => l.textContent.trim() === arguments[0]); const i = document.getElementById(l.htmlFor); i.focus(); i.select()`, label); await browser.press(...text, Key.ENTER) }
await fill('Space', 'Bar'); await fill('Floor', '14 x 7 m'); await fill('Noise, system off', '70')
await browser.click('.space-form button', 'a model of the library'); await browser.see('.model'); await browser.press(...'back-can 16', Key.ENTER); await settle(1000)
await browser.press(Key.ESCAPE, 'f', 'g'); await settle(); 
await browser.picture('/tmp/s4.png')
await browser.press('H'); await settle(); await browser.picture('/tmp/s5.png')
await browser.press('v'); await settle(); await browser.picture('/tmp/s6.png')
await world.close()
