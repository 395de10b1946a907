import { afterAll, beforeAll, expect, jest, test } from '@jest/globals'
import pg from 'pg'
import type { SpeakerModel } from '#core/gear/speaker'
import { FORMAT_VERSION } from '#core/job/schema'
import { FAULT_KINDS } from '#core/job/sections/repairs/schema'
import { constraintsOf, TABLES } from '../../server/jobs/tables'
import { byHand, makeKind } from '#core/hands/kinds'
import { putBefore, unknownControl } from '#core/hands/throughs'
import { readJob } from '#core/job/readJob'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { speakerAt } from '#core/hands/spaces'
import type { OpenedJob, SyncAnswer } from '#core/job/protocol'
import { outputsOf, speakersOf, throughsOf } from '#core/job/tree'
import { undoStacks } from '#core/job/undo'
import { makeDatabase, startServer, type RunningServer, type TestDatabase } from '../support/server'
import { fillAsVersion, type OldVersion } from '../support/oldVersion'

/** What version 1 kept, read by this one. */

// A server each, and as many answers as there are steps to take back: on a busy machine that is more than five seconds.
jest.setTimeout(60_000)

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
}, 60_000)

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

/** A server on what an older version kept, and a window on its job that was the author of the edits. */
interface Query { <T>(sql: string): Promise<T[]>, url: () => Promise<string>, startAnew: () => Promise<void> }
interface OldWindow { read: () => Promise<OpenedJob>, sync: (...edits: unknown[]) => Promise<string[]>, undoAll: () => Promise<string[]>, query: Query }
async function onOld(version: OldVersion, run: (window: OldWindow) => Promise<void>): Promise<void> {
  const old = await makeDatabase()
  const { jobId } = await fillAsVersion(version, old.url)
  let server = await startServer(old.url)
  const query: Query = Object.assign(async <T>(sql: string) => {
    const client = new pg.Client({ connectionString: old.url })
    await client.connect()
    return client.query(sql).then(r => r.rows as T[]).finally(() => client.end())
  }, {
    // The first request waits until the database is brought up.
    url: () => fetch(`${server.url}/api/health`).then(() => server.url),
    startAnew: async () => {
      await server.stop()
      server = await startServer(old.url)
      await fetch(`${server.url}/api/jobs`)
    },
  })
  await fetch(`${server.url}/api/jobs`)
  const read = async () => await (await fetch(`${server.url}/api/jobs/${jobId}?by=window-one`)).json() as OpenedJob
  const sync = async (...edits: unknown[]) => {
    const body = JSON.stringify({ since: 0, edits })
    return (await (await fetch(`${server.url}/api/jobs/${jobId}/sync`, { method: 'POST', headers: { 'content-type': 'application/json' }, body })).json() as SyncAnswer).results.map(r => r.status)
  }
  const undoAll = async () => {
    const steps: string[] = []
    for (let n = 0; ; n++) {
      const last = undoStacks((await read()).log, 'window-one').undo.at(-1)?.entry
      if (!last) return steps
      steps.push(`${last.edit.kind} ${(await sync({ id: `undo-${n}`, by: 'window-one', undoes: last.id, edit: last.inverse }))[0]}`)
    }
  }
  try {
    await run({ read, sync, undoAll, query })
  }
  finally {
    await server.stop()
    await old.drop()
  }
}
const fresh = (id: string, edit: unknown) => ({ id, by: 'window-one', undoes: null, edit })
const applied = (...kinds: string[]) => kinds.map(kind => `${kind} applied`)

test('what version 2 kept: its lagging document, its edits and its rows open; undo reaches over the change; a repair of a whole line can be added', () => onOld(2, async ({ read, sync, undoAll }) => {
  const { job, log } = await read()
  const taken = readJob(job)
  const corrected = taken.readings.get('v2-r2')!
  expect([job.version, job.note, log.length, taken.repairs.get('v2-fix')!.fault, corrected.supersedes]).toEqual([FORMAT_VERSION, 'kept by version 2', 8, 'high-resistance', 'v2-r1'])
  const repair = { id: 'v3-fix', at: '2026-06-01T08:00:00Z', outputId: corrected.outputId, nodeId: null, fault: 'taps-on-other-scale', note: '', who: null, withdrawn: false }
  expect(await sync(fresh('v3-0', { kind: 'repair.add', repair }), fresh('v3-1', { kind: 'repair.add', repair: { ...repair, id: 'v3-other', outputId: 'nowhere' } }))).toEqual(['applied', 'refused'])
  expect(await undoAll()).toEqual(applied('repair.add', 'node.remove', 'repair.add', 'reading.add', 'reading.add', 'speaker.set', 'job.set'))
}))

