import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { FORMAT_VERSION } from '#core/job/schema'
import { readJob } from '#core/job/readJob'
import type { OpenedJob, SyncAnswer } from '#core/job/protocol'
import { undoStacks } from '#core/job/undo'
import { makeDatabase, startServer, type RunningServer, type TestDatabase } from '../support/server'
import { fillAsVersion } from '../support/oldVersion'

/** What version 1 kept, read by this one. */

let database: TestDatabase
let servers: RunningServer[] = []
let id = ''

beforeAll(async () => {
  database = await makeDatabase()
  id = (await fillAsVersion(1, database.url)).jobId
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
  expect([job.version, job.name, revision, log.length, read.repairs.size]).toEqual([FORMAT_VERSION, 'Fernhollow, as version 1 kept it', 12, 11, 1])
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

test('what version 2 kept: its lagging document, its edits and its rows open; undo reaches over the change; a repair of a whole line can be added', async () => {
  const old = await makeDatabase()
  const { jobId } = await fillAsVersion(2, old.url)
  const server = await startServer(old.url)
  try {
    const read = async () => await (await fetch(`${server.url}/api/jobs/${jobId}?by=window-one`)).json() as OpenedJob
    const sync = async (edit: unknown, undoes: string | null, n: number) => {
      const body = JSON.stringify({ since: 0, edits: [{ id: `v3-${n}`, by: 'window-one', undoes, edit }] })
      return (await (await fetch(`${server.url}/api/jobs/${jobId}/sync`, { method: 'POST', headers: { 'content-type': 'application/json' }, body })).json() as SyncAnswer).results[0]!.status
    }
    const { job, log } = await read()
    const taken = readJob(job)
    const corrected = taken.readings.get('v2-r2')
    expect([job.version, job.note, log.length, taken.repairs.get('v2-fix')!.fault, corrected!.supersedes]).toEqual([FORMAT_VERSION, 'kept by version 2', 8, 'high-resistance', 'v2-r1'])
    const outputId = corrected!.outputId
    const repair = { id: 'v3-fix', at: '2026-06-01T08:00:00Z', outputId, nodeId: null, fault: 'taps-on-other-scale', note: '', withdrawn: false }
    expect([await sync({ kind: 'repair.add', repair }, null, 0), await sync({ kind: 'repair.add', repair: { ...repair, id: 'v3-other', outputId: 'nowhere' } }, null, 1)]).toEqual(['applied', 'refused'])
    const steps: string[] = []
    for (let n = 2; ; n++) {
      const last = undoStacks((await read()).log, 'window-one').undo.at(-1)?.entry
      if (!last) break
      steps.push(`${last.edit.kind} ${await sync(last.inverse, last.id, n)}`)
    }
    const kinds = ['repair.add', 'node.remove', 'repair.add', 'reading.add', 'reading.add', 'speaker.set', 'job.set']
    expect(steps).toEqual(kinds.map(kind => `${kind} applied`))
  }
  finally {
    await server.stop()
    await old.drop()
  }
})

test('what version 3 kept opens; an edit of it is known as its own; a sound it did not know, and how it was taken, can be added', async () => {
  const old = await makeDatabase()
  const { jobId } = await fillAsVersion(3, old.url)
  const server = await startServer(old.url)
  try {
    const read = async () => await (await fetch(`${server.url}/api/jobs/${jobId}?by=window-one`)).json() as OpenedJob
    const sync = async (edits: unknown[]) => {
      const body = JSON.stringify({ since: 0, edits })
      return (await (await fetch(`${server.url}/api/jobs/${jobId}/sync`, { method: 'POST', headers: { 'content-type': 'application/json' }, body })).json() as SyncAnswer).results.map(r => r.status)
    }
    const { job, log } = await read()
    const before = readJob(job)
    expect([job.version, job.note, log.length, before.readings.get('v3-r1')!.taken, before.readings.get('v3-r2')!.supersedes]).toEqual([FORMAT_VERSION, 'kept by version 3', 5, null, 'v3-r1'])
    const again = log.map(({ id, by, undoes, edit }) => ({ id, by, undoes, edit }))
    const reading = { ...before.readings.get('v3-r3')!, id: 'v4-r', value: { is: 'hum' }, taken: { by: 'Iris', meter: 'blue', leadsOhm: 0 } }
    const fresh = { id: 'v4-e', by: 'window-one', undoes: null, edit: { kind: 'reading.add', reading } }
    expect(await sync([...again, fresh])).toEqual(['known', 'known', 'known', 'known', 'known', 'applied'])
    const after = readJob((await read()).job).readings.get('v4-r')!
    expect([after.value, after.taken]).toEqual([{ is: 'hum' }, { by: 'Iris', meter: 'blue', leadsOhm: 0 }])
    // Back over the change of version, one by one.
    for (let n = 0; ; n++) {
      const last = undoStacks((await read()).log, 'window-one').undo.at(-1)?.entry
      if (!last) break
      expect(await sync([{ id: `v4-u${n}`, by: 'window-one', undoes: last.id, edit: last.inverse }])).toEqual(['applied'])
    }
    expect(readJob((await read()).job).note).not.toBe('kept by version 3')
  }
  finally {
    await server.stop()
    await old.drop()
  }
})
