import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import pg from 'pg'
import { unstatedModel } from '#core/gear/models'
import { readTable, readGear, guessMapping } from '#core/gear/csv'
import { makeKind } from '#core/hands/kinds'
import { readJob } from '#core/job/readJob'
import { outputsOf, speakersOf } from '#core/job/tree'
import { asking, makeDatabase, startServer, type RunningServer, type TestDatabase } from '../support/server'

/** The library of gear: models in versions, in columns with their bounds, and where they are used. */

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
const ceiling = { ...unstatedModel('speaker', 'Ceiling A'), nominalOhm: 8, continuousW: 30, scales: [{ lineV: 70.71, tapsW: [5, 10] }] }
const put = async (body: unknown = ceiling, kind = 'speaker', id = randomUUID()) => ({ id, ...await ask('POST', '/gear', { models: [{ id, kind, body }] }) })
const row = async (id: string) => (await ask('GET', '/gear?kind=speaker')).body.rows.find((r: { id: string }) => r.id === id)

test('a model comes in once, is listed, gets versions, is retired and comes back; none of its versions is lost', async () => {
  const { id, status, body } = await put()
  expect([status, body, (await put(ceiling, 'speaker', id)).body]).toEqual([200, { made: 1 }, { made: 0 }])
  expect((await row(id)).values.slice(0, 4)).toEqual(['Ceiling A', null, 8, 30])
  expect((await ask('POST', `/gear/${id}/versions`, { was: 1, body: { ...ceiling, continuousW: 40 } })).body).toEqual({ version: 2 })
  // Made from a version that is no longer the newest: not written over.
  const late = await ask('POST', `/gear/${id}/versions`, { was: 1, body: { ...ceiling, name: 'Ceiling B' } })
  expect([late.status, late.body.error.code]).toEqual([409, 'changed-meanwhile'])
  expect((await ask('PATCH', `/gear/${id}`, { retired: true })).status).toBe(200)
  const found = (await ask('GET', `/gear/${id}`)).body
  const versions = found.versions.map((v: any) => [v.version, v.body.continuousW])
  expect([found.isRetired, versions, (await row(id)).isRetired]).toEqual([true, [[2, 40], [1, 30]], true])
  await ask('PATCH', `/gear/${id}`, { retired: false })
  expect((await row(id)).isRetired).toBe(false)
})

test.each<[string, string, unknown, string]>([
  ['a rating out of bounds', 'speaker', { ...ceiling, continuousW: 0 }, 'models[0].body.continuousW'], ['a key too many', 'speaker', { ...ceiling, colour: 'red' }, 'models[0].body'], ['of another kind', 'cable', ceiling, 'models[0].body.size'],
  ['no name', 'speaker', { ...ceiling, name: ' ' }, 'models[0].body.name'],
])('%s is refused, and where', async (_, kind, body, where) => {
  const answer = await put(body, kind)
  expect([answer.status, answer.body.error.where]).toEqual([422, where])
})

test('all or none: one bad model of three, and none is there', async () => {
  const before = (await ask('GET', '/gear?kind=control')).body.rows.length
  const models = [1, 2, 3].map(k => ({ id: randomUUID(), kind: 'control', body: { ...unstatedModel('control', `c${k}`), ratingW: k === 3 ? -1 : k } }))
  expect((await ask('POST', '/gear', { models })).body.error.where).toBe('models[2].body.ratingW')
  expect((await ask('GET', '/gear?kind=control')).body.rows).toHaveLength(before)
})

test.each([
  ['GET', `/gear/${randomUUID()}`, undefined, 404],
  ['GET', '/gear/x', undefined, 404],
  ['GET', '/gear?kind=lamp', undefined, 422],
  ['PATCH', `/gear/${randomUUID()}`, { retired: true }, 404],
  ['POST', `/gear/${randomUUID()}/versions`, { was: 1, body: ceiling }, 404],
  ['POST', '/gear', { models: [] }, 422],
] as [string, string, unknown, number][])('%s %s is answered', async (method, path, body, status) =>
  expect((await ask(method, path, body)).status).toBe(status))

test('an id twice in one request is refused, and where', async () => {
  const one = { id: randomUUID(), kind: 'cable', body: unstatedModel('cable', 'twice') }
  expect((await ask('POST', '/gear', { models: [one, one] })).body.error).toMatchObject({ where: 'models[1].id', message: expect.stringContaining('stands twice') })
  expect((await ask('GET', `/gear/${one.id}`)).status).toBe(404)
})

const act = (act: unknown, id = randomUUID()) => ask('POST', '/gear/acts', { id, act })
const DONE = { status: 200, body: { status: 'done' } }

