import { createHash } from 'node:crypto'
import { spawnSync } from 'node:child_process'
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { needDebian, onPath } from './debian.mjs'
import { freePort } from './port.mjs'
import { run } from './run.mjs'
import { say, step } from './say.mjs'

const asRoot = process.getuid?.() === 0
/** Where the server refuses to run as root, it runs as the user that Debian's package makes. */
const SERVER_USER = 'postgres'

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

/** A private cluster, made where missing and started on a free loopback port. */
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
      await server('initdb', ['-D', data, '-U', 'app', '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8'], { advice: 'If the disk is full, make room; then run the same again.' })
    })
  }
  const running = runningPort(data)
  if (running !== null && await answers(data)) return { data, port: running, ...handle(data, running) }
  const port = await freePort()
  const options = [`-c listen_addresses=127.0.0.1`, `-c port=${port}`, `-c unix_socket_directories=''`, ...(fresh ? ['-c fsync=off'] : [])].join(' ')
  await step('Starting the database', async () => {
    await server('pg_ctl', ['-D', data, '-w', '-t', '60', '-l', join(data, 'server.log'), '-o', options, 'start'], { advice: `Its log: ${join(data, 'server.log')}` })
  })
  return { data, port, ...handle(data, port) }
}

function handle(data, port) {
  return {
    url: database => `postgres://app@127.0.0.1:${port}/${database}`,
    stop: () => server('pg_ctl', ['-D', data, '-m', 'fast', '-w', 'stop']).catch(() => undefined),
    remove: () => removeCluster(data),
  }
}

async function removeCluster(data) {
  if (!existsSync(data)) return
  if (await answers(data)) await server('pg_ctl', ['-D', data, '-m', 'immediate', '-w', 'stop']).catch(() => undefined)
  rmSync(data, { recursive: true, force: true })
}

/** Port in the server's own note of its running; null when it left none. */
function runningPort(data) {
  const note = join(data, 'postmaster.pid')
  if (!existsSync(note)) return null
  const port = Number(readFileSync(note, 'utf8').split('\n')[3])
  return Number.isInteger(port) && port > 0 ? port : null
}

function answers(data) {
  return server('pg_ctl', ['-D', data, 'status']).then(() => true, () => false)
}
