import { disagreementsOn } from '#core/check/disagree'
import { applyEdit } from '#core/job/apply'
import { outputsOf } from '#core/job/tree'
import type { Job, Reading } from '#core/job/schema'
import { TestEntrance } from '../tests/support/entrance'
import { makeDatabase, startServer } from '../tests/support/server'
import { timed } from './held'
import { medianMs, quantile } from './timing'

/** Several on one job, and at the door. */

const REQUESTS = 300

/** What two people disagree about, looked for on every line of a job after one more reading. */
export function disagreementsMs(job: Job): number {
  const look = (of: Job) => outputsOf(of).reduce((sum, output) => sum + disagreementsOn(of, output).length, 0)
  look(job)
  const [last] = [...job.readings].slice(-1) as [Reading]
  let count = 0
  return medianMs(() => {
    look(applyEdit(job, { kind: 'reading.add', reading: { ...last, id: `more-${count++}`, who: 'somebody' } }).job)
  })
}

/** What the door asks costs a request: with a key over HTTPS, a connection each, beside the same for this machine in plain. */
export async function doorTimes(): Promise<{ hereMs: number, keyMs: number, ratio: number }> {
  const [database, entrance] = [await makeDatabase(), await TestEntrance.make()]
  const server = await startServer(database.url, undefined, undefined, entrance.env)
  try {
    const { code } = await (await fetch(`${server.url}/api/devices/code`, { method: 'POST', body: '{}', headers: { 'content-type': 'application/json' } })).json() as { code: string }
    const { cookies } = await entrance.ask('POST', '/api/devices/let-in', { body: { code, name: 'Bench' } })
    const key = cookies[0]!.split(';')[0]!
    const [here, away]: [number[], number[]] = [[], []]
    for (let k = 0; k < REQUESTS; k++) {
      here.push(await timed(() => fetch(`${server.url}/api/jobs`, { headers: { connection: 'close' } }).then(r => r.text())))
      away.push(await timed(() => entrance.ask('GET', '/api/jobs', { key })))
    }
    const [hereMs, keyMs] = [quantile(here, 0.5), quantile(away, 0.5)]
    return { hereMs, keyMs, ratio: keyMs / hereMs }
  }
  finally {
    await server.stop()
    await database.drop()
    entrance.remove()
  }
}
