import { show } from './lib/run.mjs'
import { needPackages } from './lib/packages.mjs'
import { main } from './lib/say.mjs'

/** Runs some of the jest projects: node scripts/jest.mjs unit … */
await main(async () => {
  await needPackages()
  const options = { NODE_OPTIONS: '--experimental-vm-modules --disable-warning=ExperimentalWarning' }
  const projects = process.argv.slice(2).filter(a => !a.startsWith('-'))
  process.exit(await show(process.execPath, ['node_modules/jest/bin/jest.js', '--selectProjects', ...projects, ...process.argv.slice(2).filter(a => a.startsWith('-'))], { env: options }))
})
