import { randomUUID } from 'node:crypto'
import { execFile } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { writeJobFile } from '#core/format/plainMatch'
import { retap } from '#core/hands/intents'
import { Records } from '#core/job/records'
import { FORMAT_VERSION, type Job, type Reading } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { cabled, jobOf } from '#core/testing/jobs'
import { residentMb } from '../tests/support/family'
import { World } from '../tests/support/world'
import { waitsOf } from './held'
import { curves } from './evaluation'
import { quantile } from './timing'

/** A job made to hurt: nearly as large as one may be, two hundred measured curves on frequencies of their own on one line, long notes. */
const READINGS = 9000

function heaviestJob(): Job {
  const job = cabled(jobOf(...Array.from({ length: 41 }, () => '40 x 5 W on 70 V 300 W')), { cable: { awg: 14 }, lengthM: 5 })
  const [last, withCurves] = [outputsOf(job).at(-1)!, outputsOf(curves(7))[0]!]
  const renamed = JSON.parse(JSON.stringify(withCurves), (key, value: unknown) => key === 'id' ? `c-${String(value)}` : value) as typeof withCurves
  const amplifiers = job.amplifiers.map(a => ({ ...a, outputs: a.outputs.map(o => o.id === last.id ? renamed : o) }))
  const speakers = outputsOf(job).slice(0, 40).flatMap(o => speakersOf(o.wiring).map(s => ({ outputId: o.id, nodeId: s.id })))
  const readings = Array.from({ length: READINGS }, (_, n): Reading => ({
    ...speakers[n % speakers.length]!, id: `r${n}`, at: new Date(Date.UTC(2026, 4, 4) + n * 60_000).toISOString(), kind: 'coil-dcr', value: { is: 'ohm', ohm: 6.4 },
    note: 'long '.repeat(200), frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false,
  }))
  return { ...job, amplifiers, name: 'Made to hurt', readings: Records.of(readings) }
}

/** One request by a process of its own, behind the others for the processor: it stands for somebody on another machine. */
const ASK = `require('os').setPriority(15)
const [url, file] = process.argv.slice(1)
const answer = await fetch(url, file ? { method: 'POST', body: require('fs').readFileSync(file), headers: { 'content-type': 'application/json' } } : {})
await answer.arrayBuffer()
process.exitCode = answer.ok ? 0 : 1`
async function apart(url: string, file = ''): Promise<void> {
  await promisify(execFile)(process.execPath, ['-e', `(async () => { ${ASK} })()`, url, file])
}

export interface HeaviestTimes { megabytes: number, held: { what: string, ms: number, heldMs: number }[], peakMb: number, restingMb: number }

export async function heaviestTimes(): Promise<HeaviestTimes> {
  const world = await World.open()
  try {
    const job = heaviestJob()
    const text = writeJobFile(job)
    const other = await world.putJob(jobOf('8'))
    const held = waitsOf(() => world.readJob(other))
    const list = () => fetch(`${world.url}/api/jobs`).then(r => r.json() as Promise<{ jobs: { id: string, sentence: string }[] }>)
    const folder = mkdtempSync(join(tmpdir(), 'heaviest-'))
    const ids = Array.from({ length: 4 }, () => randomUUID())
    for (const id of ids) writeFileSync(join(folder, id), JSON.stringify({ id, from: 'file', text }))
    const [id, ...rest] = ids as [string, ...string[]]
    const put = (which = rest.pop()!) => apart(`${world.url}/api/jobs`, join(folder, which))
    await put(id)
    const speaker = speakersOf(outputsOf(job)[0]!.wiring)[0]!
    const edit = retap(job, speaker.id, 1)!
    let [since, isUp] = [0, true]
    const tap = async () => {
      const wanted = isUp || edit.kind !== 'speaker.set' ? edit : { ...edit, was: edit.to, to: edit.was }
      isUp = !isUp
      const answer = await world.post(`/jobs/${id}/sync`, { since, version: FORMAT_VERSION, edits: [{ id: randomUUID(), by: 'bench', who: null, undoes: null, edit: wanted }] }) as { revision: number, results: { status: string }[] }
      if (answer.results[0]!.status !== 'applied') throw new Error(JSON.stringify(answer.results))
      since = answer.revision
    }
    const acts: [string, () => Promise<unknown>][] = [
      ['it comes in as a file', () => put()],
      ['it is opened', () => apart(`${world.url}/api/jobs/${id}`)],
      ['a tap of it is changed', tap],
      ['it goes out as a file', () => apart(`${world.url}/api/jobs/${id}/file`)],
      ['it is copied', () => world.post('/jobs', { id: randomUUID(), from: 'copy', of: id })],
      ['the list is looked at and it is told anew', async () => {
        await tap()
        for (let tries = 0; tries < 400 && (await list()).jobs.find(j => j.id === id)?.sentence === 'Being looked at…'; tries++) await new Promise(resolve => setTimeout(resolve, 25))
      }],
    ]
    let peakMb = 0
    const sampling = setInterval(() => { peakMb = Math.max(peakMb, residentMb(world.server.pid)) }, 200)
    const found = []
    for (const [what, run] of acts) {
      const rounds = []
      for (let k = 0; k < 3; k++) rounds.push(await held(run))
      found.push({ what, ms: quantile(rounds.map(r => r.ms), 0.5), heldMs: quantile(rounds.map(r => r.heldMs), 0.5) })
    }
    clearInterval(sampling)
    // The helper has nothing to do any more, and goes.
    await new Promise(resolve => setTimeout(resolve, 25_000))
    return { megabytes: Buffer.byteLength(text) / 1e6, held: found, peakMb, restingMb: residentMb(world.server.pid) }
  }
  finally {
    await world.close()
  }
}
