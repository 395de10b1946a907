import { World } from '../tests/support/world'
import { jobOf, cabled } from '#core/testing/jobs'
const world = await World.open(); const { browser } = world
const job = cabled(jobOf('40 x 5 W on 70 V 400 W', '4 x 5 W + 14 x 2.5 W + 20 x 10 W on 70 V 400 W', '(8 + 8) || 8 on 200 W at 4'), { cable: { awg: 16 }, lengthM: 6 })
const id = await world.putJob({ ...job, name: 'Folded' })
await browser.driver.manage().window().setRect({ width: 1280, height: 800 })
await world.go(`/jobs/${id}`); await browser.see('.rail-row', '', 9000); await new Promise(r => setTimeout(r, 1200))
await browser.picture('/tmp/f1.png')
await browser.driver.manage().window().setRect({ width: 390, height: 844 }); await new Promise(r => setTimeout(r, 700)); await browser.picture('/tmp/f4.png'); await browser.driver.manage().window().setRect({ width: 1280, height: 800 }); await new Promise(r => setTimeout(r, 700))
await browser.driver.executeScript(`document.querySelector('[data-nodes]').dispatchEvent(new MouseEvent('click',{bubbles:true}))`)
await browser.driver.executeScript(`document.activeElement`)
const { Key } = await import('selenium-webdriver')
await browser.driver.actions().sendKeys('K').perform(); await new Promise(r => setTimeout(r, 400))
await browser.picture('/tmp/f2.png')
await browser.driver.actions().sendKeys('z').perform(); await new Promise(r => setTimeout(r, 400))
await browser.driver.actions().sendKeys(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.HOME, Key.ARROW_RIGHT, 'e').perform(); await new Promise(r => setTimeout(r, 500))
await browser.picture('/tmp/f3.png')
await world.close(); process.exit(0)
