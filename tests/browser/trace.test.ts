import { afterAll, beforeAll, expect, jest, test } from '@jest/globals'
import { By, Key } from 'selenium-webdriver'
import { Records } from '#core/job/records'
import type { Control, Job, Reading, ReadingValue } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { cabled, jobOf } from '#core/testing/jobs'
import type { Browser } from '../support/browser'
import { World } from '../support/world'

/** A wrong line, from what reads wrong to a repair that is proved, by the tests that are named. */

jest.setTimeout(90_000)
let world: World
let browser: Browser
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
}, 120_000)
afterAll(() => world.close(), 60_000)

const LEAD = { cable: { awg: 14 as const }, lengthM: 4 }
let count = 0
const reading = (kind: Reading['kind'], value: ReadingValue, nodeId: string | null = null): Reading =>
  ({ id: `r${++count}`, at: new Date(Date.UTC(2026, 4, 4, 9, count)).toISOString(), kind, outputId: 'out1', nodeId, value, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false })
const withReadings = (job: Job, name: string, readings: Reading[]): Job => ({ ...job, name, readings: Records.of(readings) })
const idsOf = (job: Job) => speakersOf(job.amplifiers[0]!.outputs[0]!.wiring).map(s => s.id)
const textOf = (css: string) => browser.text(css)

/** What the bench would find with 03 of four silent at an open joint, as it is pressed or typed. */
function found(title: string): string {
  const place = /(\d\d)/.exec(title)?.[1] ?? ''
  if (title.startsWith('Part the line')) return String(Math.round(0.9 * 70.71 ** 2 / (25 * [1, 2, 3, 4].filter(k => k >= Number(place) && k !== 3).length) * 10) / 10)
  if (title.startsWith('Read the coil')) return '6.3'
  if (title.startsWith('Listen')) return place === '03' ? 'silent' : 'plays'
  if (title.startsWith('Is ')) return /^Is 03/.test(title) ? 'quieter' : /03\?$/.test(title) ? 'louder' : 'as loud as'
  if (title.startsWith('Look at the dial')) return '25 W, 70 V'
  if (title.startsWith('Look')) return place === '03' ? 'joint or plug open' : 'nothing amiss'
  if (title.includes('known-good') || title.includes('each other')) return 'it stays here'
  if (title.startsWith('Which way')) return 'as it should'
  return '1M'
}

test('by the thumb: each test is answered where it stands, until the place is found; the repair is recorded, and the line read right proves it', async () => {
  await browser.size(390, 844, true)
  const id = await world.putJob(withReadings(cabled(jobOf('4 x 25 W on 70 V 150 W'), LEAD), 'Open at 03', [reading('line-impedance', { is: 'ohm', ohm: 60.3 })]))
  await world.go(`/jobs/${id}/check`)
  await browser.click('.keypad .key', 'Trace it')
  const asked: string[] = []
  for (let step = 0; step < 8; step++) {
    await browser.see('.next h2, .next p')
    if ((await browser.driver.findElements(By.css('.next h2'))).length === 0) break
    const title = await textOf('.next h2')
    asked.push(title)
    const answer = found(title)
    if ((await browser.driver.findElements(By.css('.next .walk'))).length > 0) {
      // Through what says nothing no pulse is told: it is left out.
      if (title.includes('pulse')) await browser.click('.walk button', 'Record: all 3')
      else {
        await browser.click('.walk .passed .tap', '03')
        await browser.click('.walk .passed .tap', 'silent')
        await browser.click('.walk button', 'Record: 1 not so')
      }
    }
    else if ((await browser.driver.findElements(By.css('.next .levels'))).length > 0) {
      for (const [k, input] of (await browser.driver.findElements(By.css('.levels .fields input'))).entries()) await input.sendKeys(k === 2 ? '64' : '80')
      await browser.click('.levels button', 'Record 4 levels')
    }
    else if ((await browser.driver.findElements(By.css('.next .typed input'))).length > 0) {
      await browser.driver.findElement(By.css('.next .typed input')).sendKeys(answer)
      await browser.click('.next .typed button', 'Record')
    }
    else await browser.click('.next .answer, .next .rare .act', answer)
    await browser.driver.wait(async () => (await browser.driver.findElements(By.css('.so-far li'))).length >= step + 2 || /proved/.test(await textOf('.trace')), 10_000)
    await browser.driver.wait(async () => !/Trying out/.test(await textOf('.trace')), 15_000)
    if (/at 03/.test(await textOf('.suspect')) && Number(/(\d+) %/.exec(await textOf('.suspect .share'))?.[1] ?? 0) >= 40) break
  }
  expect([asked.length > 0, asked.length < 8]).toEqual([true, true])
  expect(await textOf('.suspect')).toMatch(/at 03/)
  await browser.click('.trace button', 'Record the repair of 1')
  await browser.see('.trace', 'Repaired, not proved yet')
  await browser.click('.trace button', 'Read again')
  for (const digit of '45') await browser.click('.keypad .key', digit)
  await browser.click('.keypad .record', 'Record')
  await browser.see('.reading', 'As it should be')
  await browser.see('.kept', 'saved')
  const { job } = await world.readJob(id)
  // Every answer was kept as a reading: the way that the next person goes on from.
  // A walk is a reading of every speaker that it has before it.
  const more = asked.reduce((sum, title) => !title.startsWith('Walk') ? sum : sum + (title.includes('pulse') ? 2 : 3), 0)
  expect([job.repairs[0]!.nodeId, job.readings.length]).toEqual([idsOf(job as unknown as Job)[2], asked.length + more + 2])
})

