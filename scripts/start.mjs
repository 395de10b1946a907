import { spawn } from 'node:child_process'
import { parseArgs } from 'node:util'
import { build } from './lib/build.mjs'
import { needPackages } from './lib/packages.mjs'
import { freePort, isFree } from './lib/port.mjs'
import { startCluster } from './lib/postgres.mjs'
import { run } from './lib/run.mjs'
import { forgetRunning, noteRunning, runningApplication } from './lib/running.mjs'
import { Failure, main, say, step } from './lib/say.mjs'

const USUAL_PORT = 4610
const HELP = `npm start -- [--port N] [--empty] [--reset-demo]

  --port N       serve on this port of 127.0.0.1 (otherwise ${USUAL_PORT}, or a free one)
  --empty        do not load the demo jobs
  --reset-demo   put the demo jobs back as they were; other jobs stay
  DATABASE_URL   use this PostgreSQL server in place of a private one`

function readOptions() {
  try {
    const { values } = parseArgs({
      options: { 'port': { type: 'string' }, 'empty': { type: 'boolean' }, 'reset-demo': { type: 'boolean' }, 'dev': { type: 'boolean' }, 'help': { type: 'boolean' } },
    })
    const port = values.port === undefined ? null : Number(values.port)
    if (port !== null && !(Number.isInteger(port) && port > 0 && port < 65_536)) throw new Error(`--port takes a number from 1 to 65535, not “${values.port}”.`)
    return { ...values, port }
  }
  catch (error) {
    throw new Failure(`${error.message}\n\n${HELP}`)
  }
}

async function choosePort(wanted) {
  if (wanted !== null) {
    if (!await isFree(wanted)) throw new Failure(`Port ${wanted} is taken by another program. Name another: npm start -- --port ${wanted + 1}`)
    return wanted
  }
  return await isFree(USUAL_PORT) ? USUAL_PORT : freePort()
}

async function waitForAnswer(url, child) {
  const until = Date.now() + 120_000
  while (Date.now() < until) {
    if (child.exitCode !== null) throw new Failure(`The server ended with ${child.exitCode}. Its words stand above.`)
    const ok = await fetch(`${url}/api/health`, { signal: AbortSignal.timeout(20_000) }).then(r => r.ok, () => false)
    if (ok) return
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  throw new Failure('The server does not answer. Its words stand above.')
}

await main(async () => {
  const options = readOptions()
  if (options.help) return say(HELP)
  const running = await runningApplication()
  if (running) {
    say(`Plain Match is already running from this folder: ${running.url}\nStop it with Ctrl-C in its own terminal before starting it otherwise.`)
    process.exit(options.port !== null || options.empty || options['reset-demo'] ? 1 : 0)
  }

  let cluster = null
  let child = null
  let ending = false
  const end = async (code) => {
    if (ending) return
    ending = true
    say('\nStopping …')
    if (child && child.exitCode === null) {
      const gone = new Promise(resolve => child.on('close', resolve))
      child.kill('SIGTERM')
      await Promise.race([gone, new Promise(resolve => setTimeout(resolve, 8000))])
      if (child.exitCode === null) child.kill('SIGKILL')
    }
    await cluster?.stop()
    forgetRunning()
    say('Stopped. Everything is kept.')
    process.exit(code)
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0))

  try {
    await needPackages()
    const port = await choosePort(options.port)
    let databaseUrl = process.env.DATABASE_URL
    if (!databaseUrl) {
      cluster = await startCluster('.data/postgres')
      databaseUrl = cluster.url('postgres')
    }
    const demo = options['reset-demo'] ? 'reset' : options.empty ? 'none' : 'once'
    await step('Bringing the database up', async () => {
      const output = await run(process.execPath, ['--import', 'tsx', 'scripts/prepare-database.ts', demo], {
        env: { DATABASE_URL: databaseUrl }, advice: process.env.DATABASE_URL ? 'Is DATABASE_URL right, and the server there?' : '',
      })
      return output.trim().split('\n').at(-1)
    })
    const url = `http://127.0.0.1:${port}`
    const env = { ...process.env, DATABASE_URL: databaseUrl, HOST: '127.0.0.1', PORT: String(port), NUXT_TELEMETRY_DISABLED: '1' }
    const command = options.dev
      ? ['node_modules/nuxt/bin/nuxt.mjs', 'dev', '--host', '127.0.0.1', '--port', String(port)]
      : [await build('start')]
    if (ending) return
    // In a group of its own: Ctrl-C reaches this script alone, which then stops both in order.
    child = spawn(process.execPath, command, { env, stdio: ['ignore', options.dev ? 'inherit' : 'ignore', 'inherit'], detached: true })
    child.on('close', code => void (ending || end(code || 1)))
    await step('Starting the application', () => waitForAnswer(url, child))
    noteRunning(url)
    say(`\nPlain Match is ready:  ${url}\nStop it with Ctrl-C.`)
  }
  catch (error) {
    process.stderr.write(`\n${error instanceof Failure ? error.message : error.stack}\n`)
    await end(1)
  }
})
