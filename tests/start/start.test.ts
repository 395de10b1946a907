import { execFileSync, spawnSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, readlinkSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import multicastDns from 'multicast-dns'
import { unstatedModel } from '#core/gear/models'
import { FORMAT_VERSION } from '#core/job/schema'
import { Checkout, until } from '../support/checkout'
import { freePort, makeDatabase } from '../support/server'
import { fillAsVersion } from '../support/oldVersion'

/** npm start, as it is started, stopped and killed. One copy of the project; the tests go on from one another's data. */

let checkout: Checkout
beforeAll(() => { checkout = new Checkout() }, 60_000)
afterAll(() => checkout.remove(), 60_000)

const health = (url: string) => fetch(`${url}/api/health`).then(r => r.ok, () => false)
const jobNames = async (url: string) => (await (await fetch(`${url}/api/jobs?sort=name`)).json() as { jobs: { name: string }[] }).jobs.map(j => j.name)
const DEMO = ['Bandstand, Mill Meadow', 'Excursion boat Marigold', 'Fernhollow Glasshouses', 'Rehearsal loft']
const port = async () => ['--port', String(await freePort())]
const isRoot = process.getuid?.() === 0
/** Addresses on which somebody listens at a port. */
const listeningAt = (port: string) => ['tcp', 'tcp6'].flatMap(kind => readFileSync(`/proc/net/${kind}`, 'utf8').split('\n').map(l => l.trim().split(/\s+/))
  .flatMap(c => c[3] === '0A' && c[1]?.endsWith(`:${Number(port).toString(16).toUpperCase().padStart(4, '0')}`) ? [c[1].split(':')[0]] : []))

test('started from another folder: it works in its own, on loopback alone whatever the environment says; TERM ends all of it', async () => {
  const args = await port()
  const started = checkout.start(args, { env: { NITRO_HOST: '0.0.0.0', HOST: '0.0.0.0', NITRO_PORT: '1' } })
  const url = await started.url()
  expect([await health(url), await jobNames(url), readdirSync(checkout.elsewhere)]).toEqual([true, DEMO, []])
  // Listening addresses as the system tells them: 0100007F is 127.0.0.1.
  expect(listeningAt(args[1]!)).toEqual(['0100007F'])
  started.child.kill('SIGTERM')
  expect([await started.ended(), /Stopped. Everything is kept/.test(started.log), await until(() => checkout.processes().length === 0)]).toEqual([0, true, true])
  expect(existsSync(join(checkout.folder, '.data/running.json'))).toBe(false)
}, 120_000)

test('through npm: TERM to npm ends application and database, though npm passes nothing on', async () => {
  const started = checkout.start(await port(), { by: 'npm' })
  await started.url()
  expect(checkout.processes().length).toBeGreaterThan(2)
  started.child.kill('SIGTERM')
  await started.ended()
  expect(await until(() => checkout.processes().length === 0, 20_000)).toBe(true)
}, 120_000)

describe('others are let in over HTTPS, under one lasting name', () => {
  test.each<[string[], RegExp]>([
    [['--name', 'rack.local'], /--name is for a server that lets others in/], [['--listen', '127.0.0.2', '--name', '10.0.0.7'], /Numbers do not last/], [['--listen', '127.0.0.2', '--name', 'a b'], /takes a name/],
    [['--listen', '127.0.0.2', '--secure-port', '0'], /takes a number/], [['--listen', '127.0.0.2', '--certificate', 'x'], /go together/],
    [['--listen', '127.0.0.2', '--certificate', 'nowhere.crt', '--key', 'nowhere.key', '--name', 'rack.local'], /no file/], [['--balancer'], /--name says/], [['--dev', '--listen', '127.0.0.2'], /goes without --listen/],
  ])('%j is refused in words', async (args, words) => {
    const started = checkout.start([...await port(), ...args])
    expect([await started.ended(), words.test(started.log)]).toEqual([1, true])
  }, 60_000)
  test('its name is answered on the network, its authority vouches, a code lets in; a port that is taken is an error, never another port', async () => {
    const secure = await freePort()
    const args = ['--listen', '127.0.0.2', '--name', 'rack-of-a-test.local', '--secure-port', String(secure)]
    const started = checkout.start([...await port(), ...args])
    const url = await started.url()
    expect(started.log).toContain(`https://rack-of-a-test.local:${secure}`)
    expect(readdirSync(join(checkout.folder, '.data/authority')).filter(f => f.endsWith('.key')).map(f => statSync(join(checkout.folder, '.data/authority', f)).mode & 0o777)).toEqual([0o600, 0o600])
    // As another machine of the network asks for the name (RFC 6762).
    const found = new Promise<string>((resolve) => {
      const network = multicastDns()
      network.on('response', ({ answers }) => answers.forEach((a) => { if (a.type === 'A' && a.name === 'rack-of-a-test.local') network.destroy(() => resolve(a.data)) }))
      network.query('rack-of-a-test.local', 'A')
    })
    expect(await found).toBe('127.0.0.2')
    const ask = (path: string) => execFileSync('curl', ['-s', '--cacert', join(checkout.folder, '.data/authority/authority.crt'), '--resolve', `rack-of-a-test.local:${secure}:127.0.0.2`, `https://rack-of-a-test.local:${secure}${path}`], { encoding: 'utf8' })
    expect([JSON.parse(ask('/api/jobs')).error.code, JSON.parse(ask('/api/health')).ok]).toEqual(['not-let-in', true])
    const shown = execFileSync('npm', ['run', '--silent', 'let-in'], { cwd: checkout.folder, encoding: 'utf8', env: { ...process.env, NODE_OPTIONS: '', DATABASE_URL: '' } })
    expect(shown).toMatch(/Code {2}\d{3} \d{3} {3}until/)
    const busy = new Checkout()
    try {
      const second = busy.start([...await port(), ...args])
      expect([await second.ended(), /is taken by another program/.test(second.log)]).toEqual([1, true])
    }
    finally {
      await busy.remove()
    }
    expect(await health(url)).toBe(true)
    await started.end('SIGTERM')
  }, 120_000)
})

describe('two starts one second apart', () => {
  test.each([['on one port', true], ['on two ports', false]])('%s: the second says so and ends, and takes nothing from the first', async (_, isSame) => {
    const args = await port()
    const first = checkout.start(args)
    await new Promise(resolve => setTimeout(resolve, 1000))
    const second = checkout.start(isSame ? args : await port())
    expect([await second.ended(), /just being started|already running/.test(second.log), /ready:/.test(second.log)]).toEqual([1, true, false])
    const url = await first.url()
    const third = checkout.start([])
    await third.says(/already running from this folder: http/)
    await third.end('SIGINT')
    expect([await health(url), await jobNames(url)]).toEqual([true, DEMO])
    await first.end('SIGTERM')
  }, 120_000)
})

test('killed without a word: its server goes by itself, the next start takes the database over and has everything', async () => {
  const first = checkout.start(await port())
  const url = await first.url()
  const id = '3b0f1a52-7c1d-4b52-9a53-0b6b8f1f2a77'
  await fetch(`${url}/api/jobs`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ id, from: 'nothing', name: 'Kept' }) })
  first.child.kill('SIGKILL')
  expect(await until(async () => !await health(url))).toBe(true)
  const next = checkout.start(await port())
  expect(await jobNames(await next.url())).toContain('Kept')
  await next.end('SIGTERM')
  expect(await until(() => checkout.processes().length === 0)).toBe(true)
}, 120_000)

