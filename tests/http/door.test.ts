import { execFileSync } from 'node:child_process'
import { createHash, randomUUID, X509Certificate } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { request } from 'node:https'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { connect } from 'node:tls'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import pg from 'pg'
import { FORMAT_VERSION } from '#core/job/schema'
import { jobOf } from '#core/testing/jobs'
import { writeJobFile } from '#core/format/plainMatch'
import { needsOf, RULES } from '../../server/door/rules'
import { ensureAuthority, NAME, TestEntrance } from '../support/entrance'
import { asking, makeDatabase, startServer, type RunningServer, type TestDatabase } from '../support/server'

/** Who comes in from the network, and nobody else: every address with no key, with one, with one that was taken back, from a foreign page. */

let database: TestDatabase
let server: RunningServer
let second: RunningServer
let entrance: TestEntrance
let other: TestEntrance
const here = asking(() => server.url)
beforeAll(async () => {
  database = await makeDatabase()
  entrance = await TestEntrance.make()
  other = await TestEntrance.make()
  server = await startServer(database.url, undefined, undefined, entrance.env)
  // Two servers on one database behave as one, at the door as well.
  second = await startServer(database.url, undefined, undefined, other.env)
}, 120_000)
afterAll(async () => {
  await Promise.all([server.stop(), second.stop()])
  await database.drop()
  entrance.remove()
  other.remove()
}, 60_000)

const rows = async <T>(sql: string): Promise<T[]> => {
  const client = new pg.Client({ connectionString: database.url })
  await client.connect()
  try {
    return (await client.query(sql)).rows as T[]
  }
  finally {
    await client.end()
  }
}
const newCode = async (mayLetIn = false) => (await here('POST', '/devices/code', { mayLetIn })).body.code as string
const comeIn = (code: string, name: string, by = entrance) => by.ask('POST', '/api/devices/let-in', { body: { code, name } })
const keyOf = (cookies: string[]) => cookies[0]!.split(';')[0]!
async function letIn(name: string, mayLetIn = false): Promise<{ key: string, id: string }> {
  const { status, cookies, body } = await comeIn(await newCode(mayLetIn), name)
  expect([name, status]).toEqual([name, 200])
  return { key: keyOf(cookies), id: body.device.id as string }
}
const someOther = (code: string) => String((Number(code) + 1) % 1_000_000).padStart(6, '0')

/** The routes that there are, as the framework reads them off the names of files. */
function routes(folder = 'server/api', at = '/api'): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const part = (name: string) => name.replace(/^\[(\w+)\]$/, ':$1')
    if (entry.isDirectory()) return routes(`${folder}/${entry.name}`, `${at}/${part(entry.name)}`)
    const [, name, method] = /^(.+)\.(\w+)\.ts$/.exec(entry.name) ?? []
    return name && method ? [`${method.toUpperCase()} ${name === 'index' ? at : `${at}/${part(name)}`}`] : []
  }).sort()
}
const walked = routes().map(rule => [rule, RULES[rule]] as const)
/** With something in each place; nothing of it is there, and what is asked for at the door comes before that is known. */
const pathOf = (rule: string) => rule.split(' ')[1]!.replace(':id', randomUUID()).replace(':hash', 'a'.repeat(64))
const methodOf = (rule: string) => rule.split(' ')[0]!
const askRule = (rule: string, more: Parameters<TestEntrance['ask']>[2] = {}) =>
  entrance.ask(methodOf(rule), pathOf(rule), { ...(['POST', 'PATCH'].includes(methodOf(rule)) ? { body: {} } : {}), ...more })

