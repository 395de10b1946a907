import { demoBench } from '../demo/bench'
import { demoGear } from '../demo/gear'
import { bandstand } from '../demo/bandstand'
import { fernhollow } from '../demo/fernhollow'
import { marigold } from '../demo/marigold'
import { Records } from '#core/job/records'
import { writeCode } from '#core/practice/code'
import { Key } from '../tests/support/browser'
import { TestEntrance } from '../tests/support/entrance'
import { World } from '../tests/support/world'

/** Takes the pictures of docs/screenshots from the demo: npm run pictures. */
const FOLDER = 'docs/screenshots'
const settle = () => new Promise(resolve => setTimeout(resolve, 500))

/** As npm start -- --listen has it. */
const entrance = await TestEntrance.make(4643)
const world = await World.open(entrance.env)
const { browser } = world
try {
  const { demoJobs } = await import('../demo')
  await world.post('/gear', { models: demoGear })
  const ids = new Map<string, string>()
  for (const { job } of [...demoJobs].reverse()) ids.set(job.name, await world.putJob(job))
  const fern = ids.get(fernhollow.name)!
  const boat = ids.get(marigold.name)!
  const take = async (name: string, path: string, css: string, keys: string[] = [], until = css) => {
    await world.go(path)
    await browser.see(css)
    await settle()
    for (const key of keys) await browser.press(key)
    await browser.see(until)
    await settle()
    await browser.picture(`${FOLDER}/${name}.png`)
  }
  const line = (text: string) => `/quick?line=${encodeURIComponent(text)}`
  await take('jobs', '/', '.row')
  await take('begin', `/jobs/${await world.putJob({ ...fernhollow, name: 'Tea room', amplifiers: [], spaces: [], zones: [], kinds: [], readings: Records.of([]), repairs: Records.of([]), variants: [] })}`, '.begin', ['2'], '.hanging')
  await take('quick-match', line('(4 ohm 50 W + 4 ohm 50 W) || (4 ohm 50 W + 4 ohm 50 W) on 300 W at 4, 180 W at 8, from 2'), '.answer')
  await take('space', `/jobs/${fern}/space?space=fh-space-fern`, '.plan')
  await take('run-sheet', `/jobs/${fern}?line=fh-fern`, '.rail-row', [Key.ARROW_RIGHT, ...new Array<string>(7).fill(Key.ARROW_RIGHT)])
  await take('impedance', `/jobs/${ids.get(bandstand.name)!}?line=mm-left`, '.rail-row', [Key.HOME, 'g'], '[role=slider]')
  await take('suspects', `/jobs/${fern}/trace`, '.suspect')
  await take('check-desk', `/jobs/${fern}/check?line=fh-roof`, '.reading')
  await take('wire', `/jobs/${boat}/wire?line=mg-saloon`, '.line')
  await take('rack', `/jobs/${fern}/wire?line=fh-palm`, '.line', ['R'], '.device')
  await take('wirings', `/jobs/${boat}?line=mg-saloon`, '.rail-row', [Key.HOME, 'i'], '.cards .card')
  await world.putBench(demoBench)
  await take('bench-ticket', '/bench/bt-megaphone?step=readings', '.face .told')
  await take('practice', `/practice/${writeCode({ level: 7, seed: 3 })}`, '.doables', ['2', 'o', '1', Key.ARROW_DOWN, Key.ARROW_DOWN, '2'], '.last')
  await take('gear', '/gear', '.body .line', [Key.ARROW_DOWN, Key.ARROW_DOWN])
  await world.go('/')
  await browser.see('.row')
  await browser.run('localStorage.setItem("plain-match.paper", "A4 run walk record")')
  await take('paper', `/jobs/${fern}/paper`, '.paper header')
  await take('phones', '/', '.row', ['p'], '.p-dialog .p-button')
  await browser.click('.p-dialog .p-button', 'Show a code')
  await browser.see('.digits')
  await settle()
  await browser.picture(`${FOLDER}/phones.png`)
  await browser.press(Key.ESCAPE)
  await browser.run('localStorage.setItem("plain-match.night", "true")')
  await take('run-sheet-night', `/jobs/${fern}?line=fh-fern`, '.rail-row')
  await browser.run('localStorage.setItem("plain-match.night", "false")')
  await browser.size(390, 844, true)
  await world.go(`/jobs/${fern}/check?line=fh-fern&speaker=fh-fern-02`)
  for (const key of ['3', '1', '.', '4']) await browser.click('.key', key)
  await browser.run('scrollTo(0, 0)')
  await settle()
  await browser.picture(`${FOLDER}/check-phone.png`)
  await world.go(`/jobs/${fern}`)
  await browser.click('[aria-label^="Speaker 03,"]')
  await settle()
  await browser.picture(`${FOLDER}/run-sheet-phone.png`)
}
finally {
  await world.close()
  entrance.remove()
}
