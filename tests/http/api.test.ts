import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import pg from 'pg'
import type { ReadingKind, ReadingValue } from '#core/job/schema'
import { factsOf, READ_AT_HEAD, READ_AT_SPEAKER, READING_KINDS } from '#core/job/sections/readings/kinds'
import { jobOf } from '#core/testing/jobs'
import { writeJobFile } from '#core/format/plainMatch'
import { makeDatabase, startServer, type RunningServer, type TestDatabase } from '../support/server'

let database: TestDatabase
let server: RunningServer
/** A second instance on the same database: two servers behave as one. */
let second: RunningServer

beforeAll(async () => {
  database = await makeDatabase()
  server = await startServer(database.url)
  second = await startServer(database.url)
}, 120_000)
afterAll(async () => {
  await Promise.all([server.stop(), second.stop()])
  await database.drop()
}, 60_000)

interface Answer { status: number, body: any }
async function ask(method: string, path: string, body?: unknown, at = server): Promise<Answer> {
  const headers = { 'content-type': 'application/json' }
  const response = await fetch(`${at.url}/api${path}`, { method, headers, body: typeof body === 'string' ? body : body === undefined ? undefined : JSON.stringify(body) })
  return { status: response.status, body: await response.json() }
}
async function makeJob(line = '4 x 10 W on 70 V 100 W'): Promise<string> {
  const id = randomUUID()
  expect((await ask('POST', '/jobs', { id, from: 'line', line })).status).toBe(200)
  return id
}
const open = async (id: string, at = server) => (await ask('GET', `/jobs/${id}?by=window`, undefined, at)).body
const stamped = (edit: unknown, id = randomUUID()) => ({ id, by: 'window', undoes: null, edit })
const named = (was: string, to: string) => ({ kind: 'job.set', was: { name: was }, to: { name: to } })
const NAME = '4 x 10 W on 70 V 100 W'

test('a typed line becomes a job, is listed with its state, archived and brought back, copied, put out and in', async () => {
  const id = await makeJob()
  const listed = async (place = 'active') => (await ask('GET', `/jobs?place=${place}`)).body.jobs.find((j: any) => j.id === id)
  expect(await listed()).toMatchObject({ name: NAME, sentence: 'Nothing proved yet.', lines: [{ label: 'A1', speakers: 4, grade: 'good' }], archivedAt: null })
  await ask('PATCH', `/jobs/${id}`, { archived: true })
  expect([await listed(), (await listed('archived')).archivedAt]).toEqual([undefined, expect.any(String)])
  await ask('PATCH', `/jobs/${id}`, { archived: false })
  expect((await listed()).archivedAt).toBeNull()

  const copy = randomUUID()
  await ask('POST', '/jobs', { id: copy, from: 'copy', of: id })
  expect((await open(copy)).job.name).toBe(`${NAME} (copy)`)

  const file = await fetch(`${server.url}/api/jobs/${id}/file`)
  expect(file.headers.get('content-disposition')).toContain('.plainmatch.json')
  const text = await file.text()
  const again = randomUUID()
  await ask('POST', '/jobs', { id: again, from: 'file', text })
  expect((await open(again)).job).toEqual((await open(id)).job)
  // The file reads in the order of the schema, whatever order the database keeps.
  expect(Object.keys(JSON.parse(text)).slice(0, 3)).toEqual(['format', 'version', 'name'])

  const outputId = (await open(id)).job.amplifiers[0].outputs[0].id
  const netlist = await (await fetch(`${server.url}/api/jobs/${id}/netlist?output=${outputId}`)).text()
  expect(netlist.match(/^R/gm)).toHaveLength(4)
})