describe('every address hangs on the one list of rules', () => {
  let desk: { key: string }, phone: { key: string }, gone: { key: string, id: string }
  beforeAll(async () => {
    desk = await letIn('Office', true)
    phone = await letIn('Anna’s phone')
    gone = await letIn('Lost phone')
    expect((await here('DELETE', `/devices/${gone.id}`)).status).toBe(200)
  }, 60_000)

  test('each route has its rule, and each rule its route', () => {
    expect(Object.keys(RULES).sort()).toEqual(routes())
    expect(walked.length).toBeGreaterThan(25)
  })
  test.each(walked)('%s (%s)', async (rule, needs) => {
    const code = (answer: { status: number, body: any }) => `${answer.status} ${answer.body.error?.code ?? ''}`.trim()
    const isOpen = needs === 'nothing'
    const isMe = rule.endsWith('/me')
    // A stream that is opened does not end: it is walked below.
    const isStream = rule.endsWith('/live')
    const answers = {
      none: code(await askRule(rule)), gone: code(await askRule(rule, { key: gone.key })), wrong: code(await askRule(rule, { key: phone.key.replace(/.$/, l => l === 'A' ? 'B' : 'A') })),
    }
    if (!isOpen || isMe) expect(answers).toEqual({ none: '401 not-let-in', gone: '401 taken-back', wrong: '401 not-let-in' })
    else expect(Object.values(answers).every(a => !a.startsWith('401'))).toBe(true)
    if (!isStream) {
      const phones = code(await askRule(rule, { key: phone.key }))
      if (needs === 'may let in') expect(phones).toBe('403 not-yours')
      else expect([phones.startsWith('401'), phones.startsWith('403 not')]).toEqual([false, false])
      if (rule !== 'DELETE /api/devices/:id') expect(/^40[13]/.test(code(await askRule(rule, { key: desk.key }))) && !rule.endsWith('let-in')).toBe(false)
    }
    // A foreign page and a foreign name come to nothing even with a key.
    if (!['GET', 'HEAD'].includes(methodOf(rule))) expect(code(await askRule(rule, { key: desk.key, headers: { origin: 'https://elsewhere.example' } }))).toBe('403 from-elsewhere')
    expect((await askRule(rule, { key: desk.key, headers: { host: 'elsewhere.example' } })).status).toBe(421)
  })
  test('an address that is written otherwise, one that is none, and this machine’s own name from the network are asked as well', async () => {
    for (const path of ['//api/jobs', '/api//jobs', '/api/jobs/', '/api/./jobs', '/%61pi/jobs', '/API/jobs', '/api/nothing', '/api/jobs/%2e%2e/gear', '/api\\jobs']) {
      const { body } = await entrance.ask('GET', path)
      expect([path, JSON.stringify(body).includes('"jobs"'), JSON.stringify(body).includes('"models"')]).toEqual([path, false, false])
    }
    expect((await entrance.ask('GET', '/api/jobs', { headers: { host: '127.0.0.1' } })).status).toBe(401)
    expect([needsOf('GET', '/api/devices/me?x=1'), needsOf('DELETE', '/api/devices/code'), needsOf('GET', '/api/whatever')]).toEqual(['nothing', 'may let in', 'let in'])
  })
  test('at this machine nothing is asked; a page and what it is made of is open', async () => {
    expect([(await here('GET', '/jobs')).status, (await here('GET', '/devices/me')).body, (await entrance.ask('GET', '/')).status]).toEqual([200, { device: null, mayLetIn: true }, 200])
  })
})

describe('a code', () => {
  const said = async (code: string, name: string, by = entrance) => {
    const { status, body } = await comeIn(code, name, by)
    return `${status} ${body.error?.code ?? 'in'}`
  }
  test('lets one device in, once, on whichever server', async () => {
    const code = await newCode()
    expect(await said(`${code.slice(0, 3)} ${code.slice(3)}`, 'First', other)).toBe('200 in')
    expect(await said(code, 'Second')).toBe('403 no-code')
  })
  test('asked by twenty at once it lets one in', async () => {
    const code = await newCode()
    const all = await Promise.all(Array.from({ length: 20 }, (_, k) => said(code, `Racer ${k}`, k % 2 === 0 ? entrance : other)))
    expect(all.filter(a => a === '200 in').length).toBe(1)
  })
  test('five wrong tries end it, from whichever server; the right one comes too late', async () => {
    const code = await newCode()
    const tries = []
    for (let k = 0; k < 5; k++) tries.push((await comeIn(someOther(code), 'Guess', k % 2 === 0 ? entrance : other)).body.error.message)
    expect(tries.map(t => /(\d) (?:try|tries)/.exec(t)?.[1] ?? 'over')).toEqual(['4', '3', '2', '1', 'over'])
    expect(await said(code, 'Guess')).toBe('403 no-code')
  })
  test.each<[string, (code: string) => Promise<unknown>]>([
    ['when its ten minutes are over', () => database.query(`update door_codes set expires_at = now() where used_by is null and expires_at > now()`)],
    ['when another is shown', () => newCode()], ['when it is hidden', () => here('DELETE', '/devices/code')],
  ])('lets nobody in %s', async (_, after) => {
    const code = await newCode()
    const [{ s }] = await rows<{ s: number }>(`select extract(epoch from max(expires_at) - max(made_at))::int as s from door_codes`) as [{ s: number }]
    expect(s).toBe(600)
    await after(code)
    expect(['403 no-code', '403 wrong-code']).toContain(await said(code, 'Late'))
  })
  test('a name that is in is refused and costs no try; one of a device that was taken back is free', async () => {
    const { id } = await letIn('Van')
    const code = await newCode()
    for (let k = 0; k < 6; k++) expect(await said(code, 'VAN')).toBe('409 name-taken')
    await here('DELETE', `/devices/${id}`)
    expect(await said(code, 'Van')).toBe('200 in')
  })
  test.each([['', '422 not-valid'], ['  ', '422 not-valid'], ['x'.repeat(41), '422 not-valid'], ['left‮right', '422 not-valid']])('a name of “%s” is refused', async (name, answer) => {
    expect(await said(await newCode(), name)).toBe(answer)
  })
  test.each(['12345', '1234567', 'abcdef', ''])('“%s” is no code and costs no try', async (code) => {
    await newCode()
    expect(await said(code, 'Any')).toBe('422 not-valid')
    expect((await rows<{ tries_left: number }>('select tries_left from door_codes order by id desc limit 1'))[0]!.tries_left).toBe(5)
  })
})

