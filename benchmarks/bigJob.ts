import { randomUUID } from 'node:crypto'
import { retap } from '#core/hands/intents'
import { applyEdit } from '#core/job/apply'
import { Records } from '#core/job/records'
import type { Edit } from '#core/job/edits'
import { FORMAT_VERSION, type Job, type Reading } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import type { SyncAnswer } from '#core/job/protocol'
import { cabled, jobOf } from '#core/testing/jobs'
import { World } from '../tests/support/world'
import { timed, waitsOf } from './held'
import { quantile } from './timing'

/** A job of 2,000 speakers and 20,000 readings, through the server. */

const LINES = 50
const READINGS = 20_000

export function bigJob(): Job {
  const job = cabled(jobOf(...Array.from({ length: LINES }, () => '40 x 5 W on 70 V 300 W')), { cable: { awg: 14 }, lengthM: 5 })
  const speakers = job.amplifiers[0]!.outputs.flatMap(o => speakersOf(o.wiring).map(s => ({ outputId: o.id, nodeId: s.id })))
  const readings = Array.from({ length: READINGS }, (_, k): Reading => ({
    ...speakers[k % speakers.length]!, id: `r${k}`, at: new Date(Date.UTC(2026, 4, 4) + k * 60_000).toISOString(), kind: k % 2 ? 'coil-dcr' : 'sound', value: k % 2 ? { is: 'ohm', ohm: 6.4 } : { is: 'plays' },
    note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false,
  }))
  return { ...job, name: 'Two thousand speakers', readings: Records.of(readings) }
}

export interface BigJobTimes {
  wiringEditMs: number
  readingEditMs: number
  thousandReadingsMs: number
  fourThousandReadingsMs: number
  editsASecond: number
  heldMs: { byThousand: number, byFourThousand: number, byOpening: number }
  openedMs: number
  firstRailMs: number
}

export async function bigJobTimes(): Promise<BigJobTimes> {
  const world = await World.open()
  try {
    const job = bigJob()
    const id = await world.putJob(job)
    const other = await world.putJob(jobOf('8'))
    let since = 0
    const sync = async (edits: Edit[]): Promise<SyncAnswer> => {
      const answer = await world.post(`/jobs/${id}/sync`, { since, version: FORMAT_VERSION, edits: edits.map(edit => ({ id: randomUUID(), by: 'bench', who: null, undoes: null, edit })) }) as SyncAnswer
      if (answer.results.some(r => r.status !== 'applied')) throw new Error(JSON.stringify(answer.results.find(r => r.status !== 'applied')))
      since = answer.revision
      return answer
    }
    const output = job.amplifiers[0]!.outputs[7]!
    const [speaker] = speakersOf(output.wiring)
    const reading = (): Edit => ({ kind: 'reading.add', reading: { id: randomUUID(), at: '2026-05-04T09:30:00Z', kind: 'coil-dcr', outputId: output.id, nodeId: speaker!.id, value: { is: 'ohm', ohm: 6.4 }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false } })
    const readings = (count: number): Edit => ({ kind: 'batch', edits: Array.from({ length: count }, reading) as never })

    let current = job
    const wiringEdit = () => {
      const edit = retap(current, speaker!.id, 1) ?? retap(current, speaker!.id, -1)!
      current = applyEdit(current, edit).job
      return edit
    }
    const median = async (count: number, run: () => Promise<unknown>) => {
      const times: number[] = []
      for (let k = 0; k < count; k++) times.push(await timed(run))
      return quantile(times, 0.5)
    }
    await median(10, () => sync([wiringEdit()]))
    const wiringEditMs = await median(120, () => sync([wiringEdit()]))
    const readingEditMs = await median(120, () => sync([reading()]))
    const editsASecond = await tenWindows(world, id, reading)
    since = (await world.post(`/jobs/${id}/sync`, { since: 0, edits: [] }) as SyncAnswer).revision

    const held = waitsOf(() => world.readJob(other))
    const runs = async (count: number) => {
      const rounds = []
      for (let k = 0; k < 5; k++) rounds.push(await held(() => sync([readings(count)])))
      return { ms: quantile(rounds.map(r => r.ms), 0.5), heldMs: quantile(rounds.map(r => r.heldMs), 0.5) }
    }
    const thousand = await runs(1000)
    const fourThousand = await runs(4000)
    const openings = []
    for (let k = 0; k < 5; k++) openings.push(await held(async () => (await fetch(`${world.url}/api/jobs/${id}`)).arrayBuffer()))
    return {
      wiringEditMs, readingEditMs, thousandReadingsMs: thousand.ms, fourThousandReadingsMs: fourThousand.ms, editsASecond,
      heldMs: { byThousand: thousand.heldMs, byFourThousand: fourThousand.heldMs, byOpening: quantile(openings.map(o => o.heldMs), 0.5) },
      openedMs: quantile(openings.map(o => o.ms), 0.5), firstRailMs: await firstRail(world, job),
    }
  }
  finally {
    await world.close()
  }
}

/** Edits a second, each window sending its next when the last is answered. */
async function tenWindows(world: World, id: string, edit: () => Edit): Promise<number> {
  const until = performance.now() + 4000
  let count = 0
  const from = performance.now()
  await Promise.all(Array.from({ length: 10 }, async (_, k) => {
    let since = 0
    while (performance.now() < until) {
      const answer = await world.post(`/jobs/${id}/sync`, { since, version: FORMAT_VERSION, edits: [{ id: randomUUID(), by: `w${k}`, who: null, undoes: null, edit: edit() }] }) as SyncAnswer
      since = answer.revision
      count++
    }
  }))
  return count / ((performance.now() - from) / 1000)
}

/** From the press on the job in the list to its first rail drawn, in the browser. */
async function firstRail(world: World, job: Job): Promise<number> {
  const { browser } = world
  await world.putJob({ ...job, name: 'To be opened' })
  const times: number[] = []
  for (let k = 0; k < 5; k++) {
    await world.go('/')
    await browser.see('a.open', 'To be opened', 30_000)
    await new Promise(resolve => setTimeout(resolve, 1500))
    times.push(await browser.driver.executeAsyncScript<number>(`const done = arguments[0]
      const link = [...document.querySelectorAll('a.open')].find(a => a.textContent.includes('To be opened'))
      const from = performance.now()
      const look = () => document.querySelector('.rail-row') ? requestAnimationFrame(() => setTimeout(() => done(performance.now() - from))) : requestAnimationFrame(look)
      link.click()
      look()`))
    await new Promise(resolve => setTimeout(resolve, 1500))
  }
  return quantile(times, 0.5)
}