test('two faults at once are told together, and recorded as two repairs', async () => {
  await browser.size(1280, 800)
  const job = cabled(jobOf('6 x 20 W on 70 V 240 W'), LEAD)
  const ids = idsOf(job)
  const id = await world.putJob(withReadings(job, 'Two at once', [
    ...[0, 2, 3, 5].map(k => reading('sound', { is: 'plays' }, ids[k])), ...[1, 4].flatMap(k => [reading('sound', { is: 'silent' }, ids[k]), reading('coil-dcr', { is: 'open' }, ids[k])]),
  ]))
  await world.go(`/jobs/${id}/trace`)
  await browser.see('.suspect', 'Coil of 02 open; and Coil of 05 open')
  await browser.click('.suspect', 'Coil of 02 open; and Coil of 05 open')
  expect(await textOf('.reasons')).toMatch(/For it:.*02 coil DCR open/)
  await browser.click('.trace button', 'Record the repair of')
  await browser.see('.trace', 'Repaired, not proved yet')
  expect(await browser.driver.findElements(By.css('.rail-row .rank'))).toEqual([])
  await browser.see('.kept', 'saved')
  const { job: kept } = await world.readJob(id)
  expect(kept.repairs.map(r => [r.fault, r.nodeId])).toEqual([['coil-open', ids[1]], ['coil-open', ids[4]]])
})

test('what was heard before a repair elsewhere still tells: nobody walks the line again for the second of two that were silent', async () => {
  await browser.size(1280, 800)
  const job = cabled(jobOf('6 x 20 W on 70 V 240 W'), LEAD)
  const ids = idsOf(job)
  const before = ids.map((id, k) => reading('sound', { is: k === 1 || k === 4 ? 'silent' : 'plays' }, id))
  const repair = { id: 'p1', at: new Date(Date.UTC(2026, 4, 4, 9, ++count)).toISOString(), outputId: 'out1', nodeId: ids[1]!, fault: 'coil-open' as const, note: '', who: null, withdrawn: false }
  const id = await world.putJob({ ...withReadings(job, 'One of two', [...before, reading('line-impedance', { is: 'ohm', ohm: 50.2 })]), repairs: Records.of([repair]) })
  await world.go(`/jobs/${id}/trace`)
  await browser.see('.suspect', 'at 05')
  await browser.see('.next h2')
  expect(await textOf('.next h2')).not.toMatch(/^Walk along the line and listen/)
  await browser.click('.so-far summary', 'The way so far: 6 readings')
  const told = await Promise.all((await browser.driver.findElements(By.css('.so-far li'))).map(li => li.getText()))
  expect([told.length, told.filter(t => /before the repair/.test(t)).length, told.some(t => t.startsWith('02'))]).toEqual([6, 5, false])
  expect(told.find(t => t.startsWith('05'))).toMatch(/silent, before the repair, reads wrong/)
})

test('with the level meter to a line of which nothing plays: noted of all at one press, and the rack is named; as drawn stands beside the faults', async () => {
  await browser.size(1280, 800)
  const id = await world.putJob(withReadings(cabled(jobOf('6 x 20 W on 70 V 240 W'), LEAD), 'Nothing plays', [reading('line-impedance', { is: 'ohm', ohm: 42 })]))
  await world.go(`/jobs/${id}/trace`)
  await browser.see('.group.beside', 'Something that is not in this list')
  await browser.see('.group.beside', 'Nothing: the line is as drawn')
  expect(await browser.driver.findElement(By.css('.group.beside .rank')).getText()).toBe('')
  await browser.click('.more summary', 'Other tests')
  await browser.click('.more .other', 'level meter')
  await browser.click('.levels button', 'Record: all silent')
  await browser.see('.suspect', 'Amplifier channel silent')
  await browser.see('.kept', 'saved')
  const { job } = await world.readJob(id)
  expect(job.readings.map(r => r.value.is)).toEqual(['ohm', ...new Array<string>(6).fill('silent')])
  await browser.press('u')
  await browser.see('.so-far summary', 'The way so far: one reading')
})

