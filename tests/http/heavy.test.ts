import { randomUUID } from 'node:crypto'
import { request } from 'node:http'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { writeJobFile } from '#core/format/plainMatch'
import { Records } from '#core/job/records'
import { FORMAT_VERSION, type Job, type Reading } from '#core/job/schema'
import { reading } from '#core/testing/edits'
import { jobOf } from '#core/testing/jobs'
import { familyOf, residentMb } from '../support/family'
import { asking, makeDatabase, startServer, type RunningServer, type TestDatabase } from '../support/server'

/** What is heavy: done by a helper, once, whatever becomes of the helper; and what all requests may hold at once. */

let database: TestDatabase
let server: RunningServer
beforeAll(async () => {
  database = await makeDatabase()
  server = await startServer(database.url)
}, 120_000)
afterAll(async () => {
  await server.stop()
  await database.drop()
}, 60_000)

const ask = asking(() => server.url)
const helpers = () => familyOf(server.pid).filter(pid => pid !== server.pid)
function heavyJob(count: number): Job {
  const job = jobOf('40 x 5 W on 70 V 300 W')
  const readings = Array.from({ length: count }, (_, k): Reading => ({ ...reading(`r${k}`), note: 'long '.repeat(200) }))
  return { ...job, name: 'Heavy', readings: Records.of(readings) }
}
const file = (count: number) => writeJobFile(heavyJob(count))

test('a heavy job comes in, is opened, changed, told, copied, put out and deleted, by a helper that is not there before', async () => {
  const [id, copy] = [randomUUID(), randomUUID()]
  await ask('POST', '/jobs', { id: randomUUID(), from: 'line', line: '8 + 8' })
  expect(helpers()).toEqual([])
  expect((await ask('POST', '/jobs', { id, from: 'file', text: file(1000) })).status).toBe(200)
  expect(helpers()).toHaveLength(1)
  const opened = (await ask('GET', `/jobs/${id}`)).body
  expect([opened.revision, opened.job.readings.length, opened.job.readings[999].note.length]).toEqual([0, 1000, 1000])
  const edit = { kind: 'job.set', was: { name: 'Heavy' }, to: { name: 'Heavier' } }
  const sync = { since: 0, version: FORMAT_VERSION, edits: [{ id: 'e1', by: 'w', who: null, undoes: null, edit }] }
  expect([(await ask('POST', `/jobs/${id}/sync`, sync)).body.results, (await ask('POST', `/jobs/${id}/sync`, sync)).body.results])
    .toEqual([[{ id: 'e1', status: 'applied' }], [{ id: 'e1', status: 'known' }]])
  expect((await ask('POST', '/jobs', { id: copy, from: 'copy', of: id })).body.id).toBe(copy)
  // It is told apart: the list does not wait for it, and says so meanwhile.
  let sentence = ''
  for (let tries = 0; tries < 100 && (sentence === '' || sentence === 'Being looked at…'); tries++) {
    sentence = (await ask('GET', '/jobs')).body.jobs.find((j: { id: string }) => j.id === id).sentence
    await new Promise(resolve => setTimeout(resolve, 50))
  }
  expect(sentence).toMatch(/proved/)
  const text = await (await fetch(`${server.url}/api/jobs/${copy}/file`)).text()
  expect([(JSON.parse(text) as { name: string }).name, (await ask('DELETE', `/jobs/${copy}`)).body.error.code]).toEqual(['Heavier (copy)', 'in-hand'])
}, 60_000)

test('the helper is killed in the middle, eight times: answered as away, and what is sent again counts once', async () => {
  for (let k = 0; k < 8; k++) {
    const [id, text] = [randomUUID(), file(2000)]
    const coming = ask('POST', '/jobs', { id, from: 'file', text })
    await new Promise(resolve => setTimeout(resolve, 20 + 60 * k))
    for (const pid of helpers()) process.kill(pid, 'SIGKILL')
    const first = await coming
    expect([200, 503]).toContain(first.status)
    if (first.status === 503) expect(first.body.error.message).toMatch(/Send it again/)
    // As a window does it: once more while it is away. One that is being killed still takes a connection for a moment.
    const again = [first.status]
    while (again.at(-1) !== 200 && again.length < 6) again.push((await ask('POST', '/jobs', { id, from: 'file', text })).status)
    expect(again.at(-1)).toBe(200)
    expect((await ask('GET', `/jobs/${id}`)).body.job.readings).toHaveLength(2000)
  }
}, 90_000)

test('a job is full: one reading more is refused with the reason, and all that is there goes out and comes in', async () => {
  const id = randomUUID()
  await ask('POST', '/jobs', { id, from: 'file', text: file(12_000) })
  const add = (k: number) => ({ kind: 'batch', edits: Array.from({ length: 1500 }, (_, n) => ({ kind: 'reading.add', reading: { ...reading(`m${k}-${n}`), note: 'x'.repeat(900) } })) })
  const answers = []
  for (let k = 0; k < 3; k++) {
    const answer = await ask('POST', `/jobs/${id}/sync`, { since: k, version: FORMAT_VERSION, edits: [{ id: `a${k}`, by: 'w', who: null, undoes: null, edit: add(k) }] })
    answers.push(answer.body.results[0].status === 'refused' ? answer.body.results[0].message : answer.body.results[0].status)
  }
  expect(answers[2]).toBe('This job is as large as a job can be (16 MB). Begin another for what comes next, or take out what is not needed.')
  const text = await (await fetch(`${server.url}/api/jobs/${id}/file`)).text()
  expect((await ask('POST', '/jobs', { id: randomUUID(), from: 'file', text })).status).toBe(200)
}, 90_000)

test('twenty senders of 15 MB each that stop in the middle: memory has a bound, others are answered, and each hears why', async () => {
  const ends = Array.from({ length: 20 }, () => new Promise<number>((resolve) => {
    const sending = request(`${server.url}/api/jobs`, { method: 'POST', headers: { 'content-type': 'application/json', 'content-length': 40_000_000 } }, answer => resolve(answer.statusCode ?? 0))
    sending.on('error', () => resolve(0))
    sending.write(Buffer.alloc(15_000_000, 32))
  }))
  await new Promise(resolve => setTimeout(resolve, 3000))
  expect(residentMb(server.pid)).toBeLessThan(500)
  expect((await ask('GET', '/health')).status).toBe(200)
  const told = await Promise.all(ends)
  expect(told.filter(status => ![408, 503].includes(status))).toEqual([])
  expect((await ask('POST', '/jobs', { id: randomUUID(), from: 'file', text: file(1000) })).status).toBe(200)
}, 60_000)
