import { spawn } from 'node:child_process'
import { accessSync, constants } from 'node:fs'
import { parseArgs } from 'node:util'
import { PROJECT } from './lib/project.mjs'
import { build } from './lib/build.mjs'
import { checkDatabaseUrl } from './lib/databaseUrl.mjs'
import { entranceWords, openEntrance, readEntrance } from './lib/entrance.mjs'
import { needDebian, onPath } from './lib/debian.mjs'
import { takeLock } from './lib/lock.mjs'
import { needPackages } from './lib/packages.mjs'
import { freePort, isFree } from './lib/port.mjs'
import { startCluster } from './lib/postgres.mjs'
import { run } from './lib/run.mjs'
import { endLeftOver, forgetRunning, noteRunning } from './lib/running.mjs'
import { Failure, main, plainly, say, step } from './lib/say.mjs'

const USUAL_PORT = 4610
const LOOPBACK = '127.0.0.1'
const HELP = `npm start -- [--port N] [--empty] [--reset-demo] [--listen ADDRESS [--name NAME]]

  --port N          serve this machine on this port (otherwise ${USUAL_PORT}, or a free one)
  --empty           do not load the demo jobs
  --reset-demo      put the demo jobs back as they were; other jobs stay
  --listen ADDRESS  let phones and other machines in, over HTTPS, on this address of the machine, as 0.0.0.0 for all;
                    each is let in by a code (docs/operations.md)
  --name NAME       what they type: a name that your network gives, or one ending in .local, which is told to the network
                    (otherwise the machine's own name with .local)
  --secure-port N   their port, which stays (otherwise 4643); the port after it tells a phone how to begin
  --certificate FILE --key FILE
                    a certificate for the name, in place of one from an authority of this machine's own
  --meter-anywhere  take bench meters at any address, not only on this machine and networks of one's own
  --balancer        a balancer before it has the certificate and passes on by plain HTTP; --name is its name
  DATABASE_URL      use this PostgreSQL server in place of a private one`

function readOptions() {
  try {
    const { values } = parseArgs({
      options: {
        'port': { type: 'string' }, 'empty': { type: 'boolean' }, 'reset-demo': { type: 'boolean' }, 'listen': { type: 'string' }, 'name': { type: 'string' }, 'secure-port': { type: 'string' }, 'certificate': { type: 'string' }, 'key': { type: 'string' },
        'balancer': { type: 'boolean' }, 'meter-anywhere': { type: 'boolean' }, 'dev': { type: 'boolean' }, 'help': { type: 'boolean' },
      },
    })
    const port = values.port === undefined ? null : Number(values.port)
    if (port !== null && !(Number.isInteger(port) && port > 0 && port < 65_536)) throw new Error(`--port takes a number from 1 to 65535, not “${values.port}”.`)
    const entrance = readEntrance(values)
    // Only a balancer is answered in plain: everybody else comes in over HTTPS, beside the loopback side of this machine itself.
    return { ...values, port, entrance, address: entrance?.isBalanced ? entrance.listen ?? LOOPBACK : LOOPBACK }
  }
  catch (error) {
    throw new Failure(`${error.message}\n\n${HELP}`)
  }
}

async function choosePort(wanted, address) {
  if (wanted !== null) {
    if (!await isFree(wanted, address)) throw new Failure(`Port ${wanted} is taken by another program. Name another: npm start -- --port ${wanted + 1}`)
    return wanted
  }
  return await isFree(USUAL_PORT, address) ? USUAL_PORT : freePort()
}

