import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import './lib/project.mjs'
import { build, prepareTypes } from './lib/build.mjs'
import { needDebian, onPath } from './lib/debian.mjs'
import { needPackages } from './lib/packages.mjs'
import { startCluster } from './lib/postgres.mjs'
import { capture, show } from './lib/run.mjs'
import { main, say, seconds, step } from './lib/say.mjs'

/**
 * Everything that is tested: lint, types, unit, outside references, HTTP, starting, browser. Brings its own database cluster, build
 * folder, ports and browser profiles, so that it runs beside a started application. Its last line counts.
 *
 * With --sizes (npm run test:sizes): every view at every size and in every theme, and nothing else; some ten minutes.
 * With words (npm test -- upgrade hands): only the tests whose path has one of them, without lint and types.
 * What each stage takes stands in docs/testing.md.
 */
const JEST = 'node_modules/jest/bin/jest.js'
/** Two cores: a browser test waits as much as it works, so that two files side by side take a little more than half the time. */
const WORKERS = 2
/** Of more files than these the fault is not the machine's. */
const MOST_AGAIN = 3
/** No bound on speed: two files side by side on a busy machine take their time, and what hangs is ended all the same. */
const PATIENCE_MS = 60_000

/** Runs a checker as one test of its own. Its words are shown when it has ended: others run beside it. */
async function check(title, args) {
  const from = performance.now()
  const { code, output } = await capture(process.execPath, args)
  say(`\n${title}: ${code === 0 ? 'nothing to say' : 'failed'}, ${seconds(from)}`)
  if (code !== 0) say(output)
  return { passed: code === 0 ? 1 : 0, failed: code === 0 ? 0 : 1 }
}

/**
 * Runs jest on the tests whose path has one of the words, on these paths, or on a part of all, as 1/2. With `again`, files that failed beside others are
 * tried once more by themselves, and that is said: a page that two browsers hold up for seconds is not wrong. What fails alone is.
 */
async function jest(projects, { words = [], paths = null, part = null }, env, { workers = WORKERS, again = false } = {}) {
  const from = performance.now()
  const title = `${projects.join(', ')}${part ? `, part ${part}` : ''}`
  const report = `.build/test/report${part?.replace('/', '-of-') ?? ''}.json`
  say(`\nTests: ${title}`)
  rmSync(report, { force: true })
  const chosen = paths ? ['--runTestsByPath', ...paths] : words.length > 0 ? ['--testPathPatterns', ...words, '--passWithNoTests'] : []
  const code = await show(process.execPath, [JEST, '--selectProjects', ...projects, ...chosen, ...part ? [`--shard=${part}`] : [], '--json', `--outputFile=${report}`, `--maxWorkers=${workers}`, `--testTimeout=${PATIENCE_MS}`, '--forceExit'], {
    env: { NODE_OPTIONS: '--experimental-vm-modules --disable-warning=ExperimentalWarning', ...env },
  })
  say(`${title}: ${seconds(from)}`)
  if (!existsSync(report)) return { passed: 0, failed: 1 }
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites, testResults } = JSON.parse(readFileSync(report, 'utf8'))
  const failed = numFailedTests + numRuntimeErrorTestSuites
  const bad = testResults.filter(file => file.status === 'failed')
  if (again && bad.length > 0 && bad.length <= MOST_AGAIN) {
    const own = bad.reduce((sum, file) => sum + file.assertionResults.filter(a => a.status === 'passed').length, 0)
    say(`\nOnce more, alone: ${bad.map(file => file.name).join(', ')}`)
    const second = await jest(projects, { paths: bad.map(file => file.name) }, env, { workers: 1 })
    return { passed: numPassedTests - own + second.passed, failed: second.failed }
  }
  // A run that ended badly with no failed test (a crash) is a failure all the same. It is made to end: a failed test may leave a server behind.
  return { passed: numPassedTests, failed: code !== 0 && failed === 0 ? 1 : failed }
}

await main(async () => {
  const words = process.argv.slice(2).filter(word => word !== '--sizes')
  const isSizes = process.argv.includes('--sizes')
  const counts = []
  await needPackages({ forWork: true })
  await needDebian([
    { name: 'chromium', isThere: () => existsSync('/usr/bin/chromium') },
    { name: 'chromium-driver', isThere: () => existsSync('/usr/bin/chromedriver') },
    { name: 'ngspice', isThere: () => onPath('ngspice') },
    // Has a browser trust the authority of a test.
    { name: 'libnss3-tools', isThere: () => onPath('certutil') },
    { name: 'openssl', isThere: () => onPath('openssl') },
    { name: 'haproxy', isThere: () => existsSync('/usr/sbin/haproxy') },
  ])
  await step('Preparing the types', prepareTypes)
  mkdirSync('.build/test', { recursive: true })

  // Two lanes for two cores: the build with half of the unit tests behind it, and beside them the checkers with the other half.
  const from = performance.now()
  let entry = ''
  const isWhole = words.length === 0 && !isSizes
  const units = async part => counts.push(await jest(['unit', 'outside'], { words, part }, {}, { workers: part ? 1 : WORKERS }))
  const checks = async () => {
    if (!isWhole) return
    counts.push(await check('Lint', ['node_modules/eslint/bin/eslint.js', '.']))
    counts.push(await check('Nothing dead', ['node_modules/knip/bin/knip.js']))
    counts.push(await check('Types', ['node_modules/vue-tsc/bin/vue-tsc.js', '-b', '--noEmit']))
    await units('1/2')
  }
  const built = async () => {
    entry = await build('test')
    say(`\nBuilt: ${seconds(from)}`)
    if (!isSizes) await units(isWhole ? '2/2' : null)
  }
  await Promise.all([checks(), built()])

  const cluster = await startCluster('.data/test-postgres', { fresh: true })
  try {
    counts.push(await jest(isSizes ? ['sizes'] : ['http', 'start', 'browser'], { words }, { TEST_DATABASE_URL: cluster.url, TEST_SERVER_ENTRY: entry }, { again: true }))
  }
  finally {
    await cluster.remove()
  }

  const sum = key => counts.reduce((all, count) => all + count[key], 0)
  say(`\n${sum('passed')} passed, ${sum('failed')} failed`)
  process.exitCode = sum('failed') > 0 ? 1 : 0
})
