import { World } from '../tests/support/world'
import { Key } from '../tests/support/browser'
import { demoJobs } from '../demo'
import { jobOf } from '#core/testing/jobs'
const world = await World.open()
const b = world.browser
const wait = (ms: number) => new Promise(r => setTimeout(r, ms))
const id = await world.putJob(demoJobs[0]!.job)
await world.go(`/jobs/${id}`); await b.see('.rail-row'); await wait(400)
await b.press(Key.ARROW_RIGHT, Key.ARROW_RIGHT); await wait(200)
await b.picture('/tmp/s1.png')
await b.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ARROW_RIGHT).keyUp(Key.SHIFT).perform(); await wait(200)
await b.picture('/tmp/s2.png')
const tag = await b.see('.tag.chosen')
await b.driver.actions().contextClick(tag).perform(); await wait(300)
await b.picture('/tmp/s3.png')
await b.press(Key.ESCAPE); await wait(200); await b.press(Key.ESCAPE)
await b.press('?'); await wait(400); await b.picture('/tmp/s4.png'); await b.press(Key.ESCAPE); await wait(300)
await b.press('e'); await wait(300); await b.picture('/tmp/s5.png')
await b.size(390, 844, true); await world.go(`/jobs/${id}`); await b.see('.rail-row'); await wait(400)
await b.picture('/tmp/s6.png')
await b.click('[data-node]'); await wait(300); await b.picture('/tmp/s7.png')
await b.click('button', 'open'); await wait(300); await b.picture('/tmp/s8.png')
await world.close()
