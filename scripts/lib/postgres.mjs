import { createHash, randomBytes } from 'node:crypto'
import { spawnSync } from 'node:child_process'
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { needDebian, onPath } from './debian.mjs'
import { freePort } from './port.mjs'
import { run } from './run.mjs'
import { say, step } from './say.mjs'

/**
 * A private database cluster. It listens on the loopback address and nowhere else, and lets in the application's role alone, by a password that
 * lies in a file which only its owner may read; besides, on a socket in a folder that is closed to all others, for its own housekeeping. The
 * application's role owns its own database and rules nothing else.
 */
const asRoot = process.getuid?.() === 0
/** Where the server refuses to run as root, it runs as the user that Debian's package makes. */
const SERVER_USER = 'postgres'
/** The cluster's ruler: makes roles and databases, and is used for nothing else. */
const RULER = 'keeper'
const APP = 'app'
const DATABASE = 'plain_match'
/** Clusters of version 1 kept everything here, with the application as their ruler. */
const OLD_DATABASE = 'postgres'
const LOOPBACK = '127.0.0.1'
/** The system takes no longer path for a socket. */
const LONGEST_SOCKET = 100

/** Folder of initdb and pg_ctl; null when there is no server here. */
function serverBin() {
  const root = '/usr/lib/postgresql'
  const versions = existsSync(root) ? readdirSync(root).filter(v => existsSync(`${root}/${v}/bin/initdb`)) : []
  const newest = versions.sort((a, b) => Number(b) - Number(a))[0]
  if (newest) return `${root}/${newest}/bin`
  return onPath('initdb') && onPath('pg_ctl') ? '' : null
}

function server(tool, args, options = {}) {
  const command = join(serverBin() ?? '', tool)
  return asRoot
    ? run('runuser', ['-u', SERVER_USER, '--', command, ...args], { cwd: '/', ...options })
    : run(command, args, options)
}

/** Where the cluster lies: in the project's data folder; below a path closed to the server's user, in a folder of the system's. */
function placeFor(folder) {
  const wanted = resolve(folder)
  if (!asRoot) return wanted
  const reaches = spawnSync('runuser', ['-u', SERVER_USER, '--', 'test', '-x', resolve(wanted, '..')], { cwd: '/' }).status === 0
  if (reaches) return wanted
  const other = `/var/lib/plain-match/${createHash('sha256').update(wanted).digest('hex').slice(0, 12)}`
  mkdirSync('/var/lib/plain-match', { recursive: true })
  chmodSync('/var/lib/plain-match', 0o755)
  say(`The user ${SERVER_USER} cannot enter ${resolve(wanted, '..')}: the database lies in ${other}.`)
  return other
}

/** The folder of the socket: the cluster's own, which is closed to others; where its path is too long, one like it. */
async function socketFolder(data) {
  if (join(data, '.s.PGSQL.65535').length <= LONGEST_SOCKET) return { folder: data, remove: () => {} }
  const folder = mkdtempSync(join(tmpdir(), 'plain-match-'))
  if (asRoot) await run('chown', [SERVER_USER, folder])
  return { folder, remove: () => rmSync(folder, { recursive: true, force: true }) }
}

/**
 * Who may enter, written anew with each start: a cluster of an older version, which let in whoever could reach it, is closed by this as well. By
 * the address the application's role, by its password; by the socket its ruler, who has none, and whom no address lets in.
 */
async function whoMayEnter(data) {
  const file = join(data, 'who-may-enter.conf')
  writeFileSync(file, `local all all trust\nhost all ${APP} ${LOOPBACK}/32 scram-sha-256\n`, { mode: 0o600 })
  if (asRoot) await run('chown', [SERVER_USER, file])
  return file
}

/** The application's password: made at first, kept beside the cluster. A file that others could read is not trusted any more. */
function passwordIn(file) {
  if (existsSync(file) && (statSync(file).mode & 0o077) === 0) {
    const kept = readFileSync(file, 'utf8').trim()
    if (/^[0-9a-f]{64}$/.test(kept)) return kept
  }
  const password = randomBytes(32).toString('hex')
  rmSync(file, { force: true })
  writeFileSync(file, `${password}\n`, { mode: 0o600 })
  return password
}