test('a control at zero is pointed at by its own name; a speaker that is the other way round is told and proved', async () => {
  const job = cabled(jobOf('6 x 20 W on 70 V 240 W', '8 || 8 || 8 on 200 W at 2'), LEAD)
  const [line, plain] = job.amplifiers[0]!.outputs as [Job['amplifiers'][number]['outputs'][number], Job['amplifiers'][number]['outputs'][number]]
  const wall: Control = { kind: 'control', label: 'C1', name: '', from: null, setDb: 0, stepsDb: [], ratingW: 100, lineV: 70.71, insertionDb: null }
  const children = line.wiring.children
  const walled: Job = { ...job, amplifiers: [{ ...job.amplifiers[0]!, outputs: [{ ...line, wiring: { ...line.wiring, children: [...children.slice(0, 3), { lead: LEAD, node: { kind: 'star', id: 'wall', children: children.slice(3), through: wall } }] } }, plain] }] }
  const ids = children.map(c => c.node.id)
  const [first, second] = plain.wiring.children.map(c => c.node.id)
  const id = await world.putJob(withReadings(walled, 'A control', [
    ...[0, 1, 2].map(k => reading('sound', { is: 'plays' }, ids[k])), ...[3, 4, 5].map(k => reading('sound', { is: 'silent' }, ids[k])),
    { ...reading('polarity-heard', { is: 'right-way', how: 'pulse', against: null }, first), outputId: 'out2' }, { ...reading('polarity-heard', { is: 'reversed', how: 'pulse', against: null }, second), outputId: 'out2' },
  ]))
  await world.go(`/jobs/${id}/trace?line=out1`)
  await browser.see('.suspect', 'control C1 turned to zero')
  await world.go(`/jobs/${id}/trace?line=out2`)
  await browser.see('.suspect', 'the other way round')
  await browser.click('.suspect', '02 the other way round')
  await browser.click('.trace button', 'Record the repair of')
  await browser.see('.trace', 'Repaired, not proved yet')
})

test('what cannot be done gives the next; a sentence in its field is told, and nothing is lost', async () => {
  const job = cabled(jobOf('4 x 25 W on 70 V 150 W'), LEAD)
  const id = await world.putJob(withReadings(job, 'Cannot', [reading('line-impedance', { is: 'ohm', ohm: 60.3 })]))
  await world.go(`/jobs/${id}/trace`)
  await browser.see('.next h2')
  const before = await textOf('.next h2')
  await browser.click('.next .answer', 'I can’t do that')
  await browser.driver.wait(async () => (await browser.driver.findElements(By.css('.next h2'))).length > 0 && await textOf('.next h2') !== before, 15_000)
  // Only by ohms: no ears, no ladder.
  await browser.click('.next summary')
  for (const tool of ['ladder']) await browser.click('.tools label', tool)
  await browser.driver.wait(async () => !/Trying out/.test(await textOf('.trace')), 15_000)
  await browser.see('.next h2')
  expect(await textOf('.next h2')).not.toMatch(/coil|dial|Part the line/)
  await browser.see('.next', 'can be done after all')
})

test('a walk with the level meter by keys: a word in it is told by its place, what is typed is kept over a reload, one undo takes it back', async () => {
  await browser.size(1280, 800)
  const job = cabled(jobOf('5 x 25 W on 70 V 250 W'), LEAD)
  const id = await world.putJob(withReadings(job, 'Walks', [reading('line-impedance', { is: 'ohm', ohm: 24 }), ...idsOf(job).map(nodeId => reading('sound', { is: 'plays' }, nodeId))]))
  const TITLE = 'Walk along the line with the level meter'
  const askForIt = async () => {
    await world.go(`/jobs/${id}/trace`)
    await browser.see('.next h2')
    await browser.click('.next summary')
    // Whatever saves more: of each kind the best stands here.
    if (await textOf('.next h2') !== TITLE) await browser.click('.next .more .other', TITLE)
    await browser.see('.next h2', TITLE)
  }
  await askForIt()
  await browser.driver.findElement(By.css('.levels .fields input')).click()
  for (const db of ['80', '80,5', 'loud', '77', '79.5']) await browser.press(...db, Key.ENTER)
  await browser.see('.levels [role=alert]', '03: A level lies between 20 and 150 dB')
  await askForIt()
  expect(await Promise.all((await browser.driver.findElements(By.css('.levels .fields input'))).map(f => f.getAttribute('value')))).toEqual(['80', '80,5', 'loud', '77', '79.5'])
  await browser.driver.findElement(By.css('[aria-label="Level under 03, dB"]')).click()
  await browser.typeOver('80.2')
  // Nothing of it lies beside its pane, and a narrow one is no reason.
  for (const width of [1280, 320]) {
    await browser.size(width, 800, width < 500)
    expect([width, await browser.run('const e = document.querySelector(".next"); return e.scrollWidth - e.clientWidth')]).toEqual([width, 0])
  }
  await browser.size(1280, 800)
  await browser.click('.levels button', 'Record 5 levels')
  const levels = async () => (await world.readJob(id)).job.readings.filter(r => r.kind === 'level' && !r.withdrawn).length
  await browser.driver.wait(async () => await levels() === 5, 8000)
  await browser.chord(Key.CONTROL, 'z')
  await browser.driver.wait(async () => await levels() === 0, 8000)
})

