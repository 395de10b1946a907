import { World } from '../tests/support/world'
import { bandstand } from '../demo/bandstand'
import { jobOf } from '../core/testing/jobs'
import { fernhollow } from '../demo/fernhollow'
const settle = () => new Promise(resolve => setTimeout(resolve, 500))
const world = await World.open()
const { browser } = world
try {
  await world.go(`/quick?line=${encodeURIComponent('12 x 5 W behind control 50 W over 60 m of 16 AWG on 70 V 120 W')}`)
  await settle()
  await browser.picture('/tmp/p1.png')
  await world.go(`/quick?line=${encodeURIComponent('12 x 5 W paralel on 70 V 120 W')}`)
  await settle()
  await browser.picture('/tmp/p2.png')
  const id = await world.putJob(jobOf('4 x 10 W on 70 V 100 W'))
  await world.go(`/jobs/${id}`)
  await browser.see('.rail-row')
  await browser.press('\uE014', 'e')
  await browser.fill('Length', '12 m', '.pane')
  await settle()
  await browser.run('document.querySelector(".lead")?.scrollIntoView()')
  await settle()
  await browser.picture('/tmp/p3.png')
  const fern = await world.putJob(fernhollow)
  await browser.size(390, 844, true)
  await world.go(`/jobs/${fern}/check?line=fh-roof`)
  await settle()
  await browser.picture('/tmp/p4.png')
}
finally { await world.close() }
