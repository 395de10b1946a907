import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import './lib/project.mjs'
import { build, prepareTypes } from './lib/build.mjs'
import { needDebian, onPath } from './lib/debian.mjs'
import { needPackages } from './lib/packages.mjs'
import { startCluster } from './lib/postgres.mjs'
import { show } from './lib/run.mjs'
import { main, say, step } from './lib/say.mjs'

/**
 * Everything that is tested: lint, types, unit, outside references, HTTP, browser. Brings its own database cluster, build
 * folder, ports and browser profile, so that it runs beside a started application. Its last line counts.
 */
const REPORT = '.build/test/report.json'
const JEST = ['node_modules/jest/bin/jest.js']

/** Runs a checker as one test of its own. */
async function check(title, args) {
  say(`\n${title}`)
  const code = await show(process.execPath, args)
  if (code !== 0) say(`${title} failed`)
  return { passed: code === 0 ? 1 : 0, failed: code === 0 ? 0 : 1 }
}

async function jest(projects, env) {
  say(`\nTests: ${projects.join(', ')}`)
  rmSync(REPORT, { force: true })
  const code = await show(process.execPath, [...JEST, '--selectProjects', ...projects, '--json', `--outputFile=${REPORT}`, '--runInBand', '--forceExit'], {
    env: { NODE_OPTIONS: '--experimental-vm-modules --disable-warning=ExperimentalWarning', ...env },
  })
  if (!existsSync(REPORT)) return { passed: 0, failed: 1 }
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(readFileSync(REPORT, 'utf8'))
  const failed = numFailedTests + numRuntimeErrorTestSuites
  // A run that ended badly with no failed test (a crash) is a failure all the same. It is made to end: a failed test may leave a server behind.
  return { passed: numPassedTests, failed: code !== 0 && failed === 0 ? 1 : failed }
}

await main(async () => {
  const counts = []
  await needPackages()
  await needDebian([
    { name: 'chromium', isThere: () => existsSync('/usr/bin/chromium') },
    { name: 'chromium-driver', isThere: () => existsSync('/usr/bin/chromedriver') },
    { name: 'ngspice', isThere: () => onPath('ngspice') },
  ])
  await step('Preparing the types', prepareTypes)
  counts.push(await check('Lint', ['node_modules/eslint/bin/eslint.js', '.']))
  counts.push(await check('Nothing dead', ['node_modules/knip/bin/knip.js']))
  counts.push(await check('Types', ['node_modules/vue-tsc/bin/vue-tsc.js', '-b', '--noEmit']))

  mkdirSync('.build/test', { recursive: true })
  counts.push(await jest(['unit', 'outside'], {}))

  const entry = await build('test')
  const cluster = await startCluster('.data/test-postgres', { fresh: true })
  try {
    counts.push(await jest(['http', 'start', 'browser'], { TEST_DATABASE_URL: cluster.url, TEST_SERVER_ENTRY: entry }))
  }
  finally {
    await cluster.remove()
  }

  const sum = key => counts.reduce((all, count) => all + count[key], 0)
  say(`\n${sum('passed')} passed, ${sum('failed')} failed`)
  process.exitCode = sum('failed') > 0 ? 1 : 0
})
