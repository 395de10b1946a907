import { existsSync } from 'node:fs'
import { delimiter } from 'node:path'
import { run } from './run.mjs'
import { Failure, step } from './say.mjs'

export function onPath(command) {
  return (process.env.PATH ?? '').split(delimiter).some(folder => existsSync(`${folder}/${command}`))
}

/** Gets Debian packages where their `isThere` says they are missing: as root it installs, otherwise it says the one command. */
export async function needDebian(wanted) {
  const missing = wanted.filter(({ isThere }) => !isThere()).map(({ name }) => name)
  if (missing.length === 0) return
  const command = `apt-get update && apt-get install -y --no-install-recommends ${missing.join(' ')}`
  if (process.getuid?.() !== 0) {
    throw new Failure(`Missing: ${missing.join(', ')}. Install with:\n\n  sudo sh -c '${command}'\n\nthen run the same again.`)
  }
  if (!onPath('apt-get')) throw new Failure(`Missing: ${missing.join(', ')}. This machine has no apt-get: install them its own way, then run the same again.`)
  await step(`Installing ${missing.join(', ')} from Debian's packages`, async () => {
    const env = { DEBIAN_FRONTEND: 'noninteractive' }
    const advice = `Try it by hand: ${command}`
    await run('apt-get', ['update', '-qq'], { env, advice })
    await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], { env, advice })
  })
}
