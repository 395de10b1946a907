import { writeFileSync } from 'node:fs'
import { writeJobFile } from '#core/format/plainMatch'
import { applyEdit } from '#core/job/apply'
import { FORMAT_VERSION, type Job } from '#core/job/schema'
import { everyEdit } from '#core/testing/everyEdit'
import { demoJobs } from '../demo'
import { demoGear } from '../demo/gear'
import { connect, migrate } from '../server/database/connect'
import { insertModels } from '../server/gear/repository'
import { createJob, syncJob } from '../server/jobs/service'

/**
 * Writes what this version keeps into tests/samples: a job file, and the rows of a job to which one edit of every kind was done. To be run
 * before the version is raised; the samples of a version are never written again. Needs a database: npm run samples
 */
const version = FORMAT_VERSION
const ID = `5a7a5a7a-4c3b-4f6b-8f5e-${String(version).repeat(12).slice(0, 12)}`
const TABLES = ['jobs', 'edits', 'readings', 'repairs', 'job_models'] as const

const source = demoJobs.find(d => d.job.name.includes('Marigold'))!.job
const job: Job = { ...source, name: `Marigold, as version ${version} kept it`, note: `kept by version ${version}` }
const edits = everyEdit(job)
/** The file holds all that was added: what takes it away again is in the rows alone. */
const after = edits.filter(e => !e.kind.endsWith('.remove')).reduce((current, edit) => applyEdit(current, edit).job, job)
const url = process.env.TEST_DATABASE_URL!
await migrate(url)
const db = connect(url)
try {
  await createJob(db, ID, job)
  await syncJob(db, ID, { since: 0, by: 'window-one', edits: edits.map((edit, k) => ({ id: `v${version}-e${k + 1}`, by: 'window-one', who: null, undoes: null, edit })) })
  await insertModels(db, demoGear.filter((_, k) => k % 8 === 0))
  const rows: Record<string, unknown[]> = {}
  for (const table of TABLES) rows[table] = await db(table).where({ [table === 'jobs' ? 'id' : 'job_id']: ID }).select() as unknown[]
  rows.models = await db('models').select() as unknown[]
  rows.model_versions = await db('model_versions').select('model_id', 'version', 'at', 'body') as unknown[]
  writeFileSync(`tests/samples/rows-version-${version}.json`, `${JSON.stringify(rows)}\n`)
  writeFileSync(`tests/samples/job-version-${version}.plainmatch.json`, writeJobFile(after))
}
finally {
  await db.destroy()
}
process.stdout.write(`tests/samples: version ${version}, ${edits.length} edits\n`)
