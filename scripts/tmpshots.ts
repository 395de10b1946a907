import { World } from '../tests/support/world'
import { Key } from '../tests/support/browser'
import { demoJobs } from '../demo'
const world = await World.open()
const b = world.browser
const wait = (ms: number) => new Promise(r => setTimeout(r, ms))
const id = await world.putJob(demoJobs[0]!.job)
for (const [w, h] of [[1280, 800], [1024, 768], [1920, 1080]] as const) {
  await b.size(w, h)
  await world.go(`/jobs/${id}`); await b.see('.rail-row'); await wait(500)
  await b.press(Key.ARROW_RIGHT); await wait(200)
  await b.picture(`/tmp/w${w}.png`)
}
await b.size(390, 844, true); await world.go(`/jobs/${id}`); await b.see('.rail-row'); await wait(400)
await b.click('[data-node]'); await wait(400); await b.picture('/tmp/p1.png')
await b.click('button', 'open'); await wait(300); await b.picture('/tmp/p2.png')
await b.size(320, 700, true); await world.go(`/jobs/${id}`); await b.see('.rail-row'); await wait(400); await b.picture('/tmp/p3.png')
await world.close()
