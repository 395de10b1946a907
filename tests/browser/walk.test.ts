import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { DEFAULT_CHECKS } from '#core/job/sections/checks/schema'
import { cabled, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { Key } from '../support/browser'
import { World } from '../support/world'

let world: World
beforeAll(async () => { world = await World.open() }, 60_000)
afterAll(async () => { await world.close() })

const line = () => cabled(jobOf('3 x 10 W on 70 V 100 W'), { cable: { awg: 16 }, lengthM: 10 })
const settled = async () => void await world.browser.driver.wait(async () => (await world.browser.run<string>('return document.querySelector(".kept")?.textContent ?? ""')).includes('saved'), 8000)

test('by thumb through the phases: bare pairs, a short with its span; then each speaker, the line, and what plays the right way round', async () => {
  const { browser } = world
  await browser.size(390, 844, true)
  const id = await world.putJob({ ...line(), checks: { ...DEFAULT_CHECKS, pairs: 'every' } })
  await world.go(`/jobs/${id}/check?line=out1`)
  await browser.click('.kinds .tab', 'leg to earth')
  await browser.click('.keypad .key', 'open')
  await browser.click('.keypad .record', 'Record')
  await browser.see('.reading', 'As it should be')
  await browser.click('.keypad .record', 'Next place')
  await browser.see('.title', 'Pair not shorted')
  for (const key of ['.', '4']) await browser.click('.keypad .key', key)
  await browser.click('.keypad .record', 'Record')
  // ASTM B258: 16 AWG is 26.34 mΩ a metre of pair.
  await browser.see('.reading', 'As a short it lies about 15.2 m along, 10.8 m to 20 m from the rack: between 01 and 02.')
  // Mended, read again.
  await browser.click('.keypad .key', 'open')
  await browser.click('.keypad .record', 'Record')
  await browser.click('.keypad .record', 'Next place')
  await browser.see('.title', 'Pair goes through')
  await settled()
  const { job } = await world.readJob(id)
  expect(job.readings.map(r => `${r.kind} ${r.value.is}`)).toEqual(['leg-earth open', 'pair-apart ohm', 'pair-apart open'])
})

test('one press at a place that is well, and all behind it in one act; what is left is said with its reason', async () => {
  const { browser } = world
  const id = await world.putJob(line())
  const ids = nodeIds(outputOf(line()))
  await world.go(`/jobs/${id}/check?line=out1&speaker=${ids[0]}`)
  await browser.click('.kinds .tab', 'sound')
  await browser.click('.heard button', 'Plays, right way round: next')
  await browser.see('.places .place.on', '02')
  await browser.click('.kinds .tab', 'sound')
  await browser.click('.heard button', 'It plays')
  await browser.see('.same')
  await browser.run('document.querySelector(".same").scrollIntoView({ block: "center" })')
  await browser.run('const s = document.querySelector(".same select"); s.value = arguments[0]; s.dispatchEvent(new Event("change"))', ids[2])
  await browser.click('.same .act', 'record them')
  await browser.see('.said.shown', 'As here, up to 03: kept as one act')
  await browser.run('scrollTo(0, 0)')
  await browser.click('.places .place', '03')
  await browser.click('.kinds .tab', 'polarity heard')
  await browser.click('.answers button', 'hollow')
  await browser.see('.reading', 'Turned round')
  await browser.see('.leave .act')
  await browser.run('document.querySelector(".leave").scrollIntoView({ block: "center" })')
  await browser.click('.leave .act', 'leave it as it is')
  await browser.type('.leave input', 'the hall is rebuilt in spring')
  await browser.press(Key.ENTER)
  await browser.see('.leave', 'Found and left: the hall is rebuilt in spring')
  await settled()
  const { job } = await world.readJob(id)
  expect(job.readings.map(r => `${ids.indexOf(r.nodeId!) + 1} ${r.kind} ${r.value.is} ${r.note}`)).toEqual([
    '1 sound plays ', '1 polarity-heard right-way ', '2 sound plays ', '3 sound plays as expected, 02 to 03 in one act', '3 polarity-heard reversed ',
  ])
  expect(job.leavings.map(l => [l.kind, l.reason])).toEqual([['polarity-heard', 'the hall is rebuilt in spring']])
})

test('what the job wants read, and when to check again: the list of jobs says it', async () => {
  const { browser } = world
  await browser.size(1280, 800)
  const id = await world.putJob({ ...line(), name: 'To be seen again' })
  await world.go(`/jobs/${id}/check?line=out1`)
  await browser.see('.progress', '10 on this')
  await browser.press('w')
  await browser.click('[role=dialog] .tap', 'the ends and one of each')
  await browser.see('[role=dialog]', '9 readings then')
  await browser.click('[role=dialog] .act', 'in two weeks')
  await browser.see('[role=dialog] .act', 'no more')
  await settled()
  await world.go('/')
  await browser.see('.row', 'check again')
})