test.each<[string, number, number, boolean]>([['a phone', 390, 844, true], ['a desk at 200 %', 640, 400, false]])('the station by its name on %s: what to read next is there at once, and away again with it', async (_, width, height, mobile) => {
  await browser.size(width, height, mobile)
  const id = await world.putJob(withReadings(cabled(jobOf('5 x 25 W on 70 V 250 W'), LEAD), 'Narrow', [reading('line-impedance', { is: 'ohm', ohm: 24 })]))
  await world.go(`/jobs/${id}`)
  await browser.click('.station', 'Trace')
  await browser.see('.pane .next h2', undefined, 15_000)
  await browser.click('.station', 'Match')
  await browser.gone('.pane .next')
  await browser.size(1280, 800)
})

test('what was heard wrong is listened at once more, and no third time; the rack is looked at, and that is kept', async () => {
  const job = cabled(jobOf('5 x 25 W on 70 V 250 W'), LEAD)
  const ids = idsOf(job)
  // All else was read before, and is right.
  const read = ids.flatMap((nodeId, k) => [
    reading('sound', { is: k === 3 ? 'thin' : 'plays' }, nodeId), reading('tap-found', { is: 'tap', tapW: 25, ratedV: 70.71 }, nodeId), reading('looked', { is: 'as-it-should' }, nodeId),
    reading('coil-dcr', { is: 'ohm', ohm: 6.4 }, nodeId), reading('polarity-heard', { is: 'right-way', how: 'pulse', against: null }, nodeId),
    ...k === 0 ? [] : [reading('outward-impedance', { is: 'ohm', ohm: 180 / (5 - k) }, nodeId)],
  ])
  const id = await world.putJob(withReadings(job, 'Once more', [reading('line-impedance', { is: 'ohm', ohm: 36 }), reading('leg-earth', { is: 'open' }), reading('looked', { is: 'as-it-should' }), ...read]))
  await world.go(`/jobs/${id}/trace`)
  await browser.see('.next h2', 'Listen at 04 once more', 30_000)
  await browser.click('.next .answer', 'plays')
  const heard = async () => (await world.readJob(id)).job.readings.filter(r => r.kind === 'sound').length
  await browser.driver.wait(async () => await heard() === 6, 8000)
  await browser.gone('.next', 'once more')
})

test('a walk with the pulse: who is pressed is the other way round, all others are right; of one that says nothing nothing is noted, and that is said', async () => {
  const job = cabled(jobOf('8 || 8 || 8 || 8 on 200 W at 2'), LEAD)
  const ids = idsOf(job)
  const id = await world.putJob(withReadings(job, 'Pulse', [reading('line-impedance', { is: 'ohm', ohm: 2.1 }), ...ids.map((nodeId, k) => reading('sound', { is: k === 3 ? 'silent' : 'plays' }, nodeId))]))
  await world.go(`/jobs/${id}/trace`)
  await browser.see('.next h2', undefined, 30_000)
  if (!(await textOf('.next h2')).includes('pulse on')) {
    await browser.click('.next summary')
    await browser.click('.next .more .other', 'Walk along the line with the pulse on')
  }
  await browser.click('.walk .passed .tap', '02')
  await browser.click('.walk .passed .tap', 'the other way round')
  expect(await textOf('.walk p')).toMatch(/Left out, since it says nothing: 04\.$/)
  await browser.click('.walk button', 'Record: 1 not so, 2 the right way round')
  await browser.see('.suspect', '02 the other way round')
  await browser.see('.kept', 'saved')
  const { job: kept } = await world.readJob(id)
  expect(kept.readings.filter(r => r.kind === 'polarity-heard').map(r => [r.nodeId, r.value.is])).toEqual([[ids[0], 'right-way'], [ids[1], 'reversed'], [ids[2], 'right-way']])
})
