import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { request } from 'node:http'
import { connect } from 'node:net'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { makeDatabase, startServer, type RunningServer, type TestDatabase } from '../support/server'

let database: TestDatabase
let server: RunningServer
let port = 0

beforeAll(async () => {
  database = await makeDatabase()
  server = await startServer(database.url)
  port = Number(new URL(server.url).port)
}, 120_000)
afterAll(async () => {
  await server.stop()
  await database.drop()
}, 60_000)

interface Answer { status: number, body: string, headers: Record<string, unknown> }
/** A request with whatever headers: fetch would not send a foreign Host. */
type Writer = (write: (chunk: Buffer) => boolean, drained: () => Promise<void>) => Promise<void>
function send(method: string, path: string, headers: Record<string, string>, body?: string | Writer): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const outgoing = request({ host: '127.0.0.1', port, method, path, headers }, (incoming) => {
      let text = ''
      incoming.on('data', chunk => text += String(chunk))
      incoming.on('end', () => resolve({ status: incoming.statusCode!, body: text, headers: incoming.headers }))
    })
    outgoing.on('error', reject)
    if (typeof body === 'function') void body(chunk => outgoing.write(chunk), () => new Promise(done => outgoing.once('drain', done))).then(() => outgoing.end())
    else outgoing.end(body)
  })
}
const own = () => `127.0.0.1:${port}`
const bodyOf = (method: string) => method === 'GET' || method === 'DELETE' ? undefined : '{}'
const JSON_TYPE = { 'content-type': 'application/json' }

describe('every address, asked for from elsewhere', () => {
  const id = '00000000-0000-4000-8000-000000000000'
  const routes: [string, string][] = [
    ['GET', '/'], ['GET', '/api/health'], ['GET', '/api/jobs'], ['POST', '/api/jobs'], ['GET', `/api/jobs/${id}`], ['PATCH', `/api/jobs/${id}`], ['DELETE', `/api/jobs/${id}`],
    ['POST', `/api/jobs/${id}/sync`], ['GET', `/api/jobs/${id}/file`], ['GET', `/api/jobs/${id}/netlist`], ['GET', '/api/live'], ['GET', '/api/nothing'], ['GET', '/api'],
  ]
  test.each(routes)('%s %s under a foreign Host', async (method, path) => {
    const { status, body } = await send(method, path, { host: 'rebound.example', ...JSON_TYPE }, bodyOf(method))
    expect([status, body.includes('does not answer to the name')]).toEqual([421, true])
  })
  test.each(routes.filter(([method]) => method !== 'GET'))('%s %s from another origin, as a form, as text', async (method, path) => {
    const statuses = await Promise.all([
      send(method, path, { host: own(), origin: 'http://elsewhere.example', ...JSON_TYPE }, bodyOf(method)), send(method, path, { host: own(), 'sec-fetch-site': 'cross-site', ...JSON_TYPE }, bodyOf(method)),
      send(method, path, { host: own(), 'content-type': 'text/plain' }, bodyOf(method)), send(method, path, { host: own(), 'content-type': 'application/x-www-form-urlencoded' }, bodyOf(method)),
    ])
    expect(statuses.map(s => s.status)).toEqual(method === 'DELETE' ? [403, 403, 404, 404] : [403, 403, 415, 415])
  })
  test('nothing of it made a job', async () => expect(JSON.parse((await send('GET', '/api/jobs', { host: own() })).body)).toMatchObject({ total: 0 }))
})

test('/api itself and unknown methods answer as an interface; HEAD on health is well', async () => {
  const answers = await Promise.all([send('GET', '/api', { host: own() }), send('GET', '/api/', { host: own() }), send('PUT', '/api/jobs', { host: own() }), send('HEAD', '/api/health', { host: own() })])
  expect(answers.map(a => [a.status, a.body === '' ? '' : JSON.parse(a.body).error.code])).toEqual([[404, 'no-such-address'], [404, 'no-such-address'], [405, 'no-such-method'], [200, '']])
})

