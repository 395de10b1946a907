import './lib/project.mjs'
import { prepareTypes } from './lib/build.mjs'
import { needPackages } from './lib/packages.mjs'
import { show } from './lib/run.mjs'
import { main } from './lib/say.mjs'

/** Checks the types of everything: npm run test:types */
await main(async () => {
  await needPackages({ forWork: true })
  await prepareTypes()
  process.exit(await show(process.execPath, ['node_modules/vue-tsc/bin/vue-tsc.js', '-b', '--noEmit']))
})
