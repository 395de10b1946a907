import { existsSync, statSync } from 'node:fs'
import { run } from './run.mjs'
import { step } from './say.mjs'

/** Installs the locked packages when they are missing or the lock is newer. */
export async function needPackages() {
  const installed = 'node_modules/.package-lock.json'
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync('package-lock.json').mtimeMs) return
  await step('Installing the locked packages', async () => {
    await run('npm', ['ci', '--no-audit', '--no-fund'], { advice: 'Look at the lines above; with no network reach, packages cannot be had. Then run the same again.' })
  })
}
