import { spawn, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { FORMAT_VERSION } from '#core/job/schema'
import { unstatedModel } from '#core/gear/models'
import { freePort, makeDatabase, startServer, type RunningServer, type TestDatabase } from '../support/server'

/** Two servers on one database behind a plain balancer, as docs/operations.md says: killed, brought back, and beside a newer one. */

let database: TestDatabase
let servers: [RunningServer, RunningServer]
let balancer: ChildProcess
let url = ''
const folder = mkdtempSync(join(tmpdir(), 'balancer-'))
const portOf = (server: RunningServer) => Number(new URL(server.url).port)

beforeAll(async () => {
  database = await makeDatabase()
  // Both begin on a fresh database at once: one of them brings it up.
  servers = await Promise.all([startServer(database.url), startServer(database.url)])
  const port = await freePort()
  url = `http://127.0.0.1:${port}`
  const lines = servers.map((server, k) => `  server s${k} 127.0.0.1:${portOf(server)} check inter 200ms fall 1 rise 1`)
  writeFileSync(join(folder, 'balancer.cfg'), `defaults
  mode http
  timeout connect 2s
  timeout client 70s
  timeout server 70s
  option redispatch
  retries 2
frontend f
  bind 127.0.0.1:${port}
  default_backend b
backend b
  balance roundrobin
  option httpchk GET /api/health
  http-check send hdr host 127.0.0.1
${lines.join('\n')}
`)
  balancer = spawn('/usr/sbin/haproxy', ['-f', join(folder, 'balancer.cfg'), '-db'], { stdio: 'ignore' })
  for (const until = Date.now() + 20_000; Date.now() < until && !await fetch(`${url}/api/health`).then(r => r.ok, () => false);) await new Promise(resolve => setTimeout(resolve, 100))
}, 120_000)
afterAll(async () => {
  balancer.kill('SIGKILL')
  await Promise.all(servers.map(server => server.stop()))
  rmSync(folder, { recursive: true, force: true })
  await database.drop()
}, 60_000)

async function ask(method: string, path: string, body?: unknown, at = url): Promise<{ status: number, body: any }> {
  const response = await fetch(`${at}/api${path}`, { method, headers: { 'content-type': 'application/json' }, body: body === undefined ? undefined : JSON.stringify(body) })
  return { status: response.status, body: await response.json().catch(() => null) }
}
/** As a window does: the same again until it is answered. */
async function surely(path: string, body: unknown): Promise<any> {
  for (let tries = 0; tries < 200; tries++) {
    const answer = await ask('POST', path, body).catch(() => null)
    if (answer?.status === 200) return answer.body
    if (answer && answer.status < 500) throw new Error(JSON.stringify(answer))
    await new Promise(resolve => setTimeout(resolve, 50))
  }
  throw new Error('never answered')
}
const reading = (id: string, outputId: string) => ({
  kind: 'reading.add',
  reading: { id, at: '2026-05-04T09:30:00Z', kind: 'line-dcr', outputId, nodeId: null, value: { is: 'ohm', ohm: 7 }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false },
})

test('six windows through the balancer, each of both servers killed and brought back three times: all that was done is there once, in a job and in the library', async () => {
  const id = randomUUID()
  await surely('/jobs', { id, from: 'line', line: '4 x 5 W on 70 V 100 W' })
  const outputId = (await ask('GET', `/jobs/${id}`)).body.job.amplifiers[0].outputs[0].id as string
  let isOver = false
  const done: string[] = []
  const models: string[] = []
  const windows = Array.from({ length: 6 }, async (_, w) => {
    for (let k = 0; !isOver; k++) {
      const name = `w${w}r${k}`
      const { results } = await surely(`/jobs/${id}/sync`, { since: 0, by: `w${w}`, version: FORMAT_VERSION, edits: [{ id: name, by: `w${w}`, who: null, undoes: null, edit: reading(name, outputId) }] })
      expect(['applied', 'known']).toContain(results[0].status)
      done.push(name)
      if (k % 5 > 0) continue
      const model = randomUUID()
      const body = { id: randomUUID(), version: FORMAT_VERSION, act: { do: 'add', models: [{ id: model, kind: 'cable', body: unstatedModel('cable', name) }] } }
      expect([await surely('/gear/acts', body), await surely('/gear/acts', body)]).toEqual([{ status: 'done' }, { status: 'done' }])
      models.push(model)
    }
  })
  for (let k = 0; k < 6; k++) {
    const which = k % 2 as 0 | 1
    await servers[which].stop('SIGKILL')
    await new Promise(resolve => setTimeout(resolve, 300))
    servers[which] = await startServer(database.url, portOf(servers[which]))
  }
  isOver = true
  await Promise.all(windows)
  const { revision, job } = (await ask('GET', `/jobs/${id}`)).body
  expect(job.readings.map((r: { id: string }) => r.id).sort()).toEqual([...done].sort())
  expect([revision, done.length > 60, models.length > 12]).toEqual([done.length, true, true])
  const { rows } = (await ask('GET', '/gear?kind=cable')).body as { rows: { id: string, version: number }[] }
  expect(rows.map(r => r.id).sort()).toEqual([...models].sort())
}, 120_000)

test('what is done by way of one server is told by the other, through the balancer', async () => {
  const id = randomUUID()
  await surely('/jobs', { id, from: 'line', line: '8 + 8' })
  for (const server of servers) {
    const stop = new AbortController()
    const stream = await fetch(`${server === servers[0] ? url : servers[1].url}/api/live`, { signal: stop.signal })
    const heard = (async () => {
      let text = ''
      for await (const piece of stream.body as unknown as AsyncIterable<Uint8Array>) {
        text += new TextDecoder().decode(piece)
        if (text.includes(id) && text.includes('event: gear')) return true
      }
      return false
    })()
    const other = server === servers[0] ? servers[1] : servers[0]
    for (let k = 0; k < 40 && await Promise.race([heard, new Promise(resolve => setTimeout(resolve, 100))]) !== true; k++) {
      await ask('PATCH', `/jobs/${id}`, { archived: k % 2 === 0 }, other.url)
      await ask('POST', '/gear/acts', { id: randomUUID(), act: { do: 'add', models: [{ id: randomUUID(), kind: 'control', body: unstatedModel('control', 'heard') }] } }, other.url)
    }
    expect(await heard).toBe(true)
    stop.abort()
  }
}, 60_000)

test('a rolling start: the database is a newer version’s already, and a page too; the old server goes on, and lets what is newer wait for a newer one', async () => {
  const id = randomUUID()
  await surely('/jobs', { id, from: 'line', line: '8 + 8' })
  await database.query(`alter table jobs add column later integer; alter table edits add column later integer; alter table models add column later integer;
    insert into migrations (name, batch, migration_time) values ('999-later', 99, now())`)
  const edit = { id: 'e1', by: 'w', who: null, undoes: null, edit: { kind: 'job.set', was: { name: '8 + 8' }, to: { name: 'Still' } } }
  const sync = (version: number) => ask('POST', `/jobs/${id}/sync`, { since: 0, version, edits: [edit] })
  expect([(await sync(FORMAT_VERSION + 1)).body.error.code, (await sync(FORMAT_VERSION)).body.results]).toEqual(['older-server', [{ id: 'e1', status: 'applied' }]])
  const act = (version: number) => ask('POST', '/gear/acts', { id: randomUUID(), version, act: { do: 'add', models: [{ id: randomUUID(), kind: 'cable', body: unstatedModel('cable', 'x') }] } })
  expect([(await act(FORMAT_VERSION + 1)).status, (await act(FORMAT_VERSION)).body]).toEqual([503, { status: 'done' }])
  expect((await ask('GET', '/jobs')).body.jobs.find((j: { id: string }) => j.id === id).name).toBe('Still')
  // Started anew, it would not know what stands there.
  const late = await startServer(database.url, undefined, 3000).then(() => 'came up', (error: Error) => error.message)
  expect(late).toMatch(/brought up by a newer version of this program \(999-later\)/)
}, 60_000)
