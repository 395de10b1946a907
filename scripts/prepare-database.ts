import { BENCH_ID } from '#core/job/bench'
import { demoJobs } from '../demo'
import { demoBench } from '../demo/bench'
import { demoGear } from '../demo/gear'
import { connect, migrate } from '../server/database/connect'
import { insertModels } from '../server/gear/repository'
import { deleteJobs, findJob, readSetting, writeSetting } from '../server/jobs/repository'
import { createJob } from '../server/jobs/service'
import { DatabaseUnfit } from '../server/database/unfit'

/** Migrates, and loads the demo: `once` (unless it was loaded before), `reset` (puts it back as it was), `none`. */
const DEMO_LOADED = 'demo-loaded'
/** The library came later: a database that had the demo before gets it all the same. */
const GEAR_LOADED = 'gear-loaded'
const BENCH_LOADED = 'bench-loaded'

async function prepare(mode: string): Promise<string> {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set.')
  const db = connect(url)
  try {
    const ran = await migrate(url)
    const told = [ran.length > 0 ? `${ran.length} migrated` : 'up to date']
    if (mode === 'reset' || (mode === 'once' && !await readSetting(db, DEMO_LOADED))) {
      await db.transaction(async (trx) => {
        if (mode === 'reset') await deleteJobs(trx, demoJobs.map(d => d.id))
        for (const { id, job } of demoJobs) await createJob(trx, id, job)
        await writeSetting(trx, DEMO_LOADED, true)
      })
      told.push(mode === 'reset' ? 'demo put back' : 'demo loaded')
    }
    if (mode === 'reset' || (mode === 'once' && !await readSetting(db, GEAR_LOADED))) {
      await db.transaction(async (trx) => {
        await insertModels(trx, demoGear)
        await writeSetting(trx, GEAR_LOADED, true)
      })
    }
    if (mode === 'reset' || (mode === 'once' && !await readSetting(db, BENCH_LOADED))) {
      await db.transaction(async (trx) => {
        // A bench that somebody has written on stays as it is.
        if (mode === 'reset' || (await findJob(trx, BENCH_ID))?.revision === 0) {
          await deleteJobs(trx, [BENCH_ID])
          await createJob(trx, BENCH_ID, demoBench)
        }
        await writeSetting(trx, BENCH_LOADED, true)
      })
    }
    return told.join(', ')
  }
  finally {
    await db.destroy()
  }
}

try {
  process.stdout.write(`${await prepare(process.argv[2] ?? 'once')}\n`)
}
catch (error) {
  if (!(error instanceof DatabaseUnfit)) throw error
  // What is the whole of what its user needs (lib/run.mjs).
  process.stdout.write(`plainly: ${error.message}\n`)
  process.exitCode = 1
}