test('what version 3 kept opens; an edit of it is known as its own; a sound it did not know, and how it was taken, can be added', () => onOld(3, async ({ read, sync, undoAll }) => {
  const { job, log } = await read()
  const before = readJob(job)
  expect([job.version, job.note, log.length, before.readings.get('v3-r1')!.taken, before.readings.get('v3-r2')!.supersedes]).toEqual([FORMAT_VERSION, 'kept by version 3', 5, null, 'v3-r1'])
  const reading = { ...before.readings.get('v3-r3')!, id: 'v4-r', value: { is: 'hum' }, taken: { by: 'Iris', meter: 'blue', leadsOhm: 0 } }
  expect(await sync(...log.map(({ id: editId, by, undoes, edit }) => ({ id: editId, by, undoes, edit })), fresh('v4-e', { kind: 'reading.add', reading }))).toEqual(['known', 'known', 'known', 'known', 'known', 'applied'])
  const after = readJob((await read()).job).readings.get('v4-r')!
  expect([after.value, after.taken]).toEqual([{ is: 'hum' }, { by: 'Iris', meter: 'blue', leadsOhm: 0 }])
  expect((await undoAll()).every(step => step.endsWith(' applied'))).toBe(true)
  expect(readJob((await read()).job).note).not.toBe('kept by version 3')
}))

test('what version 4 kept opens: no speaker is of a kind, in its edits neither; a kind can be made of them; undo reaches over the change', () => onOld(4, async ({ read, sync, undoAll }) => {
  const { job, log } = await read()
  const before = readJob(job)
  expect([job.version, job.note, log.length, before.kinds, outputsOf(before).flatMap(o => speakersOf(o.wiring)).every(s => s.kindId === null)]).toEqual([FORMAT_VERSION, 'kept by version 4', 5, [], true])
  expect(await sync(...log.map(({ id: editId, by, undoes, edit }) => ({ id: editId, by, undoes, edit })))).toEqual(['known', 'known', 'known', 'known', 'known'])
  const { edit } = makeKind(before, ['v4-new'], 'x', () => 'v5-kind')!
  expect(await sync(fresh('v5-e', edit))).toEqual(['applied'])
  expect((await read()).job.kinds.map(k => k.model.name)).toEqual(['by version 4'])
  expect(await undoAll()).toEqual(applied('batch', 'output.remove', 'amplifier.add', 'batch', 'node.add', 'job.set'))
  expect((await read()).job.amplifiers).toHaveLength(before.amplifiers.length - 1)
}))

test('what version 5 kept opens: no loss is stated, in its edits neither; a kind that states one marks nothing as set by hand; a control can be put there; undo reaches over the change', () => onOld(5, async ({ read, sync, undoAll }) => {
  const { job, log } = await read()
  const before = readJob(job)
  const speakers = outputsOf(before).flatMap(o => speakersOf(o.wiring))
  const taps = speakers.flatMap(s => s.load.kind === 'tap' ? [s.load] : [])
  expect([job.version, job.note, log.length, taps.length > 10, taps.every(l => l.insertionDb === null && l.tapMeans === null), before.amplifiers.every(a => a.highPassHz === null)]).toEqual([FORMAT_VERSION, 'kept by version 5', 7, true, true, true])
  const [first] = speakers.filter(s => s.kindId === 'v5-kind')
  expect(byHand(first!, before.kinds[0]!)).toEqual([])
  expect(await sync(...log.map(({ id: editId, by, undoes, edit }) => ({ id: editId, by, undoes, edit })))).toEqual(log.map(() => 'known'))
  const put = putBefore(before, ['v5-s1', 'v5-s2'], unknownControl('C1'), () => 'v6-group')
  expect(await sync(fresh('v6-e', (put as { edit: unknown }).edit))).toEqual(['applied'])
  expect(throughsOf(readJob((await read()).job)).map(t => [t.group.id, t.through.label])).toEqual([['v5-pair', 'C1']])
  expect(await undoAll()).toEqual(applied('through.set', 'node.remove', 'output.add', 'amplifier.add', 'node.add', 'speaker.set', 'batch', 'job.set'))
  expect(readJob((await read()).job).kinds).toEqual([])
}))