test('an act counts once: a model added, its fields set, retired; sent again after others have changed it, it changes nothing', async () => {
  const [id, [adding, setting, retiring]] = [randomUUID(), [randomUUID(), randomUUID(), randomUUID()]]
  const add = { do: 'add', models: [{ id, kind: 'speaker', body: ceiling }] }
  const set = { do: 'set', id, kind: 'speaker', was: { price: null }, to: { price: 12 } }
  const retire = { do: 'retire', ids: [id], retired: true }
  expect([await act(add, adding), await act(add, adding), await act(set, setting), await act(retire, retiring)]).toEqual([DONE, DONE, DONE, DONE])
  // Somebody offers it again at another price; then the lost ones come once more.
  expect([await act({ ...retire, retired: false }), await act({ ...set, was: { price: 12 }, to: { price: 15 } })]).toEqual([DONE, DONE])
  expect([await act(set, setting), await act(retire, retiring), await act(add, adding)]).toEqual([DONE, DONE, DONE])
  const { isRetired, versions } = (await ask('GET', `/gear/${id}`)).body
  expect([isRetired, versions.map((v: any) => [v.version, v.body.price])]).toEqual([false, [[3, 15], [2, 12], [1, null]]])
  // What is set to what it is makes no version.
  expect([await act({ ...set, was: { price: 15 }, to: { price: 15 } }), (await ask('GET', `/gear/${id}`)).body.versions.length]).toEqual([DONE, 3])
})

test('an act that does not fit is refused with its reason, and counts when it comes again and does', async () => {
  const { id } = await put({ ...ceiling, price: 20 })
  const [late, late2] = [randomUUID(), { do: 'set', id, kind: 'speaker', was: { price: 10, name: ceiling.name }, to: { price: 12 } }]
  expect((await act(late2, late)).body).toEqual({ status: 'refused', code: 'changed-meanwhile', message: 'The price was changed in another window: it was 10, it is now 20.' })
  await act({ ...late2, was: { price: 20 }, to: { price: 10 } })
  expect([await act(late2, late), (await ask('GET', `/gear/${id}`)).body.versions[0].body.price]).toEqual([DONE, 12])
  for (const gone of [{ ...late2, id: randomUUID() }, { ...late2, kind: 'cable', was: {}, to: {} }, { do: 'retire', ids: [id, randomUUID()], retired: true }]) {
    expect((await act(gone)).body).toMatchObject({ status: 'refused', code: 'not-there' })
  }
  expect((await row(id)).isRetired).toBe(false)
})

test.each<[string, unknown, string]>([
  ['a field out of bounds', { do: 'set', id: randomUUID(), kind: 'speaker', was: { nominalOhm: 8 }, to: { nominalOhm: 0 } }, 'act.to.nominalOhm'],
  ['one of three models', { do: 'add', models: [1, 2, 3].map(k => ({ id: randomUUID(), kind: 'control', body: { ...unstatedModel('control', 'c'), ratingW: k === 2 ? -1 : k } })) }, 'act.models[1].body.ratingW'],
  ['no act', { do: 'burn' }, 'act.do'],
])('%s: not read, and where', async (_, wanted, where) => {
  const answer = await act(wanted)
  expect([answer.status, answer.body.error.where]).toEqual([422, where])
})

test('10,000 models go in by one act and are taken back by one, all or none, and twice is once; others are answered meanwhile', async () => {
  const models = Array.from({ length: 10_000 }, (_, k) => ({ id: randomUUID(), kind: 'transformer', body: unstatedModel('transformer', `many ${k}`) }))
  const [ids, id] = [models.map(m => m.id), randomUUID()]
  let answered = 0
  const asking = setInterval(() => void ask('GET', '/health').then(() => { answered++ }), 20)
  expect([await act({ do: 'add', models }, id), await act({ do: 'add', models }, id)]).toEqual([DONE, DONE])
  clearInterval(asking)
  expect(answered).toBeGreaterThan(3)
  const offered = async () => ((await ask('GET', '/gear?kind=transformer')).body.rows as { isRetired: boolean, values: string[] }[]).filter(r => !r.isRetired && r.values[0]!.startsWith('many ')).length
  expect([await offered(), (await act({ do: 'retire', ids: [...ids.slice(1), randomUUID()], retired: true })).body.status, await offered()]).toEqual([10_000, 'refused', 10_000])
  expect([await act({ do: 'retire', ids, retired: true }), await offered()]).toEqual([DONE, 0])
}, 60_000)

