import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { DEFAULT_CHECKS } from '#core/job/sections/checks/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { withBranch } from '#core/job/tree'
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

test('room by room: two lines in one room are walked together, off before on; levels are held against each other, and a reading proves them in the order of the rooms', async () => {
  const { browser } = world
  await browser.size(1280, 800)
  const plain = jobOf('2 x 10 W on 70 V 100 W', '2 x 10 W on 70 V 100 W')
  const job = [outputOf(plain), outputOf(plain, 1)].flatMap(nodeIds)
    .reduce((j, n) => withBranch(j, n, at => ({ ...at, node: { ...at.node, driverOhm: 8 } as typeof at.node })), plain)
  const [a, b] = [outputOf(job), outputOf(job, 1)].map(nodeIds) as [string[], string[]]
  const spot = (k: number, nodeId: string) => ({ id: `p${k}`, xM: 1 + k, yM: 1, heightM: null, aim: null, nodeId })
  const spaces = [{ ...plainSpace('bar', 'Bar'), spots: [spot(1, a[1]!), spot(2, b[0]!)] }, { ...plainSpace('hall', 'Hall'), spots: [spot(3, a[0]!)] }]
  const id = await world.putJob({ ...job, spaces, checks: { ...DEFAULT_CHECKS, sounds: 'none', polarity: 'none' } })
  await world.go(`/jobs/${id}/check?line=out1`)
  await browser.see('.reading')
  await browser.press('o')
  await browser.click('.lines .tab', 'Bar')
  await browser.see('.stops', 'A1 02 coil DCR')
  await browser.see('.stops', 'A2 01 coil DCR')
  await browser.see('.progress', '1 of 2 here, 0 proved')
  // Eight ohms behind each: the next one is the room's other line, then the next room.
  for (const here of ['speaker 02', 'speaker 01']) {
    await browser.see('.place', here)
    await browser.press('r')
    await browser.typeOver('6.4')
    await browser.press(Key.ENTER)
    await browser.see('.reading', 'As it should be')
    await browser.press(Key.ESCAPE, ' ')
  }
  await browser.see('.lines .tab.on', 'Hall')
  await browser.press('o')
  await browser.see('.lines .tab.on', 'A')
  // Levels, one after the other along the line: the way they were taken stays.
  for (const [k, db] of [[0, '80'], [1, '77.5']] as const) {
    await world.go(`/jobs/${id}/check?line=out1&speaker=${a[k]}`)
    await browser.click('.act', 'read something else')
    await browser.click('.kinds .tab', 'level')
    if (k === 0) await browser.click('.level .tap', 'C')
    await browser.type('.level input', db)
    await browser.press(Key.ENTER)
    await browser.see('.reading', k === 0 ? 'Read: nothing to compare it with' : 'Quieter than its neighbour')
  }
  await browser.see('.reading', 'Under one like it 80 dB, brought to its watts.')
  await settled()
  const { job: after } = await world.readJob(id)
  expect(after.readings.filter(r => r.kind === 'level').map(r => r.value)).toEqual([80, 77.5].map(db => ({ is: 'level', db, weighting: 'C', signal: 'pink-noise', headV: null })))
  expect(await browser.complaints()).toEqual([])
}, 60_000)