test('what version 6 kept opens: no spaces, in its edits neither; a space can be drawn and a speaker of version 6 hung in it; undo reaches over the change', () => onOld(6, async ({ read, sync, undoAll }) => {
  const { job, log } = await read()
  const before = readJob(job)
  expect([job.version, job.note, log.length, before.spaces, throughsOf(before).map(t => t.through.label), before.zones.length]).toEqual([FORMAT_VERSION, 'kept by version 6', 9, [], ['C9', 'C1'], 2])
  expect(await sync(...log.map(({ id: editId, by, undoes, edit }) => ({ id: editId, by, undoes, edit })))).toEqual(log.map(() => 'known'))
  const spot = { id: 'v7-spot', xM: 1, yM: 1, heightM: null, aim: null, nodeId: 'v6-s1' }
  expect(await sync(fresh('v7-e', { kind: 'space.add', index: 0, space: { ...plainSpace('v7-space', 'Palm house'), spots: [spot] } }))).toEqual(['applied'])
  const after = readJob((await read()).job)
  expect(speakerAt(after, after.spaces[0]!.spots[0]!)?.output.label).toBe('A1')
  expect(await undoAll()).toEqual(applied('space.add', 'speaker.set', 'output.add', 'node.remove', 'amplifier.add', 'batch', 'batch', 'node.add', 'batch', 'job.set'))
  expect(readJob((await read()).job).spaces).toEqual([])
}))

test('what version 7 kept opens: one channel an output, in its edits and its variants too; a valve output of version 8 can be set; undo reaches over the change', () => onOld(7, async ({ read, sync, undoAll }) => {
  const { job, log } = await read()
  const before = readJob(job)
  const modes = [before, ...before.variants].flatMap(({ amplifiers }) => amplifiers.flatMap(a => a.outputs.map(o => o.rating.kind === 'solid-state' && o.rating.mode)))
  expect([job.version, job.note, log.length, before.practice.valve, modes.length > 4, new Set(modes), before.spaces[0]!.name]).toEqual([FORMAT_VERSION, 'kept by version 7', 9, 'match-exactly', true, new Set(['single']), 'Saloon'])
  expect(await sync(...log.map(({ id: editId, by, undoes, edit }) => ({ id: editId, by, undoes, edit })))).toEqual(log.map(() => 'known'))
  const output = before.amplifiers[0]!.outputs[0]!
  const valve = { kind: 'valve', powerW: 50, tapsOhm: [4, 8, 16], tapOhm: 8, chosenBy: null }
  expect(await sync(fresh('v8-e', { kind: 'output.set', outputId: output.id, was: { rating: output.rating }, to: { rating: valve } }))).toEqual(['applied'])
  expect(await undoAll()).toEqual(applied('output.set', 'speaker.set', 'output.set', 'variant.add', 'output.move', 'amplifier.add', 'node.add', 'space.add', 'practice.set', 'job.set'))
  expect(readJob((await read()).job).variants).toEqual([])
}))

test('what version 8 kept opens: an output plays everything and nothing feeds an amplifier, in its edits and its variants too; a band can be set; undo reaches over the change', () => onOld(8, async ({ read, sync, undoAll }) => {
  const { job, log } = await read()
  const before = readJob(job)
  const amplifiers = [before, ...before.variants].flatMap(j => j.amplifiers)
  expect([job.version, job.note, log.length, before.practice.valve, new Set(amplifiers.flatMap(a => [a.inputs.length === 0 ? null : a.inputs, a.made, ...a.outputs.map(o => o.band)]))]).toEqual([FORMAT_VERSION, 'kept by version 8', 10, 'up-is-safe', new Set([null])])
  expect(await sync(...log.map(({ id: editId, by, undoes, edit }) => ({ id: editId, by, undoes, edit })))).toEqual(log.map(() => 'known'))
  const to = { band: { system: 'Deck', fromHz: 90, toHz: null, slopeDb: null, setDb: null } }
  expect(await sync(fresh('v9-e', { kind: 'output.set', outputId: 'mg-deck', was: { band: null }, to }))).toEqual(['applied'])
  expect(await undoAll()).toEqual(applied('output.set', 'batch', 'output.move', 'amplifier.set', 'output.add', 'variant.add', 'output.set', 'amplifier.add', 'through.set', 'practice.set', 'job.set'))
  expect(readJob((await read()).job).amplifiers).toHaveLength(1)
}))