test('its database killed: it is started again within seconds, the server goes on, and nothing that was answered is lost', async () => {
  const started = checkout.start(await port())
  const url = await started.url()
  const make = (id: string, name: string) =>
    fetch(`${url}/api/jobs`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ id, from: 'nothing', name }) }).then(r => r.ok, () => false)
  expect(await make('3b0f1a52-7c1d-4b52-9a53-0b6b8f1f2a78', 'Before')).toBe(true)
  for (const round of [1, 2]) {
    const first = checkout.processes().find(pid => /\/postgres$/.test(readlinkSync(`/proc/${pid}/exe`)) && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('-D'))!
    process.kill(first, 'SIGKILL')
    expect(await until(async () => !await health(url), 5000)).toBe(true)
    expect([round, await until(() => health(url), 30_000)]).toEqual([round, true])
  }
  await started.says(/The database is gone: starting it again[^]*The database is there again/)
  expect(await make('3b0f1a52-7c1d-4b52-9a53-0b6b8f1f2a79', 'After')).toBe(true)
  expect(await jobNames(url)).toEqual(expect.arrayContaining(['After', 'Before']))
  await started.end('SIGTERM')
  expect(await until(() => checkout.processes().length === 0)).toBe(true)
}, 120_000)

test('starter, server and database killed in one moment while windows are at work, twice: all that was answered is there once', async () => {
  const at = await port()
  const post = (url: string, path: string, body: unknown) =>
    fetch(`${url}/api${path}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }).then(r => r.ok, () => false)
  const [id, answered, models] = ['3b0f1a52-7c1d-4b52-9a53-0b6b8f1f2a80', [] as string[], [] as string[]]
  for (const round of [0, 1, 2]) {
    const started = checkout.start(at)
    const url = await started.url()
    if (round === 0) await post(url, '/jobs', { id, from: 'nothing', name: 'All at once' })
    const { log } = await (await fetch(`${url}/api/jobs/${id}?by=w`)).json() as { log: { id: string }[] }
    const there = new Set(log.map(entry => entry.id))
    const { rows } = await (await fetch(`${url}/api/gear?kind=cable`)).json() as { rows: { id: string }[] }
    expect([answered.filter(e => !there.has(e)), models.filter(m => !rows.some(r => r.id === m))]).toEqual([[], []])
    if (round === 2) {
      await started.end('SIGTERM')
      break
    }
    let isOver = false
    const windows = [0, 1].map(async (w) => {
      for (let k = 0; !isOver; k++) {
        const [edit, model] = [`r${round}w${w}e${k}`, randomUUID()]
        const variant = { kind: 'variant.add', index: 0, variant: { id: edit, name: edit, at: '2026-05-04T09:30:00Z', amplifiers: [] } }
        const adding = { id: edit, by: 'w', who: null, undoes: null, edit: { kind: 'batch', edits: [variant, { kind: 'variant.remove', variantId: edit, was: variant.variant }] } }
        if (await post(url, `/jobs/${id}/sync`, { since: 0, by: 'w', version: FORMAT_VERSION, edits: [adding] })) answered.push(edit)
        const add = { do: 'add', models: [{ id: model, kind: 'cable', body: unstatedModel('cable', edit) }] }
        if (await post(url, '/gear/acts', { id: randomUUID(), act: add })) models.push(model)
        await new Promise(resolve => setTimeout(resolve, 60))
      }
    })
    await new Promise(resolve => setTimeout(resolve, 1200 + 400 * round))
    for (const pid of checkout.processes()) {
      try {
        process.kill(pid, 'SIGKILL')
      }
      catch {
        // It went with one that was killed before it.
      }
    }
    isOver = true
    await Promise.all(windows)
    expect([answered.length > 8 * (round + 1), models.length > 8 * (round + 1)]).toEqual([true, true])
    await started.ended()
  }
}, 120_000)

test('a server that was left over all the same is ended by the next start', async () => {
  const first = checkout.start(await port())
  await first.url()
  const note = JSON.parse(readFileSync(join(checkout.folder, '.data/running.json'), 'utf8')) as { serverPid: number }
  // Stopped in its tracks it cannot hear that its starter is gone.
  process.kill(note.serverPid, 'SIGSTOP')
  first.child.kill('SIGKILL')
  await first.ended()
  const next = checkout.start(await port())
  await next.url()
  // Ended at once; that it is no longer listed is up to the system, which may take a moment.
  expect(await until(() => !existsSync(`/proc/${note.serverPid}`))).toBe(true)
  await next.end('SIGTERM')
}, 120_000)

describe('a DATABASE_URL that cannot be used is said in one plain line', () => {
  const cluster = () => new URL(process.env.TEST_DATABASE_URL!)
  const other = (change: (url: URL) => void) => {
    const url = cluster()
    change(url)
    return url.href
  }
  test.each<[string, () => string, RegExp]>([
    ['no server there', () => 'postgres://app@127.0.0.1:1/x', /no PostgreSQL server answers at 127\.0\.0\.1:1/],
    ['no such machine', () => 'postgres://app@no-such-host.invalid/x', /no PostgreSQL server answers at no-such-host\.invalid:5432/],
    ['no such database', () => other((u) => { u.pathname = '/no_such' }), /no database “no_such”/],
    ['no such role', () => other((u) => { u.username = 'nobody_known' }), /no role “nobody_known”/],
    ['nonsense', () => 'a place for data', /is not an address/],
    ['of another kind', () => 'mysql://x@y/z', /should begin with postgres:/],
  ])('%s', async (_, url, says) => {
    const started = checkout.start(await port(), { env: { DATABASE_URL: url() } })
    expect(await started.ended()).toBe(1)
    const lines = started.log.split('\n').filter(l => /DATABASE_URL/.test(l))
    expect([lines.length, says.test(lines[0] ?? started.log), /\n\s+at /.test(started.log)]).toEqual([1, true, false])
  }, 60_000)
})

test('on a read-only disk: one plain line, and nothing else', async () => {
  const started = checkout.start(await port(), { by: 'script on a read-only disk' })
  expect([await started.ended(), started.log.trim()]).toEqual([1, `${checkout.folder}/ cannot be written to: the disk is read-only. Start it from a folder of your own.`])
}, 30_000)

test('a folder of somebody else’s, a full disk: one plain line each', () => {
  const script = `import { plainly } from '${join(checkout.folder, 'scripts/lib/say.mjs')}'
    for (const code of ['EACCES', 'ENOSPC']) console.log(plainly(Object.assign(new Error('x'), { code, path: '/some/where' })))`
  const lines = execFileSync(process.execPath, ['--input-type=module', '-e', script], { encoding: 'utf8' }).trim().split('\n')
  expect(lines).toEqual([expect.stringMatching(/not allowed to this user/), expect.stringMatching(/disk is full/)])
})

test.each<[string, string[], RegExp]>([
  ['that a newer version has brought up', ['create table migrations (id serial, name text, batch integer, migration_time timestamptz)', `insert into migrations (name) values ('001-jobs'), ('999-of-later')`],
    /^The database was brought up by a newer version of this program \(999-of-later\): start that version, or a newer one\.$/],
  ['whose role may make nothing', ['revoke create on schema public from public, pg_database_owner'], /^The role “app” may make no tables in the database “test_\w+”: let its owner run “grant create on schema public to app”/],
])('a database %s: one sentence', async (_, prepare, says) => {
  const database = await makeDatabase()
  for (const sql of prepare) await database.query(sql)
  const started = checkout.start(await port(), { env: { DATABASE_URL: database.url } })
  expect(await started.ended()).toBe(1)
  const lines = started.log.split('\n').filter(Boolean)
  expect([lines.filter(line => says.test(line)).length, /\n\s+at /.test(started.log)]).toEqual([1, false])
  await database.drop()
}, 60_000)

describe('the private cluster', () => {
  test('another user of the machine cannot enter it; the application’s role rules nothing', async () => {
    const started = checkout.start(await port())
    await started.url()
    const data = join(checkout.folder, '.data/postgres')
    const options = readFileSync(join(data, 'postmaster.opts'), 'utf8')
    const [socket, at] = [/unix_socket_directories=([^"\s]+)/.exec(options)![1]!, /port=(\d+)/.exec(options)![1]!]
    const psql = (user: string, role: string, sql: string, host = socket, password = '') => spawnSync(isRoot ? 'runuser' : 'sh', isRoot
      ? ['-u', user, '--', 'psql', '-w', '-h', host, '-p', at, '-U', role, '-d', 'plain_match', '-Atc', sql]
      : ['-c', `psql -w -h ${host} -p ${at} -U ${role} -d plain_match -Atc "${sql}"`], { encoding: 'utf8', cwd: '/', env: { ...process.env, PGPASSWORD: password } })
    if (isRoot) for (const role of ['app', 'keeper']) expect(psql('nobody', role, 'select 1').status).not.toBe(0)
    // By its address: on loopback alone, the application's role alone, with the password of the file alone, which nobody else may read.
    const file = join(checkout.folder, '.data/postgres.password')
    const password = readFileSync(file, 'utf8').trim()
    expect([listeningAt(at), (statSync(file).mode & 0o777).toString(8), password.length]).toEqual([['0100007F'], '600', 64])
    const enter = (role: string, secret: string) => psql(isRoot ? 'nobody' : '', role, 'select 1', '127.0.0.1', secret).status === 0
    expect([enter('app', ''), enter('app', 'x'.repeat(64)), enter('keeper', ''), enter('keeper', password), enter('app', password)]).toEqual([false, false, false, false, true])
    expect(psql('postgres', 'keeper', `select rolpassword like 'SCRAM-SHA-256$%' from pg_authid where rolname = 'app'`).stdout.trim()).toBe('t')
    expect(psql('postgres', 'app', 'select rolsuper::text || rolcreaterole || rolcreatedb from pg_roles where rolname = current_user').stdout.trim()).toBe('falsefalsefalse')
    expect(psql('postgres', 'app', 'select count(*) > 3 from pg_tables where tableowner = current_user').stdout.trim()).toBe('t')
    await started.end('SIGTERM')
  }, 120_000)

  test('one that version 1 made, where the application ruled and everybody came in, is closed and brought up with all that is in it', async () => {
    const data = join(checkout.folder, '.data/postgres')
    rmSync(data, { recursive: true })
    const bin = `/usr/lib/postgresql/${readdirSync('/usr/lib/postgresql').sort().at(-1)!}/bin`
    const asServer = (...command: string[]) => execFileSync(isRoot ? 'runuser' : command[0]!, isRoot ? ['-u', 'postgres', '--', ...command] : command.slice(1), { cwd: '/', stdio: 'ignore' })
    if (isRoot) execFileSync('install', ['-d', '-o', 'postgres', '-m', '700', data])
    asServer(`${bin}/initdb`, '-D', data, '-U', 'app', '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8')
    const oldPort = await freePort()
    asServer(`${bin}/pg_ctl`, '-D', data, '-w', '-l', join(data, 'server.log'), '-o', `-c listen_addresses=127.0.0.1 -c port=${oldPort} -c unix_socket_directories=''`, 'start')
    const { jobId } = await fillAsVersion(1, `postgres://app@127.0.0.1:${oldPort}/postgres`)
    // As if its start had been killed: it still runs, open to all.
    const started = checkout.start(await port())
    const url = await started.url()
    expect((await (await fetch(`${url}/api/jobs/${jobId}`)).json() as { job: { name: string } }).job.name).toBe('Fernhollow, as version 1 kept it')
    expect(await fetch(`http://127.0.0.1:${oldPort}`).then(() => 'open', () => 'closed')).toBe('closed')
    await started.end('SIGTERM')
    // And once more, from what that made of it.
    const again = checkout.start(await port())
    expect((await jobNames(await again.url())).sort()).toEqual([...DEMO, 'Fernhollow, as version 1 kept it'].sort())
    await again.end('SIGTERM')
  }, 120_000)
})