test('pages say what a browser may do with them: no inline script but the one named by its hash', async () => {
  const { headers, body } = await send('GET', '/', { host: own() })
  const policy = String(headers['content-security-policy'])
  const inline = [...body.matchAll(/<script(?![^>]*\ssrc=)[^>]*>/g)].length
  expect([policy.match(/'sha256-/g)?.length, /script-src[^;]*unsafe/.test(policy), /frame-ancestors 'none'/.test(policy), inline > 0]).toEqual([inline, false, true, true])
  expect([headers['x-content-type-options'], headers['x-frame-options'], headers['referrer-policy'], headers['x-powered-by']]).toEqual(['nosniff', 'DENY', 'same-origin', undefined])
})

test('700 MB in chunks, of no stated length: counted while read, answered 413, and the server stays small', async () => {
  const chunk = Buffer.alloc(1_000_000, 32)
  const answer = await send('POST', '/api/jobs', { host: own(), 'transfer-encoding': 'chunked', ...JSON_TYPE }, async (write, drained) => {
    for (let k = 0; k < 700; k++) if (!write(chunk)) await drained()
  })
  expect([answer.status, JSON.parse(answer.body).error.code]).toEqual([413, 'too-large'])
  const { pid } = JSON.parse((await send('GET', '/api/health', { host: own() })).body) as { pid: number }
  const peakKb = Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1])
  expect(peakKb).toBeLessThan(250_000)
}, 60_000)

test('a body that is cut short is no failure of the server', async () => {
  await new Promise<void>((resolve) => {
    const socket = connect(port, '127.0.0.1', () => {
      socket.write(`POST /api/jobs HTTP/1.1\r\nhost: ${own()}\r\ncontent-type: application/json\r\ncontent-length: 100\r\n\r\n{"id"`)
      setTimeout(() => socket.destroy(), 100)
    })
    socket.on('close', () => resolve())
  })
  expect((await send('GET', '/api/health', { host: own() })).status).toBe(200)
  expect(server.log()).not.toMatch(/Error/)
})

describe('the list of jobs', () => {
  const ids = Array.from({ length: 120 }, () => randomUUID())
  const post = (body: unknown) => send('POST', '/api/jobs', { host: own(), ...JSON_TYPE }, JSON.stringify(body))
  const list = async (query: string) => JSON.parse((await send('GET', `/api/jobs?${query}`, { host: own() })).body) as { jobs: { id: string, name: string, state: string, sentence: string }[], total: number, counts: Record<string, number> }
  beforeAll(async () => {
    for (const [k, id] of ids.entries()) {
      await post(k % 40 === 0 ? { id, from: 'line', line: '12 x 20 W on 70 V 100 W' } : k % 2 ? { id, from: 'line', line: '4 x 5 W on 70 V 100 W' } : { id, from: 'nothing', name: `Empty ${String(k).padStart(3, '0')} 50%` })
    }
  }, 60_000)

  test('is read in pages, each job once', async () => {
    const pages = await Promise.all([0, 1, 2, 3].map(page => list(`sort=name&page=${page}`)))
    expect(pages.map(p => p.jobs.length)).toEqual([50, 50, 20, 0])
    expect(new Set(pages.flatMap(p => p.jobs.map(j => j.id))).size).toBe(120)
    expect([pages[0]!.total, pages[0]!.counts]).toEqual([120, { active: 120, archived: 0, deleted: 0 }])
  })
  test('is searched, word by word, and what a word means to the database is only a character', async () => {
    expect((await list(`search=${encodeURIComponent('50% empty 11')}`)).jobs.map(j => j.name).sort()).toEqual(['Empty 110 50%', 'Empty 112 50%', 'Empty 114 50%', 'Empty 116 50%', 'Empty 118 50%'])
    expect((await list(`search=${encodeURIComponent('_mpty')}`)).total).toBe(0)
  })
  test('is sorted by what presses most, and chosen by it', async () => {
    const { jobs } = await list('sort=state')
    expect(jobs.slice(0, 4).map(j => j.state)).toEqual(['stop', 'stop', 'stop', 'open'])
    expect([(await list('state=stop')).total, (await list('state=empty')).total, (await list('state=proved')).total]).toEqual([3, 57, 0])
  })
  test.each([['page=x'], ['sort=up'], ['state=fine'], ['place=moon'], ['search=%00']])('?%s is refused with its place', async (query) => {
    const { status, body } = await send('GET', `/api/jobs?${query}`, { host: own() })
    expect([status, JSON.parse(body).error.where]).toEqual([422, query.split('=')[0]])
  })

  const change = (method: string, id: string, body?: unknown) => send(method, `/api/jobs/${id}`, { host: own(), ...JSON_TYPE }, body === undefined ? undefined : JSON.stringify(body))
  test('an empty job is deleted, one in hand is not until it is archived; both can be had back', async () => {
    const [full, , empty] = ids
    expect([(await change('DELETE', empty!)).status, (await change('DELETE', full!)).status]).toEqual([200, 409])
    await change('PATCH', full!, { archived: true })
    expect((await change('DELETE', full!)).status).toBe(200)
    expect([(await list('place=deleted')).total, (await change('GET', full!)).status, (await send('POST', `/api/jobs/${full}/sync`, { host: own(), ...JSON_TYPE }, '{"since":0,"edits":[]}')).status]).toEqual([2, 404, 404])
    for (const id of [full!, empty!]) expect((await change('PATCH', id, { deleted: false })).status).toBe(200)
    expect([(await list('place=deleted')).total, (await change('GET', full!)).status]).toEqual([0, 200])
  })
  test('after 30 days what was deleted is gone', async () => {
    await change('DELETE', ids[2]!)
    await change('DELETE', ids[4]!)
    await database.query(`update jobs set deleted_at = now() - interval '31 days' where id = '${ids[2]}'; update jobs set deleted_at = now() - interval '29 days' where id = '${ids[4]}'`)
    expect((await list('place=deleted')).jobs.map(j => j.id)).toEqual([ids[4]])
  })
  test('an archived job takes no edits, and says why; its id in capitals is the same job', async () => {
    await change('PATCH', ids[1]!, { archived: true })
    const { body } = await send('POST', `/api/jobs/${ids[1]!.toUpperCase()}/sync`, { host: own(), ...JSON_TYPE }, JSON.stringify({ since: 0, edits: [{ id: 'a', by: 'w', undoes: null, edit: { kind: 'job.set', was: {}, to: {} } }] }))
    expect(JSON.parse(body).results).toMatchObject([{ status: 'refused', refusal: { code: 'archived' }, message: expect.stringContaining('Bring it back first') }])
  })
})
