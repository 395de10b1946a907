import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { Job } from '#core/job/schema'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import { putBefore, unknownControl } from '#core/job/throughs'
import { speakersOf } from '#core/job/tree'
import { makeZone } from '#core/job/zones'
import { cabled, counter, jobOf, outputOf } from '#core/testing/jobs'
import { demoGear } from '../../demo/gear'
import { demoJobs } from '../../demo'
import { fernhollow } from '../../demo/fernhollow'
import { FIND_BAD_TEXT } from '../support/boxes'
import { Key, type Browser } from '../support/browser'
import { World } from '../support/world'

/** Every text in sight is whole, inside the window, and over no other: at every width, on several states of each view. */

let world: World
let browser: Browser
const jobs: Record<string, string> = {}
beforeAll(async () => {
  world = await World.open()
  browser = world.browser
  await world.post('/gear', { models: demoGear })
  const long: Job = cabled({ ...jobOf('3 x 5 W on 70 V 60 W', '(8 + 8) || (8 + 8) on 300 W at 4, 180 W at 8, from 2'), name: 'Saint Bartholomew’s parish hall, cloister walk and the long north gallery' }, { cable: { awg: 16 }, lengthM: 12.5 })
  const named = { ...long, amplifiers: long.amplifiers.map(a => ({ ...a, name: 'Amplifier in the vestry cupboard', place: 'behind the organ, second shelf', outputs: a.outputs.map(o => ({ ...o, name: 'Cloister walk and north gallery' })) })) }
  const rail = cabled(jobOf('9 x 10 W on 70 V 240 W'), { cable: { awg: 16 }, lengthM: 6 })
  const ids = speakersOf(outputOf(rail).wiring).map(s => s.id)
  const zoned = applyEdit(rail, makeZone(rail, ids.slice(0, 7), 'Cloister walk and the long north gallery', () => 'zone')!).job
  const walls = applyEdit(zoned, (putBefore(zoned, ids.slice(0, 7), { ...unknownControl('C1'), setDb: 12, ratingW: 35, lineV: 70.71, name: 'Wall control behind the vestry door, 35 W' }, counter('w')) as { edit: Edit }).edit).job
  for (const [name, job] of Object.entries({ fern: fernhollow, rooms: demoJobs[0]!.job, many: cabled(jobOf('40 x 5 W on 70 V 400 W'), { cable: { awg: 18 }, lengthM: 6 }), long: named, empty: { ...jobOf('8'), name: 'Empty', amplifiers: [] }, walls, stop: jobOf('4 x 8 parallel on 100 W at 4'), stage: demoJobs.find(d => d.job.name.startsWith('Bandstand'))!.job, loft: demoJobs.find(d => d.job.name.startsWith('Rehearsal'))!.job })) jobs[name] = await world.putJob(job)
}, 120_000)
afterAll(() => world.close())

const VIEWS: [string, string, string, string[]][] = [
  ['run sheet', 'fern', '', []], ['run sheet, a speaker', 'fern', '', [Key.ARROW_RIGHT, 'e']], ['run sheet, many chosen', 'fern', '', ['w']], ['run sheet, forty', 'many', '', [Key.END]], ['run sheet, forty as one', 'many', '', [Key.ARROW_RIGHT]], ['run sheet, a kind of forty', 'many', '', [Key.ARROW_RIGHT, 'K']], ['run sheet, long names', 'long', '', ['e']], ['run sheet, empty', 'empty', '', []],
  ['run sheet, a control', 'walls', '', [Key.HOME, Key.ARROW_RIGHT, 'e']], ['run sheet, a zone', 'walls', '', [Key.HOME, Key.ARROW_RIGHT, Key.ARROW_RIGHT, 'e', ...new Array<string>(16).fill(Key.TAB)]],
  ['run sheet, the amplifier', 'walls', '', [Key.HOME, 'e', ...new Array<string>(20).fill(Key.TAB)]], ['run sheet, cable of the job', 'walls', '', ['b']], ['run sheet, what if', 'walls', '', [Key.HOME, 'W', 'wait']], ['run sheet, amplifiers', 'walls', '', [Key.HOME, 'F', 'wait']], ['spaces, a floor drawn', 'rooms', '/space', ['D', 'wait']],
  ['run sheet, a band and its amplifier', 'stage', '?line=mm-left', [Key.HOME, 'e', ...new Array<string>(14).fill(Key.TAB)]], ['run sheet, what feeds it', 'stage', '?line=mm-left', [Key.HOME, 'e', ...new Array<string>(28).fill(Key.TAB)]],
  ...(['B', 'g', 'G', 'O', 'i'] as const).map((key): [string, string, string, string[]] => [`run sheet, opened by ${key}`, 'stage', '?line=mm-left', [Key.HOME, key, 'wait']]),
  ['run sheet, what replaces it', 'stage', '?line=mm-left', [Key.HOME, Key.ARROW_RIGHT, 'R', 'wait']], ['run sheet, a valve output', 'loft', '?line=rl-head', [Key.HOME, 'e']],
  ['run sheet, a stop', 'stop', '', []], ['run sheet, reading', 'fern', '', ['r']],
  ['check', 'fern', '/check', []], ['check, at a speaker', 'fern', '/check', [Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ARROW_RIGHT]], ['check, forty', 'many', '/check', []], ['check, long names', 'long', '/check', []], ['check, empty', 'empty', '/check', []], ['check, a stop', 'stop', '/check', []],
  ['spaces', 'rooms', '/space', []], ['spaces, a place', 'rooms', '/space', [']', 'e']], ['spaces, a level read', 'rooms', '/space', [Key.ARROW_DOWN]], ['spaces, planned', 'rooms', '/space?space=fh-space-staff', ['f']], ['spaces, none', 'empty', '/space', []], ['spaces, the taps of all', 'rooms', '/space', ['P', 'wait']],
  ['trace', 'fern', '/trace', []], ['trace, forty', 'many', '/trace', []], ['trace, long names', 'long', '/trace', []],
]
const QUICK = ['', '(4 + 4) || (4 + 4) on 300 W at 4, 180 W at 8, from 2', '40 x 5 W on 70 V 240 W', '4 x 8 on 300 W at 4', '12 x 5 W + 2 x 20 on']
const SIZES = [[320, 700, true], [390, 844, true], [768, 1024, true], [1024, 768, false], [1280, 800, false], [1920, 1080, false], [640, 400, false]] as const