test('what version 9 kept opens: one edit of every kind is known as its own; nobody had signed in; the library’s models are brought up; undo reaches over all of it', () => onOld(9, async ({ read, sync, undoAll, query }) => {
  const { job, log } = await read()
  const before = readJob(job)
  expect([job.version, job.note, log.length, new Set(log.map(e => e.who)), [...before.readings, ...before.repairs].every(e => e.who === null)]).toEqual([FORMAT_VERSION, 'an edit of every kind', 36, new Set([null]), true])
  expect(await sync(...log.map(({ id: editId, by, undoes, edit }) => ({ id: editId, by, undoes, edit })))).toEqual(log.map(() => 'known'))
  const line = outputsOf(before)[0]!
  const reading = { id: 'v10-r', at: '2026-06-01T08:00:00Z', kind: 'line-dcr', outputId: line.id, nodeId: null, value: { is: 'open' }, note: '', frequencyHz: null, supersedes: null, taken: null, who: 'iris', withdrawn: false }
  expect(await sync({ ...fresh('v10-e', { kind: 'reading.add', reading }), who: 'iris' })).toEqual(['applied'])
  expect([readJob((await read()).job).readings.get('v10-r')!.who, (await read()).log.at(-1)!.who]).toEqual(['iris', 'iris'])
  // A row that knows fewer fields than the schema: nothing is stated there, and it can be changed.
  await query(`update model_versions set body = body - 'magnetMm' - 'plusMark' - 'scales'`)
  const { models } = await (await fetch(`${await query.url()}/api/gear/whole?kind=speaker`)).json() as { models: { id: string, version: number, body: SpeakerModel }[] }
  expect([models.length > 3, models.every(m => m.body.magnetMm === null && m.body.plusMark === '' && m.body.scales.length === 0)]).toEqual([true, true])
  const put = await fetch(`${await query.url()}/api/gear/${models[0]!.id}/versions`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ was: models[0]!.version, body: { ...models[0]!.body, remark: 'x' } }) })
  expect(put.status).toBe(200)
  const steps = await undoAll()
  expect([steps.length, steps.filter(step => !step.endsWith(' applied'))]).toEqual([37, []])
}))

test('what version 15 kept opens: what fed an amplifier comes in at one input, in its edits and its variants too; a level can be read, a map kept; undo reaches over the change', () => onOld(15, async ({ read, sync, undoAll, query }) => {
  const { job, log } = await read()
  const before = readJob(job)
  const inputs = [before, ...before.variants].flatMap(j => j.amplifiers).map(a => a.inputs)
  const fed = [{ label: '', takes: [], count: null, isOver: null, sum: null, source: { name: 'Saloon radio, line out', kind: null, isStereo: null, deviceId: null, volts: 2, ohm: 1000 } }]
  expect([job.version, before.note, log.length, inputs, before.splices.length > 5, before.splices.every(s => s.connector === null)]).toEqual([FORMAT_VERSION, 'an edit of every kind', 43, [fed], true, true])
  expect(log.filter(({ edit }) => JSON.stringify(edit).includes('"source":null'))).toEqual([])
  expect(await sync(...log.map(({ id: editId, by, undoes, edit }) => ({ id: editId, by, undoes, edit })))).toEqual(log.map(() => 'known'))
  const reading = { id: 'v16-r', at: '2026-05-05T09:30:00Z', kind: 'level', outputId: 'mg-deck', nodeId: 'mg-deck-01', value: { is: 'level', db: 81, weighting: 'A', signal: 'pink-noise', headV: null }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false }
  expect(await sync(fresh('v16-a', { kind: 'reading.add', reading }), fresh('v16-b', { kind: 'amplifier.set', amplifierId: 'mg-b', was: { inputs: fed }, to: { inputs: [] } }))).toEqual(['applied', 'applied'])
  await query(`insert into models (id, kind) values ('6ea20000-0000-4000-8500-0000000000ff', 'harness')`)
  const steps = await undoAll()
  expect([steps.length, steps.filter(step => !step.endsWith(' applied'))]).toEqual([45, []])
}))

test('the database holds what the sections say: a check a list, none of another making; one that a newer program has widened stays', () => onOld(9, async ({ query }) => {
  const wanted = TABLES.flatMap(table => constraintsOf(table).map(c => `${table.name} ${c.name}`)).sort()
  const checks = async () => (await query<{ says: string }>(`select conrelid::regclass || ' ' || conname as says from pg_constraint where contype = 'c' and conrelid in ('readings'::regclass, 'repairs'::regclass, 'leavings'::regclass) order by 1`)).map(r => r.says)
  expect((await checks()).filter(c => c !== 'readings readings_check')).toEqual(wanted)
  await query(`alter table repairs drop constraint repairs_fault_check`)
  await query(`alter table repairs add constraint repairs_fault_check check (fault in (${[...FAULT_KINDS, 'of-a-newer-program'].map(k => `'${k}'`).join(', ')}))`)
  await query(`alter table readings drop constraint readings_kind_check`)
  await query(`alter table readings add constraint readings_kind_check check (kind in ('sound', 'line-impedance', 'line-dcr', 'coil-dcr'))`)
  await query.startAnew()
  const [fault] = await query<{ says: string }>(`select pg_get_constraintdef(oid) as says from pg_constraint where conname = 'repairs_fault_check'`)
  const [kind] = await query<{ says: string }>(`select obj_description(oid, 'pg_constraint') as says from pg_constraint where conname = 'readings_kind_check'`)
  expect([fault!.says.includes('of-a-newer-program'), kind!.says]).toEqual([true, constraintsOf(TABLES[0]!).find(c => c.name === 'readings_kind_check')!.sql])
}))