test('a reading of every kind, at every place where the schema takes it, is taken by the database, and comes back', async () => {
  const id = await makeJob()
  const { outputs } = (await open(id)).job.amplifiers[0]
  const [one, other] = outputs[0].wiring.children.map((c: any) => c.node.id)
  const VALUES: Record<ReturnType<typeof factsOf>['value'], (kind: ReadingKind) => ReadingValue> = {
    'ohm': () => ({ is: 'ohm', ohm: 31 }), 'heard': () => ({ is: 'thin' }), 'turned': kind => ({ is: 'reversed', how: kind === 'polarity' ? 'battery-run' : 'pulse', against: null }),
    'tap': () => ({ is: 'tap', tapW: 5, ratedV: 70.71 }), 'volts-amps': () => ({ is: 'volts-amps', volts: 10, amps: 1 }), 'beside': () => ({ is: 'quieter', besideId: other }),
    'level': () => ({ is: 'level', db: 80, weighting: 'A', signal: 'pink-noise', headV: null }), 'seen': () => ({ is: 'as-it-should' }), 'swapped': () => ({ is: 'stays', withId: other }),
  }
  const placesOf = (kind: ReadingKind) => [...READ_AT_HEAD.includes(kind) ? [null] : [], ...READ_AT_SPEAKER.includes(kind) ? [one] : []]
  const taken = READING_KINDS.flatMap(kind => placesOf(kind).map((nodeId, k) => ({
    id: `${kind}-${k}`, at: '2026-05-04T09:00:00Z', kind, outputId: outputs[0].id, nodeId, value: VALUES[factsOf(kind).value](kind), note: '',
    frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false,
  })))
  const { body } = await ask('POST', `/jobs/${id}/sync`, { since: 0, edits: taken.map(reading => stamped({ kind: 'reading.add', reading })) })
  expect([taken.length, body.results?.map((r: any) => r.status)]).toEqual([17, taken.map(() => 'applied')])
  expect((await open(id)).job.readings).toEqual(taken)
})

test('a request sent twice makes one job, an edit sent twice counts once, through either server', async () => {
  const id = await makeJob()
  await ask('POST', '/jobs', { id, from: 'nothing', name: 'other' }, second)
  expect((await open(id)).job.name).toBe(NAME)

  const edit = stamped(named(NAME, 'Hall'))
  const answers = await Promise.all([server, second, server, second].map(at => ask('POST', `/jobs/${id}/sync`, { since: 0, edits: [edit, edit] }, at)))
  expect(answers.map(a => a.status)).toEqual([200, 200, 200, 200])
  expect(answers.flatMap(a => a.body.results.map((r: any) => r.status)).filter(s => s === 'applied')).toHaveLength(1)
  expect(await open(id, second)).toMatchObject({ revision: 1, job: { name: 'Hall' } })
})

test('fifty edits from two servers at once are numbered without a gap', async () => {
  const id = await makeJob()
  const reading = (k: number) => ({
    kind: 'reading.add',
    reading: { id: `r${k}`, at: '2026-05-04T09:30:00Z', kind: 'line-dcr', outputId: '', nodeId: null, value: { is: 'ohm', ohm: k }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false },
  })
  const outputId = (await open(id)).job.amplifiers[0].outputs[0].id
  await Promise.all(Array.from({ length: 50 }, (_, k) => {
    const edit = reading(k)
    edit.reading.outputId = outputId
    return ask('POST', `/jobs/${id}/sync`, { since: 0, edits: [stamped(edit)] }, k % 2 ? server : second)
  }))
  const { revision, job, log } = await open(id)
  const { entries } = (await ask('POST', `/jobs/${id}/sync`, { since: 0, edits: [] })).body
  expect([revision, job.readings.length, log.length, entries.map((e: any) => e.seq)]).toEqual([50, 50, 50, Array.from({ length: 50 }, (_, k) => k + 1)])
})

test('an edit that no longer fits comes back with its reason; those after it go on', async () => {
  const id = await makeJob()
  const { status, body } = await ask('POST', `/jobs/${id}/sync`, { since: 0, by: 'window', edits: [stamped(named('old name', 'x')), stamped(named(NAME, 'Hall'))] })
  expect(status).toBe(200)
  expect(body.results).toMatchObject([{ status: 'refused', refusal: { code: 'changed-meanwhile' }, message: expect.stringContaining('changed in another window') }, { status: 'applied' }])
  // The window that sent it has the edit; what takes it back is for the window that made it.
  expect(body.entries).toMatchObject([{ seq: 1, edit: null, inverse: named('Hall', NAME) }])
  expect((await ask('POST', `/jobs/${id}/sync`, { since: 0, by: 'other', edits: [] })).body.entries).toMatchObject([{ seq: 1, edit: named(NAME, 'Hall'), inverse: null }])
})