/** Ready is what our own child answers: another server on the port would answer as well. */
async function waitForAnswer(url, child) {
  const until = Date.now() + 120_000
  while (Date.now() < until) {
    if (child.exitCode !== null || child.signalCode !== null) throw new Failure(`The server ended with ${child.exitCode ?? child.signalCode}. Its words stand above.`)
    const pid = await fetch(`${url}/api/health`, { signal: AbortSignal.timeout(20_000) }).then(async r => r.ok ? (await r.json()).pid : null, () => null)
    if (pid === child.pid || (pid !== null && child.isDevelopment)) return
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  throw new Failure('The server does not answer. Its words stand above.')
}

/** Waits for what was begun before, and says so. */
async function waited(title, promise) {
  await step(title, async () => { await promise })
  return promise
}

/** Only what the server is to know of its surroundings: an address set for another program must not open this one to the network. */
function serverEnvironment({ databaseUrl, port, address, entrance, setting, standInPort, meterAnywhere }) {
  const inherited = Object.fromEntries(Object.entries(process.env).filter(([name]) => !/^(NITRO|NUXT|PLAIN_MATCH)_/.test(name)))
  const hosts = entrance ? [entrance.name, ...entrance.isBalanced && address !== LOOPBACK ? [address] : []] : []
  return {
    ...inherited, DATABASE_URL: databaseUrl, HOST: address, NITRO_HOST: address, PORT: String(port), NITRO_PORT: String(port), NUXT_TELEMETRY_DISABLED: '1',
    PLAIN_MATCH_HOSTS: hosts.join(','), PLAIN_MATCH_ENTRANCE: setting ? JSON.stringify(setting) : '', PLAIN_MATCH_BALANCER: entrance?.isBalanced ? '1' : '',
    PLAIN_MATCH_STAND_IN_METER: standInPort === null ? '' : String(standInPort), PLAIN_MATCH_METER_ANYWHERE: meterAnywhere ? '1' : '',
  }
}

const USUAL_METER_PORT = 5025

/** The simulated bench meter, for the demo. It goes when its channel to this script closes, however this ends; without it all else works. */
async function startStandIn() {
  const port = await isFree(USUAL_METER_PORT) ? USUAL_METER_PORT : await freePort()
  const meter = spawn(process.execPath, ['--import', 'tsx', 'stand-in/meter.ts', '--port', String(port)], { stdio: ['ignore', 'ignore', 'inherit', 'ipc'], detached: true })
  meter.on('error', () => {})
  meter.unref()
  meter.channel?.unref()
  return port
}

/** Calls back when the process that started this one is gone. npm passes no signal on when it is told to stop: it just goes. */
function onParentGone(callback) {
  const parent = process.ppid
  if (process.env.npm_lifecycle_event === undefined || parent === 1) return
  setInterval(() => { if (process.ppid !== parent) callback() }, 300).unref()
}

await main(async () => {
  const options = readOptions()
  if (options.help) return say(HELP)
  const lock = await takeLock()
  if (!lock.isOurs) {
    const { url, pid } = lock.state
    say(url
      ? `Plain Match is already running from this folder: ${url}\nStop it with Ctrl-C in its own terminal before starting it otherwise.`
      : `Plain Match is just being started from this folder${pid ? ` (process ${pid})` : ''}. Its address stands in that terminal when it is ready.`)
    process.exit(options.port !== null || options.empty || options['reset-demo'] ? 1 : 0)
  }

  let cluster = null
  let child = null
  let opened = null
  let ending = false
  const end = async (code) => {
    if (ending) return
    ending = true
    if (!child && !cluster) process.exit(code)
    say('\nStopping …')
    if (child && child.exitCode === null && child.signalCode === null) {
      const gone = new Promise(resolve => child.on('close', resolve))
      child.kill('SIGTERM')
      await Promise.race([gone, new Promise(resolve => setTimeout(resolve, 8000))])
      if (child.exitCode === null) child.kill('SIGKILL')
    }
    await opened?.close()
    await cluster?.stop()
    forgetRunning()
    say('Stopped. Everything is kept.')
    process.exit(code)
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0))
  // A terminal that is gone takes no more words.
  process.stdout.on('error', () => {})
  process.stderr.on('error', () => {})
  onParentGone(() => void end(0))

  try {
    // Asked first: on a disk that cannot be written to, the first folder to be made fails with other words.
    accessSync(PROJECT, constants.W_OK)
    await needPackages({ forWork: options.dev })
    await endLeftOver()
    const port = await choosePort(options.port, options.address)
    if (options.entrance) {
      if (!options.entrance.isBalanced) await needDebian([{ name: 'openssl', isThere: () => onPath('openssl') }])
      opened = await openEntrance(options.entrance)
    }
    // Built beside the database, which waits more than it works.
    const built = options.dev ? null : build('start')
    built?.catch(() => {})
    let databaseUrl = process.env.DATABASE_URL
    if (databaseUrl) await checkDatabaseUrl(databaseUrl)
    else {
      cluster = await startCluster('.data/postgres')
      databaseUrl = cluster.url
    }
    const demo = options['reset-demo'] ? 'reset' : options.empty ? 'none' : 'once'
    await step('Bringing the database up', async () => {
      const output = await run(process.execPath, ['--import', 'tsx', 'scripts/prepare-database.ts', demo], { env: { DATABASE_URL: databaseUrl } })
      return output.trim().split('\n').at(-1)
    })
    const url = `http://${options.address === '0.0.0.0' || options.address === '::' ? LOOPBACK : options.address}:${port}`
    const standInPort = demo === 'none' ? null : await startStandIn()
    const { address, entrance, 'meter-anywhere': meterAnywhere } = options
    const env = serverEnvironment({ databaseUrl, port, address, entrance, setting: opened?.setting, standInPort, meterAnywhere })
    const entry = built ? await waited('Building the application', built) : 'node_modules/nuxt/bin/nuxt.mjs'
    if (ending) return
    // In a group of its own: Ctrl-C reaches this script alone, which then stops both in order. The channel tells it when this script is gone.
    child = spawn(process.execPath, options.dev ? [entry, 'dev', '--host', options.address, '--port', String(port)] : [entry], {
      env, stdio: ['ignore', options.dev ? 'inherit' : 'ignore', 'inherit', 'ipc'], detached: true,
    })
    child.isDevelopment = options.dev
    child.on('close', code => void (ending || end(code || 1)))
    noteRunning({ pid: process.pid, serverPid: child.pid, entry })
    await step('Starting the application', () => waitForAnswer(url, child))
    lock.say({ url })
    if (opened) say(entranceWords(opened.setting))
    say(`\nPlain Match is ready:  ${url}\nStop it with Ctrl-C.`)
  }
  catch (error) {
    process.stderr.write(`\n${plainly(error)}\n`)
    await end(1)
  }
})
