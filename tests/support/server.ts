import { spawn, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { createServer } from 'node:net'
import pg from 'pg'

/** The built application on a database of its own, started and stopped by a test. The cluster and the build are named by scripts/test.mjs. */

const required = (name: string) => {
  const value = process.env[name]
  if (!value) throw new Error(`${name} is not set: run these tests with npm test`)
  return value
}

export interface TestDatabase { url: string, query: (sql: string) => Promise<void>, drop: () => Promise<void> }

/** A fresh, empty database on the tests' cluster. */
export async function makeDatabase(): Promise<TestDatabase> {
  const admin = required('TEST_DATABASE_URL')
  const name = `test_${randomUUID().replaceAll('-', '')}`
  const run = async (url: string, sql: string) => {
    const client = new pg.Client({ connectionString: url })
    await client.connect()
    try {
      await client.query(sql)
    }
    finally {
      await client.end()
    }
  }
  await run(admin, `create database ${name}`)
  const url = new URL(admin)
  url.pathname = `/${name}`
  return { url: url.href, query: sql => run(url.href, sql), drop: () => dropped(() => run(admin, `drop database if exists ${name} with (force)`)) }
}

/** The cluster's own housekeeping may be in the database just then; only a ruler could end it, and it ends by itself. */
async function dropped(drop: () => Promise<void>): Promise<void> {
  for (let tries = 0; ; tries++) {
    try {
      return await drop()
    }
    catch (error) {
      if ((error as { code?: string }).code !== '42501' || tries > 60) throw error
      await new Promise(resolve => setTimeout(resolve, 500))
    }
  }
}

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer()
    server.on('error', reject)
    server.listen(0, '127.0.0.1', () => {
      const address = server.address()
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0))
    })
  })
}

/** Asks a server of the API: the status, and the body where it is JSON, else its text. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
interface Answered { status: number, body: any }
export const asking = (at: () => string) => async (method: string, path: string, body?: unknown): Promise<Answered> => {
  const response = await fetch(`${at()}/api${path}`, { method, headers: { 'content-type': 'application/json' }, body: body === undefined ? undefined : JSON.stringify(body) })
  const text = await response.text()
  return { status: response.status, body: text.startsWith('{') ? JSON.parse(text) : text }
}

export interface RunningServer { url: string, pid: number, log: () => string, stop: (signal?: NodeJS.Signals) => Promise<void> }

export async function startServer(databaseUrl: string, port?: number, patienceMs = 60_000, env: Record<string, string> = {}): Promise<RunningServer> {
  const chosen = port ?? await freePort()
  const child: ChildProcess = spawn(process.execPath, [env.TEST_SERVER_ENTRY ?? required('TEST_SERVER_ENTRY')], {
    env: { ...process.env, NODE_OPTIONS: '', DATABASE_URL: databaseUrl, HOST: '127.0.0.1', PORT: String(chosen), NODE_ENV: 'production', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let log = ''
  child.stdout?.on('data', chunk => log += String(chunk))
  child.stderr?.on('data', chunk => log += String(chunk))
  const url = `http://127.0.0.1:${chosen}`
  const until = Date.now() + patienceMs
  while (!await fetch(`${url}/api/health`).then(r => r.ok, () => false)) {
    if (child.exitCode !== null || Date.now() > until) {
      child.kill('SIGKILL')
      throw new Error(`the server did not come up:\n${log}`)
    }
    await new Promise(resolve => setTimeout(resolve, 80))
  }
  return {
    url,
    pid: child.pid!,
    log: () => log,
    stop: (signal = 'SIGTERM') => new Promise((resolve) => {
      if (child.exitCode !== null || child.signalCode !== null) return resolve()
      const last = setTimeout(() => child.kill('SIGKILL'), 8000)
      child.on('close', () => {
        clearTimeout(last)
        resolve()
      })
      child.kill(signal)
    }),
  }
}
