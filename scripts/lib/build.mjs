import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { run } from './run.mjs'

/** All that the built application is made from. */
const SOURCES = ['app', 'core', 'demo', 'public', 'server', 'nuxt.config.ts', 'package.json', 'package-lock.json']

function digest() {
  const hash = createHash('sha256')
  const visit = (path) => {
    if (!existsSync(path)) return
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) visit(join(path, name))
      return
    }
    if (path.endsWith('.test.ts')) return
    hash.update(path).update('\0').update(readFileSync(path))
  }
  SOURCES.forEach(visit)
  return hash.digest('hex')
}

const NUXT = 'node_modules/nuxt/bin/nuxt.mjs'
const NUXT_ENV = { NUXT_TELEMETRY_DISABLED: '1' }

/** Writes the type configuration in .nuxt that tsconfig.json refers to: the bundler reads it too. */
export async function prepareTypes() {
  await run(process.execPath, [NUXT, 'prepare'], { env: NUXT_ENV })
}

/**
 * Builds the application for one purpose when its sources changed since the last build for it. Each purpose has its own
 * folder, so that the tests never pull files from under a running application. Says nothing: others may go on meanwhile.
 * @returns the server's entry file
 */
export async function build(purpose) {
  const folder = `.build/${purpose}`
  const entry = join(folder, 'output/server/index.mjs')
  const stamp = join(folder, 'sources')
  const now = digest()
  if (existsSync(entry) && existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return entry
  rmSync(stamp, { force: true })
  mkdirSync(folder, { recursive: true })
  if (!existsSync('.nuxt/tsconfig.app.json')) await prepareTypes()
  await run(process.execPath, [NUXT, 'build'], {
    env: { ...NUXT_ENV, PLAIN_MATCH_BUILD: folder, NODE_ENV: 'production' },
    advice: 'If the memory ran out, close other programs; then run the same again.',
  })
  writeFileSync(stamp, now)
  return entry
}