test('a change through one server is told by the other', async () => {
  const id = await makeJob()
  const abort = new AbortController()
  const stream = (await fetch(`${second.url}/api/live`, { signal: abort.signal })).body!.getReader()
  const decoder = new TextDecoder()
  let heard = ''
  const listen = (async () => {
    while (!heard.includes(id)) heard += decoder.decode((await stream.read()).value)
  })()
  while (!heard.includes('gap')) await new Promise(resolve => setTimeout(resolve, 20))
  // The listening connection may still be on its way: a second change is heard in any case.
  for (let k = 0; k < 50 && !heard.includes(id); k++) {
    await ask('POST', `/jobs/${id}/sync`, { since: 0, edits: [stamped({ kind: 'job.set', was: {}, to: {} })] })
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  await listen
  abort.abort()
  expect(heard).toContain(`"jobId":"${id}"`)
})

describe('bad input gets a clear message, never a 500', () => {
  const good = writeJobFile(jobOf('8'))
  const deep = '['.repeat(60_000) + ']'.repeat(60_000)
  test.each<[string, string, string, unknown, number, RegExp]>([
    ['no JSON', 'POST', '/jobs', '{"a', 400, /not JSON/],
    ['nothing', 'POST', '/jobs', '', 422, /expected object, received null/],
    ['a list', 'POST', '/jobs', [], 422, /expected object, received array/],
    ['an unknown source', 'POST', '/jobs', { id: randomUUID(), from: 'moon' }, 422, /from/],
    ['an id of another form', 'POST', '/jobs', { id: '7', from: 'nothing', name: 'x' }, 422, /id/],
    ['an empty name', 'POST', '/jobs', { id: randomUUID(), from: 'nothing', name: '  ' }, 422, /name: must not be empty/],
    ['a null character', 'POST', '/jobs', { id: randomUUID(), from: 'nothing', name: 'a\u0000b' }, 422, /cannot be kept/],
    ['half a surrogate', 'POST', '/jobs', { id: randomUUID(), from: 'nothing', name: 'a\ud800b' }, 422, /cannot be kept/],
    ['a line that cannot be read', 'POST', '/jobs', { id: randomUUID(), from: 'line', line: '8 +' }, 422, /missing/],
    ['a file cut short', 'POST', '/jobs', { id: randomUUID(), from: 'file', text: good.slice(0, 99) }, 422, /cut short/],
    ['a file of another kind', 'POST', '/jobs', { id: randomUUID(), from: 'file', text: '{"format":"x"}' }, 422, /format/],
    ['a file nested without end', 'POST', '/jobs', { id: randomUUID(), from: 'file', text: deep }, 422, /nests deeper/],
    ['a copy of nothing', 'POST', '/jobs', { id: randomUUID(), from: 'copy', of: randomUUID() }, 404, /no such job/],
    ['a body nested without end', 'POST', '/jobs', deep, 422, /expected object, received array/],
    ['no such job', 'GET', `/jobs/${randomUUID()}`, undefined, 404, /no such job/],
    ['a job id of another form', 'GET', '/jobs/..%2f..', undefined, 404, /no such job|nothing at/],
    ['edits to no job', 'POST', `/jobs/${randomUUID()}/sync`, { since: 0, edits: [] }, 404, /no such job/],
    ['no such address', 'GET', '/nothing', undefined, 404, /nothing at/],
    ['an address that takes no deleting', 'DELETE', '/jobs', undefined, 404, /nothing at/],
    ['an unknown method', 'PUT', '/jobs', '{}', 405, /not done here/],
  ])('%s', async (_, method, path, body, status, says) => {
    const answer = await ask(method, path, body)
    expect([answer.status, answer.body.error.message]).toEqual([status, expect.stringMatching(says)])
  })

  const edits: [string, unknown, RegExp][] = [
    ['an unknown kind', { kind: 'job.explode' }, /kind/], ['a tap as text', { kind: 'speaker.set', nodeId: 'a', was: {}, to: { load: { kind: 'tap', tapW: '5', ratedV: 70, tapsW: [], insertionDb: null, tapMeans: null } } }, /tapW/],
    ['an infinite length', { kind: 'lead.set', nodeId: 'a', was: null, to: { cable: { awg: 16 }, lengthM: 1e308 } }, /at most 10000 m/],
    ['no such gauge', { kind: 'lead.set', nodeId: 'a', was: null, to: { cable: { areaMm2: 7 }, lengthM: 1 } }, /must be one of/],
    ['a field too much', { kind: 'node.remove', nodeId: 'a', extra: 1 }, /extra/],
  ]
  test.each(edits)('an edit with %s', async (_, edit, says) => {
    const id = await makeJob()
    const { status, body } = await ask('POST', `/jobs/${id}/sync`, { since: 0, edits: [stamped(edit)] })
    expect([status, says.test(body.error.message)]).toEqual([422, true])
    expect((await open(id)).revision).toBe(0)
  })

  test('a wiring nested deeper than any is refused as an edit too', async () => {
    const id = await makeJob()
    const parentId = (await open(id)).job.amplifiers[0].outputs[0].wiring.id
    let node: unknown = { kind: 'star', id: 'n0', children: [] }
    for (let k = 1; k < 80; k++) node = { kind: 'star', id: `n${k}`, children: [{ lead: null, node }] }
    const { status, body } = await ask('POST', `/jobs/${id}/sync`, { since: 0, edits: [stamped({ kind: 'node.add', parentId, index: 0, branch: { lead: null, node } })] })
    expect([status, body.results[0].status, /nests deeper/.test(body.results[0].message)]).toEqual([200, 'refused', true])
  })
})

test('a connection that is lost in the middle of a request says so, and the server recovers by itself', async () => {
  const id = await makeJob()
  const holder = new pg.Client({ connectionString: database.url })
  await holder.connect()
  const edit = stamped(named(NAME, 'Hall'))
  try {
    await holder.query('begin')
    await holder.query('select 1 from jobs where id = $1 for update', [id])
    const asked = ask('POST', `/jobs/${id}/sync`, { since: 0, edits: [edit] })
    const blocked = 'datname = current_database() and wait_event_type = \'Lock\''
    while ((await holder.query(`select 1 from pg_stat_activity where ${blocked}`)).rowCount === 0) await new Promise(resolve => setTimeout(resolve, 20))
    await holder.query(`select pg_terminate_backend(pid) from pg_stat_activity where ${blocked}`)
    const { status, body } = await asked
    expect([status, body.error.code]).toEqual([503, 'database-away'])
  }
  finally {
    await holder.end()
  }
  expect((await ask('POST', `/jobs/${id}/sync`, { since: 0, edits: [edit] })).body.revision).toBe(1)
  // And of idle ones: whatever was in the pool, an answer or the plain word, never a failure of the server's own.
  await database.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()')
  const answers = await Promise.all(Array.from({ length: 6 }, () => ask('GET', `/jobs/${id}`)))
  expect(answers.map(({ status, body }) => status === 200 || body.error.code)).toEqual(answers.map(({ status }) => status === 200 || 'database-away'))
  expect((await ask('GET', `/jobs/${id}`)).status).toBe(200)
})

test('a job that somebody else holds is waited for so long and no longer', async () => {
  const id = await makeJob()
  const holder = new pg.Client({ connectionString: database.url })
  await holder.connect()
  try {
    await holder.query('begin')
    await holder.query('select 1 from jobs where id = $1 for update', [id])
    const from = Date.now()
    const { status, body } = await ask('POST', `/jobs/${id}/sync`, { since: 0, edits: [stamped(named(NAME, 'Hall'))] })
    expect([status, body.error.code, Date.now() - from < 12_000]).toEqual([503, 'database-away', true])
  }
  finally {
    await holder.end()
  }
  // Nothing of it was done, and the same edit goes through now.
  expect((await ask('POST', `/jobs/${id}/sync`, { since: 0, edits: [stamped(named(NAME, 'Hall'))] })).body.revision).toBe(1)
}, 30_000)

test('a frozen database holds a request for its bound and no longer; thawed, all goes on', async () => {
  // A link that is idle is used before a new one is made. Only those of this database stop: other tests are on the same cluster.
  expect((await ask('GET', '/jobs')).status).toBe(200)
  const client = new pg.Client({ connectionString: database.url })
  await client.connect()
  const { rows } = await client.query<{ pid: number }>('select pid from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()')
  await client.end()
  expect(rows.length).toBeGreaterThan(0)
  const from = Date.now()
  let frozen: Answer
  try {
    for (const { pid } of rows) process.kill(pid, 'SIGSTOP')
    frozen = await ask('GET', '/jobs')
  }
  finally {
    for (const { pid } of rows) process.kill(pid, 'SIGCONT')
  }
  expect([frozen.status, frozen.body.error.code, Date.now() - from < 15_000]).toEqual([503, 'database-away', true])
  expect((await ask('GET', '/jobs')).status).toBe(200)
}, 60_000)

test('while the database is gone every answer says so, and the log says it once', async () => {
  const lost = await makeDatabase()
  const alone = await startServer(lost.url)
  await lost.drop()
  try {
    const statuses: number[] = []
    for (let k = 0; k < 8; k++) statuses.push((await ask('GET', k % 2 ? '/jobs' : '/health', undefined, alone)).status)
    expect([statuses, alone.log().match(/does not answer/g), alone.log().split('\n').filter(line => /^\s+at /.test(line))]).toEqual([new Array(8).fill(503), ['does not answer'], []])
  }
  finally {
    await alone.stop()
  }
}, 60_000)
