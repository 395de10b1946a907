import { World } from '../tests/support/world'
import { demoJobs } from '../demo'
const world = await World.open()
const b = world.browser
const wait = (ms: number) => new Promise(r => setTimeout(r, ms))
const id = await world.putJob(demoJobs[0]!.job)
await b.size(320, 700, true)
await world.go(`/jobs/${id}/check`); await b.see('.check'); await wait(400); await b.picture('/tmp/q1.png')
await b.size(390, 844, true)
await world.go(`/jobs/${id}/check`); await b.see('.check'); await wait(400); await b.picture('/tmp/q2.png')
await b.size(1024, 768)
await world.go('/quick?line=' + encodeURIComponent('(4 + 4) || (4 + 4) on 300 W at 4, 180 W at 8, from 2')); await b.see('.quick'); await wait(400); await b.picture('/tmp/q3.png')
await world.close()