test('the key is for this name alone, seen by no script, and in the database only as a hash', async () => {
  const { cookies, body } = await comeIn(await newCode(), 'Kept')
  const [pair, ...flags] = cookies[0]!.split('; ')
  expect([cookies.length, pair!.startsWith('__Host-'), flags.sort()]).toEqual([1, true, ['HttpOnly', 'Max-Age=34560000', 'Path=/', 'SameSite=Strict', 'Secure']])
  const value = pair!.split('=')[1]!
  const [row] = await rows<{ hash: string }>(`select encode(key_hash, 'hex') as hash from devices where id = '${body.device.id}'`)
  expect([row!.hash, value.length]).toEqual([createHash('sha256').update(value).digest('hex'), 43])
  const everything = JSON.stringify(await rows('select devices.*, door_codes.* from devices, door_codes'))
  expect(everything.includes(value)).toBe(false)
})

test('what a device does bears it, whatever it says of itself; at this machine what is said stays', async () => {
  const { key, id } = await letIn('Worker')
  const jobId = randomUUID()
  await here('POST', '/jobs', { id: jobId, from: 'file', text: writeJobFile(jobOf('4 x 5 W on 70 V 60 W')) })
  const { body: { job: { name } } } = await here('GET', `/jobs/${jobId}`)
  const edit = (editId: string, was: string, to: string) => ({ since: 0, by: 'w', version: FORMAT_VERSION, edits: [{ id: editId, by: 'w', who: 'somebody', undoes: null, edit: { kind: 'job.set', was: { name: was }, to: { name: to } } }] })
  const spoof = { 'x-plain-match-device': 'somebody' }
  expect((await entrance.ask('POST', `/api/jobs/${jobId}/sync`, { key, headers: spoof, body: edit('e1', name, 'A') })).status).toBe(200)
  await here('POST', `/jobs/${jobId}/sync`, edit('e2', 'A', 'B'))
  expect(await rows(`select id, who from edits where job_id = '${jobId}' order by seq`)).toEqual([{ id: 'e1', who: id }, { id: 'e2', who: 'somebody' }])
})

test('a device that is taken back: its stream ends at once, on the other server too, and its next request is refused', async () => {
  const { key, id } = await letIn('Stream')
  const stream = (by: TestEntrance) => new Promise<string>((resolve, reject) => {
    let text = ''
    const outgoing = request({ host: '127.0.0.1', port: by.port, servername: NAME, ca: readFileSync(by.files.authorityFile), path: '/api/live', headers: { host: `${NAME}:${by.port}`, cookie: key } }, (incoming) => {
      incoming.on('data', chunk => text += String(chunk))
      incoming.on('end', () => resolve(text))
    })
    outgoing.on('error', reject)
    outgoing.end()
  })
  const both = [stream(entrance), stream(other)]
  await new Promise(resolve => setTimeout(resolve, 1500))
  await here('DELETE', `/devices/${id}`)
  for (const text of await Promise.all(both)) expect(text.trim().split('\n\n').at(-1)).toContain('event: taken-back')
  expect((await other.ask('GET', '/api/jobs', { key })).body.error.code).toBe('taken-back')
  expect((await here('DELETE', `/devices/${id}`)).status).toBe(404)
}, 30_000)

test('behind a balancer nobody is at the machine: whoever is passed on in plain is asked', async () => {
  const behind = await startServer(database.url, undefined, undefined, { PLAIN_MATCH_BALANCER: '1', PLAIN_MATCH_HOSTS: 'match.example' })
  try {
    const { status, body } = await asking(() => behind.url)('GET', '/jobs')
    expect([status, body.error.code]).toEqual([401, 'not-let-in'])
  }
  finally {
    await behind.stop()
  }
}, 60_000)

