import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { Job } from '#core/job/schema'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import { putBefore, unknownControl } from '#core/hands/throughs'
import { speakersOf } from '#core/job/tree'
import { makeZone } from '#core/hands/zones'
import { cabled, counter, jobOf, outputOf } from '#core/testing/jobs'
import { demoGear } from '../../demo/gear'
import { demoJobs } from '../../demo'
import { fernhollow } from '../../demo/fernhollow'
import { badTextAt, SIZES } from '../support/boxes'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/** Every text in sight is whole, inside the window, and over no other: at every width, on several states of each view of a job. */

let world: World
let browser: Browser
const jobs: Record<string, string> = {}
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
  await world.post('/gear', { models: demoGear })
  for (const [name, job] of Object.entries(jobsToLookAt())) jobs[name] = await world.putJob(job)
}, 120_000)
afterAll(() => world.close(), 60_000)

function jobsToLookAt(): Record<string, Job> {
  const loads = jobOf('3 x 5 W on 70 V 60 W', '(8 + 8) || (8 + 8) on 300 W at 4, 180 W at 8, from 2')
  const plain: Job = cabled({ ...loads, name: 'Saint Bartholomew’s parish hall, cloister walk and the long north gallery' }, { cable: { awg: 16 }, lengthM: 12.5 })
  const long = {
    ...plain,
    amplifiers: plain.amplifiers.map(a => ({
      ...a, name: 'Amplifier in the vestry cupboard', place: 'behind the organ, second shelf', outputs: a.outputs.map(o => ({ ...o, name: 'Cloister walk and north gallery' })),
    })),
  }
  const rail = cabled(jobOf('9 x 10 W on 70 V 240 W'), { cable: { awg: 16 }, lengthM: 6 })
  const ids = speakersOf(outputOf(rail).wiring).map(s => s.id)
  const zoned = applyEdit(rail, makeZone(rail, ids.slice(0, 7), 'Cloister walk and the long north gallery', () => 'zone')!).job
  const control = { ...unknownControl('C1'), setDb: 12, ratingW: 35, lineV: 70.71, name: 'Wall control behind the vestry door, 35 W' }
  const walls = applyEdit(zoned, (putBefore(zoned, ids.slice(0, 7), control, counter('w')) as { edit: Edit }).edit).job
  const demo = (name: string) => demoJobs.find(d => d.job.name.startsWith(name))!.job
  return {
    fern: fernhollow, rooms: demoJobs[0]!.job, many: cabled(jobOf('40 x 5 W on 70 V 400 W'), { cable: { awg: 18 }, lengthM: 6 }), long,
    empty: { ...jobOf('8'), name: 'Empty', amplifiers: [] }, walls, stop: jobOf('4 x 8 parallel on 100 W at 4'), stage: demo('Bandstand'), loft: demo('Rehearsal'),
  }
}

