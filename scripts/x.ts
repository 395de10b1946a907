import { fernhollow } from '../demo/fernhollow'
import { World } from '../tests/support/world'
const settle = () => new Promise(resolve => setTimeout(resolve, 500))
const world = await World.open()
const { browser } = world
try {
  const id = await world.putJob(fernhollow)
  await world.go(`/jobs/${id}/check?line=fh-ticket`)
  await browser.see('.reading')
  await browser.click('.stop-row', 'line impedance')
  await browser.run('for (const d of document.querySelectorAll("details.with")) d.open = true')
  await browser.click('input[aria-label^="Its tone"]')
  await browser.press(...'330 Hz')
  await browser.click('.value input')
  await browser.press(...'84')
  await settle()
  await browser.picture('/tmp/p1.png')
  await browser.driver.manage().window().setRect({ width: 390, height: 844 })
  await world.go(`/jobs/${id}/check?line=fh-roof`)
  await settle()
  await browser.picture('/tmp/p2.png')
}
finally { await world.close() }