/** Must hold the folder's lock: it makes, starts, and later stops the cluster. One that a killed start left running is taken over. */
export async function startCluster(folder, { fresh = false } = {}) {
  await needDebian([{ name: 'postgresql', isThere: () => serverBin() !== null }])
  mkdirSync(resolve(folder, '..'), { recursive: true })
  const data = placeFor(folder)
  if (fresh) await removeCluster(data)
  if (!existsSync(join(data, 'PG_VERSION'))) {
    await step('Making a private database cluster', async () => {
      rmSync(data, { recursive: true, force: true })
      if (asRoot) await run('install', ['-d', '-o', SERVER_USER, '-m', '700', data])
      else mkdirSync(data, { recursive: true, mode: 0o700 })
      await server('initdb', ['-D', data, '-U', RULER, '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8'], { advice: 'If the disk is full, make room; then run the same again.' })
    })
  }
  if (await isRunning(data)) await stop(data)
  const socket = await socketFolder(data)
  const port = await freePort()
  const options = [
    `-c listen_addresses=${LOOPBACK}`, `-c port=${port}`, `-c unix_socket_directories='${socket.folder}'`, '-c unix_socket_permissions=0700',
    '-c password_encryption=scram-sha-256', `-c hba_file='${await whoMayEnter(data)}'`, ...(fresh ? ['-c fsync=off'] : []),
  ].join(' ')
  const start = () => server('pg_ctl', ['-D', data, '-w', '-t', '60', '-l', join(data, 'server.log'), '-o', options, 'start'], { advice: `Its log: ${join(data, 'server.log')}` })
  await step('Starting the database', start)
  const urlAs = (role, database) => `postgres://${role}@localhost/${database}?host=${encodeURIComponent(socket.folder)}&port=${port}`
  const password = passwordIn(`${resolve(folder)}.password`)
  await prepareRoles(urlAs, password, fresh)
  // A cluster of the tests is killed and frozen by them, and stays so.
  const keeper = fresh ? null : keepUp(data, start)
  return {
    url: `postgres://${APP}:${password}@${LOOPBACK}:${port}/${DATABASE}`,
    stop: async () => {
      await keeper?.end()
      await stop(data)
      socket.remove()
    },
    remove: async () => {
      await removeCluster(data)
      socket.remove()
    },
  }
}

/** The application's role and its database, made where missing; a cluster of version 1 is brought to the same. `mayCreate` is for tests. */
async function prepareRoles(urlAs, password, mayCreate) {
  const { default: pg } = await import('pg')
  const as = async (role, database, work) => {
    const client = new pg.Client({ connectionString: urlAs(role, database), connectionTimeoutMillis: 8000 })
    await client.connect()
    try {
      return await work(async (sql, values) => (await client.query(sql, values)).rows)
    }
    finally {
      await client.end()
    }
  }
  const isNew = await as(RULER, 'template1', async () => true).catch((error) => {
    if (error.code === '28000') return false
    throw error
  })
  if (!isNew) await dethrone(as)
  await as(RULER, 'template1', async (query) => {
    if ((await query('select 1 from pg_roles where rolname = $1', [APP])).length === 0) await query(`create role ${APP} login nosuperuser nocreaterole ${mayCreate ? 'createdb' : 'nocreatedb'}`)
    // Letters and digits alone: it needs no quoting.
    await query(`alter role ${APP} password '${password}'`)
    if ((await query('select 1 from pg_database where datname = $1', [DATABASE])).length === 0) await query(`create database ${DATABASE} owner ${APP} encoding 'UTF8' template template0`)
  })
}

/** Version 1 ran everything as the cluster's first role. That becomes the ruler; what was the application's goes to a role that rules nothing. */
async function dethrone(as) {
  const HELPER = 'mover'
  await as(APP, 'template1', async (query) => {
    if ((await query('select 1 from pg_roles where rolname = $1', [HELPER])).length === 0) await query(`create role ${HELPER} login superuser`)
  })
  await as(HELPER, 'template1', query => query(`alter role ${APP} rename to ${RULER}`))
  await as(RULER, OLD_DATABASE, async (query) => {
    await query(`drop role ${HELPER}`)
    await query(`create role ${APP} login nosuperuser nocreaterole nocreatedb`)
    const relations = await query(`select c.oid::regclass::text as name from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind in ('r', 'S')
      and not exists (select 1 from pg_depend d where d.objid = c.oid and d.deptype in ('a', 'i'))`)
    for (const { name } of relations) await query(`alter table ${name} owner to ${APP}`)
    await query(`alter schema public owner to ${APP}`)
  })
  // A database cannot be renamed from within; the old name goes back to being nobody's.
  await as(RULER, 'template1', async (query) => {
    await query(`alter database ${OLD_DATABASE} rename to ${DATABASE}`)
    await query(`alter database ${DATABASE} owner to ${APP}`)
    await query(`create database ${OLD_DATABASE} template template0`)
  })
}

const LOOK_MS = 1000

/** Looks each second whether the server is there; where it was killed it is started again, with all that is on its disk. */
function keepUp(data, start) {
  let starting = null
  let isSaid = false
  const again = async () => {
    if (!isSaid) say('The database is gone: starting it again …')
    isSaid = true
    // Memory of the one that was killed may still be in use for a moment: then in a second once more.
    await start().then(() => {
      say('The database is there again.')
      isSaid = false
    }, () => {})
    starting = null
  }
  const timer = setInterval(() => { if (!starting && !isAlive(data)) starting = again() }, LOOK_MS)
  return {
    end: async () => {
      clearInterval(timer)
      await starting
    },
  }
}

/** Whether the server's first process runs: its number stands in the first line of its own file. */
function isAlive(data) {
  try {
    process.kill(Number(readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')[0]), 0)
    return true
  }
  catch (error) {
    return error.code === 'EPERM'
  }
}

function stop(data) {
  return server('pg_ctl', ['-D', data, '-m', 'fast', '-w', 'stop']).catch(() => undefined)
}

async function removeCluster(data) {
  if (!existsSync(data)) return
  if (await isRunning(data)) await server('pg_ctl', ['-D', data, '-m', 'immediate', '-w', 'stop']).catch(() => undefined)
  rmSync(data, { recursive: true, force: true })
}

function isRunning(data) {
  return server('pg_ctl', ['-D', data, 'status']).then(() => true, () => false)
}
