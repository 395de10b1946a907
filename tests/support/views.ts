import type { Job } from '#core/job/schema'
import { writeCode } from '#core/practice/code'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import { putBefore, unknownControl } from '#core/hands/throughs'
import { speakersOf } from '#core/job/tree'
import { makeZone } from '#core/hands/zones'
import { cabled, counter, jobOf, outputOf } from '#core/testing/jobs'
import { demoBench } from '../../demo/bench'
import { demoGear } from '../../demo/gear'
import { demoJobs } from '../../demo'
import { fernhollow } from '../../demo/fernhollow'
import { Key } from './browser'
import type { World } from './world'

/** Every view and dialog there is, in its states: what is looked at in each size and theme (boxes, reach, axe). */
export interface View {
  name: string
  path: string
  /** Seen when it stands there. */
  css: string
  /** Keys that lead to it; 'wait' waits for an answer. */
  keys: string[]
  /** Seen when the answer is there. */
  answer?: string
}

/** Puts the jobs and the library there that the views show. */
export async function viewsOf(world: World): Promise<View[]> {
  await world.post('/gear', { models: demoGear })
  await world.putBench(demoBench)
  const ids: Record<string, string> = {}
  for (const [name, job] of Object.entries(jobsToLookAt())) ids[name] = await world.putJob(job)
  const ofJobs = JOB_VIEWS.map(([name, job, path, keys]) => ({
    name, path: `/jobs/${ids[job]}${path}`, css: '.rail-row, .empty, .check, .nothing, .plan, .line .joint, .paper', keys, answer: '.verdict, [role=dialog] .keep, [role=dialog] .draw, [role=dialog] .chart',
  }))
  return [...ofJobs, ...PAGE_VIEWS.map(([name, path, css, keys]) => ({ name, path, css, keys }))]
}

/** Opens a view in the window as it is. */
export async function openView(world: World, { path, css, keys, answer }: View): Promise<void> {
  const { browser } = world
  await world.go(path)
  await browser.see(css)
  if (keys.length > 0) await browser.press(...keys.filter(key => key !== 'wait'))
  if (keys.includes('wait') && answer) await browser.see(answer)
}

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
    empty: { ...jobOf('8'), name: 'Empty', amplifiers: [] }, walls, stop: jobOf('4 x 8 parallel on 100 W at 4'), stage: demo('Bandstand'), loft: demo('Rehearsal'), boat: demo('Excursion'),
  }
}

const tabs = (count: number) => new Array<string>(count).fill(Key.TAB)
const [RIGHT, STAGE] = [Key.ARROW_RIGHT, '?line=mm-left']
/** View, job, address below the job, keys that lead there. */
const JOB_VIEWS: [string, string, string, string[]][] = [
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
  ['wires', 'boat', '/wire?line=mg-saloon', []],
  ['wires, a lead', 'boat', '/wire?line=mg-saloon', [RIGHT]],
  ['wires, which is plus', 'boat', '/wire', ['g']],
  ['wires, schedule', 'boat', '/wire', ['D']],
  ['wires, forty', 'many', '/wire', []],
  ['wires, long names', 'long', '/wire', [RIGHT]],
  ['wires, none', 'empty', '/wire', []],
  ['check, which way round', 'boat', '/check?line=mg-saloon&speaker=mg-saloon-02&read=polarity', []],
  ['check, polarity heard', 'fern', '/check?line=fh-palm&speaker=fh-palm-03&read=polarity', []],
  ['run sheet, reading', 'fern', '', ['r']],
  ['run sheet, moving', 'fern', '', [RIGHT, 'm']],
  ['keys', 'fern', '', ['?']],
  ['find', 'fern', '', ['/']],
  ['what was done', 'fern', '', [RIGHT, '-', 'w', '-', 'h']],
  ['check', 'fern', '/check', []],
  ['check, at a speaker', 'fern', '/check', [RIGHT, RIGHT, RIGHT]],
  ['check, forty', 'many', '/check', []],
  ['check, long names', 'long', '/check', []],
  ['check, empty', 'empty', '/check', []],
  ['check, a stop', 'stop', '/check', []],
  ['check, which meter reads by wire', 'fern', '/check', ['W']],
  ['paper', 'fern', '/paper', []],
  ['paper, long names', 'long', '/paper', []],
  ['paper, what came back', 'fern', '/paper', ['b']],
  ['paper, nothing drawn', 'empty', '/paper', []],
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

const quick = (line: string): [string, string, string, string[]] => [`quick “${line}”`, `/quick?line=${encodeURIComponent(line)}`, '.quick', []]
const PAGE_VIEWS: [string, string, string, string[]][] = [
  ['controls', '/gear?kind=control', '.body .line', [Key.ARROW_DOWN]],
  ['speakers', '/gear', '.body .line', [Key.ARROW_DOWN]],
  ['compared', '/gear?kind=cable', '.body .line', [Key.ARROW_DOWN, ' ', Key.ARROW_DOWN, ' ', 'c']],
  ['nothing found', '/gear?kind=cable', '.body .line', ['f', ...'lamp']],
  ['a model', `/gear/${demoGear[6]!.id}`, '.fields', []],
  ['a table in', '/gear/in?kind=cable', '.source', []],
  ['no such model', '/gear/00000000-0000-4000-8000-000000000000', '.state', []],
  ['jobs', '/', '.row', []],
  ['phones', '/', '.row', ['p']],
  ['come in', '/let-in', '.door', []],
  ['tickets', '/bench', '.bench .list', []],
  ['a new ticket', '/bench', '.bench .list', ['c']],
  ['the drawer', '/bench?at=drawer', '.drawer .items', []],
  ['no such ticket', '/bench/gone', '.gone', []],
  ...([['bt-handset', 'complaint'], ['bt-megaphone', 'which'], ['bt-talk-back', 'opening'], ['bt-megaphone', 'readings'], ['bt-handset', 'replacing'], ['bt-handset', 'plus'], ['bt-talk-back', 'closing'], ['bt-cabinet', 'load']] as const)
    .map(([id, step]): [string, string, string, string[]] => [`a ticket, ${step}`, `/bench/${id}?step=${step}`, '.face .pane', []]),
  ['exercises', '/practice', '.practice .list', []],
  ['an exercise made', '/practice', '.practice .list', ['c', 'wait']],
  ['a rig', `/practice/${writeCode({ level: 7, seed: 3 })}`, '.doables', ['2', 'o', Key.ARROW_DOWN, '1', 'm', 'wait']],
  ['a rig, forty', `/practice/${writeCode({ level: 15, seed: 3 })}`, '.doables', []],
  ['a rig that is none', '/practice/what', '.gone', []],
  ['a ticket on paper', '/bench/bt-talk-back?paper', '.sheet', []],
  ...['', '(4 + 4) || (4 + 4) on 300 W at 4, 180 W at 8, from 2', '40 x 5 W on 70 V 240 W', '4 x 8 on 300 W at 4', '12 x 5 W + 2 x 20 W on'].map(quick),
]

export const VIEW_NAMES = [...JOB_VIEWS, ...PAGE_VIEWS].map(([name]) => name)
