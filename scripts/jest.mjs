import './lib/project.mjs'
import { show } from './lib/run.mjs'
import { needPackages } from './lib/packages.mjs'
import { main } from './lib/say.mjs'

/** Runs jest projects, or those of their tests whose path has one of the words: node scripts/jest.mjs unit,outside trace */
await main(async () => {
  await needPackages({ forWork: true })
  const options = { NODE_OPTIONS: '--experimental-vm-modules --disable-warning=ExperimentalWarning' }
  const [projects = 'unit', ...rest] = process.argv.slice(2)
  const [words, flags] = [rest.filter(a => !a.startsWith('-')), rest.filter(a => a.startsWith('-'))]
  process.exit(await show(process.execPath, ['node_modules/jest/bin/jest.js', '--selectProjects', ...projects.split(','), ...flags, ...(words.length > 0 ? ['--testPathPatterns', ...words] : [])], { env: options }))
})
