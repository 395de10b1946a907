import './lib/project.mjs'
import { build } from './lib/build.mjs'
import { needPackages } from './lib/packages.mjs'
import { startCluster } from './lib/postgres.mjs'
import { show } from './lib/run.mjs'
import { main, step } from './lib/say.mjs'

/**
 * Runs a program on a server and database of its own: benchmarks/main.ts, scripts/pictures.ts. Needs what npm test has fetched (chromium, ngspice).
 * With --no-server, on a database alone.
 */
await main(async () => {
  await needPackages({ forWork: true })
  let entry = ''
  if (!process.argv.includes('--no-server')) await step('Building the application', async () => { entry = await build('test') })
  const cluster = await startCluster('.data/bench-postgres', { fresh: true })
  try {
    process.exitCode = await show(process.execPath, ['--import', 'tsx', process.argv[2]], { env: { TEST_DATABASE_URL: cluster.url, TEST_SERVER_ENTRY: entry } })
  }
  finally {
    await cluster.remove()
  }
})
