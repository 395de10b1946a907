import { randomUUID } from 'node:crypto'
import loadHighs from 'highs'
import { applyEdit } from '#core/job/apply'
import { emptyJob } from '#core/job/document'
import type { Edit } from '#core/job/edits'
import type { Job } from '#core/job/schema'
import { UNSTATED_AMPLIFIER, UNSTATED_OUTPUT } from '#core/job/sections/wiring/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { hangSpace, layOut, spaceById } from '#core/hands/spaces'
import { outputsOf, speakersOf } from '#core/job/tree'
import { solverOf } from '#core/search/plan/lp'
import { planTaps } from '#core/search/plan/tapPlan'
import { rectangle } from '#core/room/outline'
import { unstatedModel } from '#core/gear/models'
import { Key } from '../tests/support/browser'
import { World } from '../tests/support/world'
import { quantile } from './timing'

const model = {
  ...unstatedModel('speaker', 'Ceiling 165, 30 W'), nominalOhm: 8, sensitivityDb: 89, sensitivityAt: '1 W' as const, coverageDeg: 100, scales: [{ lineV: 70.71, tapsW: [2.5, 5, 10, 20, 30] }], insertionDb: 1, tapMeans: 'line-gives' as const,
}
const base: Job = { ...emptyJob('Rooms'), kinds: [{ what: 'speaker', id: 'k', from: null, model }] }
const newId = () => randomUUID()
const done = (job: Job, edit: Edit | null) => edit ? applyEdit(job, edit).job : job

/** 60 rooms of ten speakers on 24 lines of an amplifier of 400 W each. */
function house(): Job {
  const outputs = Array.from({ length: 24 }, (_, k) => ({ id: `o${k}`, label: `A${k + 1}`, name: '', rating: { kind: 'constant-voltage' as const, lineV: 70.71, powerW: 400 }, ...UNSTATED_OUTPUT, wiring: { kind: 'chain' as const, id: `w${k}`, children: [] } }))
  let job: Job = { ...base, amplifiers: [{ id: 'a', name: 'Amplifiers', place: '', ...UNSTATED_AMPLIFIER, outputs }] }
  for (let k = 0; k < 60; k++) {
    const space = { ...plainSpace(`s${k}`, `Room ${k}`), kindId: 'k', noiseDb: 58 + k % 13, outline: rectangle(14 + k % 5, 7), rackM: 20 + k }
    job = done(job, { kind: 'space.add', index: k, space })
    job = done(job, layOut(job, space, Array.from({ length: 10 }, (_, n) => ({ xM: 1.5 + 2.6 * (n % 5), yM: n < 5 ? 2 : 5 })), newId))
    const answer = hangSpace(job, spaceById(job, space.id)!, { outputId: `o${k % 24}` }, { tapW: 5, cable: { awg: 14 }, newId })
    if (typeof answer === 'string') throw new Error(answer)
    job = done(job, answer.edit)
  }
  return job
}

export interface SpaceTimes { planMs: number, planSpeakers: number, isProven: boolean, nudgeMs: number, firstMs: number }

export async function spaceTimes(): Promise<SpaceTimes> {
  const job = house()
  const solve = solverOf(await loadHighs())
  const times: number[] = []
  let isProven = true
  for (let k = 0; k < 3; k++) {
    const from = performance.now()
    const plan = await planTaps(job, solve)
    times.push(performance.now() - from)
    isProven &&= plan.feasible && plan.proven
  }
  const planSpeakers = outputsOf(job).flatMap(o => speakersOf(o.wiring)).length
  return { planMs: quantile(times, 0.5), planSpeakers, isProven, ...await planOnScreen() }
}

/** A hall of 2,000 m² with 80 speakers: a nudge of one of them, key to paint; and from the press on the station to its plan. */
async function planOnScreen(): Promise<{ nudgeMs: number, firstMs: number }> {
  const space = { ...plainSpace('hall', 'Hall'), kindId: 'k', noiseDb: 60, outline: rectangle(50, 40), heightM: 6 }
  let job = done(base, { kind: 'space.add', index: 0, space })
  job = done(job, layOut(job, space, Array.from({ length: 80 }, (_, n) => ({ xM: 2.5 + 5 * (n % 10), yM: 2.5 + 5 * Math.floor(n / 10) })), newId))
  const world = await World.open()
  try {
    const { browser } = world
    const id = await world.putJob(job)
    const firsts: number[] = []
    for (let k = 0; k < 5; k++) {
      await world.go(`/jobs/${id}`)
      await browser.see('.stations')
      await new Promise(resolve => setTimeout(resolve, 1200))
      firsts.push(await browser.driver.executeAsyncScript<number>(`const done = arguments[0]
        const link = [...document.querySelectorAll('.station')].find(a => a.textContent.includes('Space'))
        const from = performance.now()
        const look = () => document.querySelector('.plan [data-spot]') ? requestAnimationFrame(() => setTimeout(() => done(performance.now() - from))) : requestAnimationFrame(look)
        link.click()
        look()`))
    }
    await browser.press(']')
    await new Promise(resolve => setTimeout(resolve, 800))
    await browser.run('window.times = []; new PerformanceObserver(l => { for (const e of l.getEntries()) if (e.name === "keydown") window.times.push(e.duration) }).observe({ type: "event", durationThreshold: 16 })')
    const presses = 40
    for (let k = 0; k < presses; k++) {
      await browser.press(k % 2 ? Key.ARROW_LEFT : Key.ARROW_RIGHT)
      await new Promise(resolve => setTimeout(resolve, 150))
    }
    const reported = await browser.run<number[]>('return window.times')
    // Shorter ones the browser does not report.
    return { nudgeMs: quantile([...reported, ...new Array<number>(Math.max(0, presses - reported.length)).fill(16)], 0.5), firstMs: quantile(firsts, 0.5) }
  }
  finally {
    await world.close()
  }
}