const tabs = (count: number) => new Array<string>(count).fill(Key.TAB)
const [RIGHT, STAGE] = [Key.ARROW_RIGHT, '?line=mm-left']
/** View, job, address below the job, keys that lead there; 'wait' waits for an answer. */
const VIEWS: [string, string, string, string[]][] = [
  ['run sheet', 'fern', '', []],
  ['run sheet, a speaker', 'fern', '', [RIGHT, 'e']],
  ['run sheet, many chosen', 'fern', '', ['w']],
  ['run sheet, forty', 'many', '', [Key.END]],
  ['run sheet, forty as one', 'many', '', [RIGHT]],
  ['run sheet, a kind of forty', 'many', '', [RIGHT, 'K']],
  ['run sheet, long names', 'long', '', ['e']],
  ['run sheet, empty', 'empty', '', []],
  ['run sheet, a control', 'walls', '', [Key.HOME, RIGHT, 'e']],
  ['run sheet, a zone', 'walls', '', [Key.HOME, RIGHT, RIGHT, 'e', ...tabs(16)]],
  ['run sheet, the amplifier', 'walls', '', [Key.HOME, 'e', ...tabs(20)]],
  ['run sheet, cable of the job', 'walls', '', ['b']],
  ['run sheet, what if', 'walls', '', [Key.HOME, 'W', 'wait']],
  ['run sheet, amplifiers', 'walls', '', [Key.HOME, 'F', 'wait']],
  ['run sheet, a band and its amplifier', 'stage', STAGE, [Key.HOME, 'e', ...tabs(14)]],
  ['run sheet, what feeds it', 'stage', STAGE, [Key.HOME, 'e', ...tabs(28)]],
  ...(['B', 'g', 'G', 'O', 'i'] as const).map((key): [string, string, string, string[]] => [`run sheet, opened by ${key}`, 'stage', STAGE, [Key.HOME, key, 'wait']]),
  ['run sheet, what replaces it', 'stage', STAGE, [Key.HOME, RIGHT, 'R', 'wait']],
  ['run sheet, a valve output', 'loft', '?line=rl-head', [Key.HOME, 'e']],
  ['run sheet, a stop', 'stop', '', []],
  ['run sheet, reading', 'fern', '', ['r']],
  ['check', 'fern', '/check', []],
  ['check, at a speaker', 'fern', '/check', [RIGHT, RIGHT, RIGHT]],
  ['check, forty', 'many', '/check', []],
  ['check, long names', 'long', '/check', []],
  ['check, empty', 'empty', '/check', []],
  ['check, a stop', 'stop', '/check', []],
  ['spaces', 'rooms', '/space', []],
  ['spaces, a place', 'rooms', '/space', [']', 'e']],
  ['spaces, a level read', 'rooms', '/space', [Key.ARROW_DOWN]],
  ['spaces, planned', 'rooms', '/space?space=fh-space-staff', ['f']],
  ['spaces, a floor drawn', 'rooms', '/space', ['D', 'wait']],
  ['spaces, none', 'empty', '/space', []],
  ['spaces, the taps of all', 'rooms', '/space', ['P', 'wait']],
  ['trace', 'fern', '/trace', []],
  ['trace, forty', 'many', '/trace', []],
  ['trace, long names', 'long', '/trace', []],
]

// A view is opened once, in the largest window, and seen at every size: opening each at each took four minutes of five.
test.each(VIEWS)('%s', async (name, job, path, keys) => {
  await browser.size(1280, 800)
  await world.go(`/jobs/${jobs[job]}${path}`)
  await browser.see('.rail-row, .empty, .check, .nothing, .plan')
  if (keys.length > 0) await browser.press(...keys.filter(key => key !== 'wait'))
  if (keys.includes('wait')) await browser.see('.verdict, [role=dialog] .keep, [role=dialog] .draw, [role=dialog] .chart')
  expect(await badTextAt(browser, SIZES)).toEqual([])
}, 60_000)

// What only a phone shows is opened on one.
test.each([['run sheet, a speaker', 'fern', '', [RIGHT, 'e']], ['check', 'fern', '/check', []], ['spaces, a place', 'rooms', '/space', [']', 'e']]] as const)('%s, opened on a phone', async (_, job, path, keys) => {
  await browser.size(390, 844, true)
  await world.go(`/jobs/${jobs[job]}${path}`)
  await browser.see('.rail-row, .empty, .check, .nothing, .plan')
  if (keys.length > 0) await browser.press(...keys)
  expect(await badTextAt(browser, SIZES.filter(([, , mobile]) => mobile))).toEqual([])
}, 60_000)

describe.each(SIZES)('at %d × %d', (width, height, mobile) => {
  test('keys for the thumb never cover the field that they fill', async () => {
    await browser.size(width, height, mobile)
    await world.go(`/jobs/${jobs.fern}/check`)
    await browser.see('.reading .value')
    const boxes = await browser.run<Record<'left' | 'top' | 'right' | 'bottom', number>[] | null>('const pad = document.querySelector(".pad"); return pad && [document.querySelector(".value"), pad].map(e => e.getBoundingClientRect().toJSON())')
    // Upright, and on a tablet, over the keys; where it is low beside them; at a desk there are none.
    expect(boxes !== null).toBe(width <= 900 || height <= 560)
    if (boxes) expect([boxes[0]!.bottom <= boxes[1]!.top, boxes[0]!.right <= boxes[1]!.left]).toContain(true)
  }, 30_000)
})
