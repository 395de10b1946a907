import { existsSync, statSync } from 'node:fs'
import { run } from './run.mjs'
import { step } from './say.mjs'

/** Written last by an installation: what lies in node_modules belongs to this lock. */
const INSTALLED = 'node_modules/.package-lock.json'
/** A package that only the tests and checks use. */
const FOR_WORK = 'node_modules/jest/package.json'

/**
 * Installs the locked packages when they are missing or the lock is newer. To run the application takes 750 of the 1,060:
 * a first start gets those (16 s in place of 26), and whoever works on it gets the others with the first test.
 */
export async function needPackages({ forWork = false } = {}) {
  const isFresh = existsSync(INSTALLED) && statSync(INSTALLED).mtimeMs >= statSync('package-lock.json').mtimeMs
  if (isFresh && (!forWork || existsSync(FOR_WORK))) return
  // Once the others are there they stay, and are brought up with the rest.
  const isForWork = forWork || existsSync(FOR_WORK)
  await step('Installing the locked packages', async () => {
    await run('npm', ['ci', ...isForWork ? [] : ['--omit=dev'], '--no-audit', '--no-fund'], {
      advice: 'Look at the lines above; with no network reach, packages cannot be had. Then run the same again.',
    })
  })
}