describe('the authority', () => {
  const folder = mkdtempSync(join(tmpdir(), 'authority-'))
  afterAll(() => rmSync(folder, { recursive: true, force: true }))
  const openssl = (...args: string[]) => {
    try {
      return execFileSync('openssl', args, { cwd: folder, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] })
    }
    catch (error) {
      return String((error as { stderr: string }).stderr)
    }
  }
  const days = (file: string) => (Date.parse(new X509Certificate(readFileSync(file)).validTo) - Date.now()) / 86_400_000

  test('vouches for its name, by the strict rules of another program; its keys are this user’s alone', async () => {
    const { authorityFile, certificateFile, keyFile, fingerprint } = await ensureAuthority(folder, NAME)
    expect(openssl('verify', '-x509_strict', '-purpose', 'sslserver', '-verify_hostname', NAME, '-CAfile', authorityFile, certificateFile)).toContain('OK')
    expect([keyFile, join(folder, 'authority.key')].map(file => statSync(file).mode & 0o777)).toEqual([0o600, 0o600])
    expect(openssl('x509', '-in', authorityFile, '-noout', '-fingerprint', '-sha256')).toContain(fingerprint)
  })
  test.each([['another name', 'DNS:bank.example', /permitted subtree violation/], ['an address', 'IP:192.0.2.7', /excluded subtree violation/]])('can vouch for nothing else: %s', async (_, subject, refused) => {
    const { authorityFile } = await ensureAuthority(folder, NAME)
    writeFileSync(join(folder, 'false.cnf'), `subjectAltName = ${subject}\n`)
    openssl('req', '-new', '-key', 'server.key', '-subj', '/CN=false', '-out', 'false.csr')
    openssl('x509', '-req', '-in', 'false.csr', '-CA', authorityFile, '-CAkey', 'authority.key', '-extfile', 'false.cnf', '-out', 'false.crt')
    expect(openssl('verify', '-CAfile', authorityFile, 'false.crt')).toMatch(refused)
  })
  test.each<[string, number, string[]]>([
    ['fresh', 0, []], ['61 days before its end', 139, []], ['59 days before its end', 141, ['certificate']], ['after its end', 300, ['certificate']], ['the authority’s own last year', 3300, ['authority', 'certificate']],
  ])('is renewed in time: %s', async (_, days, anew) => {
    rmSync(folder, { recursive: true, force: true })
    await ensureAuthority(folder, NAME)
    expect((await ensureAuthority(folder, NAME, Date.now() + days * 86_400_000)).anew).toEqual(anew)
  })
  test('another name is another authority', async () => expect((await ensureAuthority(folder, 'other.local')).anew).toEqual(['authority', 'certificate']))

  const served = () => new Promise<string>((resolve, reject) => {
    const socket = connect({ host: '127.0.0.1', port: entrance.port, servername: NAME, ca: readFileSync(entrance.files.authorityFile) }, () => {
      resolve(socket.getPeerCertificate().serialNumber)
      socket.destroy()
    })
    socket.on('error', reject)
  })
  test('a certificate near its end is renewed and taken while people are connected', async () => {
    await ensureAuthority(entrance.folder, NAME, Date.now() + 145 * 86_400_000, 30)
    expect(days(entrance.files.certificateFile)).toBeLessThan(31)
    await new Promise(resolve => setTimeout(resolve, 1200))
    const short = await served()
    expect((await ensureAuthority(entrance.folder, NAME)).anew).toEqual(['certificate'])
    await new Promise(resolve => setTimeout(resolve, 1200))
    expect([await served() === short, days(entrance.files.certificateFile) > 190, (await entrance.ask('GET', '/api/health')).status]).toEqual([false, true, 200])
  }, 20_000)
})

test('how a phone begins: one page and the certificate over plain HTTP, and nothing else', async () => {
  const at = `http://127.0.0.1:${entrance.firstPort}`
  const page = await (await fetch(at)).text()
  expect([page.includes(entrance.files.fingerprint.replaceAll(':', ' ').slice(0, 23)), page.includes(entrance.origin)]).toEqual([true, true])
  const taken = await fetch(`${at}/plain-match.crt`)
  expect([taken.headers.get('content-type'), new X509Certificate(await taken.text()).fingerprint256]).toEqual(['application/x-x509-ca-cert', entrance.files.fingerprint])
  expect(await Promise.all([['GET', '/api/jobs'], ['GET', '/api/devices/me'], ['POST', '/'], ['GET', '/authority.key'], ['GET', '/../server.key']].map(async ([method, path]) => (await fetch(at + path!, { method: method! })).status))).toEqual([404, 404, 405, 404, 404])
})