test('what older pages ask: all or none, and twice is once', async () => {
  const models = Array.from({ length: 30 }, (_, k) => ({ id: randomUUID(), kind: 'transformer', body: unstatedModel('transformer', `older ${k}`) }))
  const ids = models.map(m => m.id)
  expect([(await ask('POST', '/gear', { models })).body, (await ask('POST', '/gear', { models })).body]).toEqual([{ made: 30 }, { made: 0 }])
  expect((await ask('PATCH', '/gear', { ids: [...ids, randomUUID()], retired: true })).status).toBe(404)
  for (const round of [1, 2]) expect([round, (await ask('PATCH', '/gear', { ids, retired: true })).body]).toEqual([round, { retired: true }])
})

test('a version whose answer was lost, sent once more, is the same; another one is refused', async () => {
  const { id } = await put({ ...ceiling, name: 'Once' })
  const next = { was: 1, body: { ...ceiling, name: 'Once more' } }
  expect([(await ask('POST', `/gear/${id}/versions`, next)).body, (await ask('POST', `/gear/${id}/versions`, next)).body]).toEqual([{ version: 2 }, { version: 2 }])
  expect((await ask('POST', `/gear/${id}/versions`, { was: 1, body: { ...ceiling, name: 'Another' } })).status).toBe(409)
})

test('whole models that are offered, in their newest version, for a search', async () => {
  const { id } = await put({ ...ceiling, name: 'Whole' })
  await ask('POST', `/gear/${id}/versions`, { was: 1, body: { ...ceiling, name: 'Whole', price: 12 } })
  const of = async () => (await ask('GET', '/gear/whole?kind=speaker')).body.models.filter((m: { id: string }) => m.id === id)
  expect(await of()).toEqual([{ id, version: 2, body: { ...ceiling, name: 'Whole', price: 12 } }])
  await ask('PATCH', `/gear/${id}`, { retired: true })
  expect(await of()).toEqual([])
})

test('out as a table of text, which comes in again', async () => {
  await put({ ...ceiling, name: '=odd', remark: 'two\nlines' })
  const text = (await ask('GET', '/gear/file?kind=speaker')).body as string
  const table = readTable(text)
  const { good, bad } = readGear('speaker', table, guessMapping('speaker', table.heads))
  expect([bad, good.find(g => g.model.name === '=odd')!.model.remark]).toEqual([[], 'two\nlines'])
  expect(text).not.toMatch(/(^|,|\n)"?=/)
})

test('where a model is used: by the job that carries a copy of it, until that gives it up; a job from elsewhere may name what is not here', async () => {
  const { id } = await put()
  const jobId = randomUUID()
  await ask('POST', '/jobs', { id: jobId, from: 'line', line: '4 x 5 W on 70 V' })
  const job = readJob((await ask('GET', `/jobs/${jobId}`)).body.job)
  const { edit, kindId } = makeKind(job, speakersOf(outputsOf(job)[0]!.wiring).map(s => s.id), 'x', () => `k-${jobId.slice(0, 8)}`)!
  const sync = (edit: unknown) => ask('POST', `/jobs/${jobId}/sync`, { since: 0, edits: [{ id: randomUUID(), by: 'w', undoes: null, edit }] })
  await sync(edit)
  await sync({ kind: 'kind.set', kindId, was: { from: null }, to: { from: { modelId: id, version: 1, passed: null } } })
  expect([(await row(id)).usedIn, (await ask('GET', `/gear/${id}`)).body.usedIn]).toEqual([1, [{ jobId, name: '4 x 5 W on 70 V', version: 1 }]])
  await sync({ kind: 'kind.set', kindId, was: { from: { modelId: id, version: 1, passed: null } }, to: { from: { modelId: 'elsewhere', version: 7, passed: null } } })
  expect((await row(id)).usedIn).toBe(0)
})

test('the database keeps the bounds itself', async () => {
  const client = new pg.Client({ connectionString: database.url })
  await client.connect()
  try {
    const { id } = await put()
    const insert = (body: object, version = 2) =>
      client.query('insert into model_versions (model_id, version, body) values ($1, $2, $3)', [id, version, JSON.stringify(body)]).then(() => 'taken', (error: { code: string }) => error.code)
    expect([await insert({ name: ' ' }), await insert({ name: 'x', nominalOhm: 0 }), await insert({ name: 'x', price: -1 }), await insert({}), await insert({ name: 'x' }, 1), await insert({ name: 'x' }, 0), await insert({ name: 'x', nominalOhm: 8 })])
      .toEqual(['23514', '23514', '23514', '23502', '23505', '23514', 'taken'])
    const { rows } = await client.query(`select tablename || ' ' || indexdef as says from pg_indexes where tablename in ('model_versions', 'models', 'job_models')`)
    for (const column of ['lower(name)', 'nominal_ohm', 'sensitivity_db', 'price', 'model_id']) expect(rows.some(r => r.says.includes(column))).toBe(true)
  }
  finally {
    await client.end()
  }
})