describe.each(SIZES)('at %d × %d', (width, height, mobile) => {
  const settled = () => new Promise(resolve => setTimeout(resolve, 250))
  const badText = async () => { await settled(); return browser.run<string[]>(FIND_BAD_TEXT) }
  test('every view of a job', async () => {
    await browser.size(width, height, mobile)
    const found: string[] = []
    for (const [name, job, path, keys] of VIEWS) {
      await world.go(`/jobs/${jobs[job]}${path}`)
      await browser.see('.rail-row, .empty, .check, .nothing, .plan')
      if (keys.length > 0) await browser.press(...keys.filter(key => key !== 'wait'))
      if (keys.includes('wait')) await browser.see('.verdict, [role=dialog] .keep, [role=dialog] .draw, [role=dialog] .chart')
      found.push(...(await badText()).map(bad => `${name}: ${bad}`))
    }
    expect(found).toEqual([])
  }, 240_000)
  test('keys for the thumb never cover the field that they fill', async () => {
    await browser.size(width, height, mobile)
    await world.go(`/jobs/${jobs.fern}/check`)
    await browser.see('.reading .value')
    const rects = await browser.run<[number, number] | null>('const pad = document.querySelector(".pad"); if (!pad) return null; return [document.querySelector(".value").getBoundingClientRect().bottom, pad.getBoundingClientRect().top]')
    if (width > 760) expect(rects).toBeNull()
    else expect(rects![0]).toBeLessThanOrEqual(rects![1])
  }, 30_000)
  test('the library of gear', async () => {
    await browser.size(width, height, mobile)
    const found: string[] = []
    for (const [name, path, css, keys] of [
      ['controls', '/gear?kind=control', '.body .line', [Key.ARROW_DOWN]], ['compared', '/gear?kind=cable', '.body .line', [Key.ARROW_DOWN, ' ', Key.ARROW_DOWN, ' ', 'c']], ['nothing found', '/gear?kind=cable', '.body .line', ['f', ...'lamp']],
      ['a model', `/gear/${demoGear[6]!.id}`, '.fields', []], ['a table in', '/gear/in?kind=cable', '.source', []], ['no such model', '/gear/00000000-0000-4000-8000-000000000000', '.state', []],
    ] as [string, string, string, string[]][]) {
      await world.go(path)
      await browser.see(css)
      if (keys.length > 0) await browser.press(...keys)
      found.push(...(await badText()).map(bad => `${name}: ${bad}`))
    }
    expect(found).toEqual([])
  }, 120_000)
  test('list of jobs and quick match', async () => {
    await browser.size(width, height, mobile)
    await world.go('/')
    await browser.see('.row')
    const found = (await badText()).map(bad => `jobs: ${bad}`)
    for (const line of QUICK) {
      await world.go(`/quick?line=${encodeURIComponent(line)}`)
      await browser.see('.quick')
      found.push(...(await badText()).map(bad => `quick “${line}”: ${bad}`))
    }
    expect(found).toEqual([])
  }, 120_000)
})
