import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { readJob } from '#core/job/readJob'
import type { OpenedJob, SyncAnswer } from '#core/job/protocol'
import { undoStacks } from '#core/job/undo'
import { makeDatabase, startServer, type RunningServer, type TestDatabase } from '../support/server'
import { fillVersion1 } from '../support/version1'

/** What version 1 kept, read by this one. */

let database: TestDatabase
let servers: RunningServer[] = []
let id = ''

beforeAll(async () => {
  database = await makeDatabase()
  id = (await fillVersion1(database.url)).jobId
  // All at once: they migrate one database, one after the other.
  servers = await Promise.all([1, 2, 3].map(() => startServer(database.url)))
}, 120_000)
afterAll(async () => {
  await Promise.all(servers.map(s => s.stop()))
  await database.drop()
})

const open = async (at = servers[0]!, by = 'window-one') => await (await fetch(`${at.url}/api/jobs/${id}?by=${by}`)).json() as OpenedJob
const send = async (edits: unknown[], at = servers[0]!) =>
  await (await fetch(`${at.url}/api/jobs/${id}/sync`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ since: 0, edits }) })).json() as SyncAnswer

test('three servers that begin on one database at once all come up, on one migrated database', async () => {
  expect(await Promise.all(servers.map(s => fetch(`${s.url}/api/health`).then(r => r.status)))).toEqual([200, 200, 200])
  for (const server of servers) expect(server.log()).not.toMatch(/error/i)
})

test('the job opens, valid, with all its readings, repairs and edits; a second correction corrects the first', async () => {
  const { job, log, revision } = await open()
  const read = readJob(job)
  expect([job.version, job.name, revision, log.length, read.repairs.size]).toEqual([2, 'Fernhollow, as version 1 kept it', 12, 11, 1])
  expect(['v1-r1', 'v1-r2', 'v1-r3', 'v1-r5'].map(r => [read.readings.get(r)!.supersedes, read.readings.get(r)!.withdrawn])).toEqual([[null, false], ['v1-r1', false], ['v1-r2', false], [null, true]])
  expect(job.note).toBe('kept by version 1')
})

test('undo reaches over the change: each window takes back what it did in version 1, step by step', async () => {
  const steps: string[] = []
  let n = 0
  for (;;) {
    const { log } = await open(servers[n % 3])
    const last = undoStacks(log, 'window-one').undo.at(-1)?.entry
    if (!last) break
    const [result] = (await send([{ id: `undo-${n++}`, by: 'window-one', undoes: last.id, edit: last.inverse }], servers[n % 3])).results
    steps.push(`${last.edit.kind} ${result!.status}`)
  }
  // The removed speaker comes back first; two readings that version 1 undid by withdrawing are undone so again.
  expect(steps).toEqual(['batch applied', 'repair.add applied', 'reading.add applied', 'reading.add applied', 'reading.add applied', 'reading.add applied', 'speaker.set applied'])
  const { job } = await open()
  expect(job.readings.filter(r => r.id.startsWith('v1-')).map(r => r.withdrawn)).toEqual([true, true, true, true, true])
  readJob(job)
})

test('an edit of version 1 that is sent once more is known; another under its name is refused', async () => {
  const { log } = await open()
  const { id: editId, by, undoes, edit } = log[0]!
  expect((await send([{ id: editId, by, undoes, edit }, { id: editId, by, undoes, edit: { kind: 'job.set', was: {}, to: {} } }])).results.map(r => r.status)).toEqual(['known', 'refused'])
})
