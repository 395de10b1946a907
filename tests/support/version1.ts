import { readFileSync } from 'node:fs'
import knex from 'knex'
import * as jobs from '../../server/database/migrations/001-jobs'

/** A database as version 1 left it: its tables, and the rows of a job with its edits (tests/samples). */
export async function fillVersion1(url: string): Promise<{ jobId: string }> {
  const db = knex({ client: 'pg', connection: url, pool: { min: 0, max: 1 } })
  try {
    await db.migrate.latest({
      tableName: 'migrations',
      migrationSource: { getMigrations: () => Promise.resolve(['001-jobs']), getMigrationName: (name: string) => name, getMigration: () => Promise.resolve(jobs) },
    })
    const sample = JSON.parse(readFileSync('tests/samples/rows-version-1.json', 'utf8')) as { jobs: Record<string, unknown>[], edits: Record<string, unknown>[] }
    const asJson = (row: Record<string, unknown>) => Object.fromEntries(Object.entries(row).map(([key, value]) => [key, value !== null && typeof value === 'object' ? JSON.stringify(value) : value]))
    await db('jobs').insert(sample.jobs.map(asJson))
    await db('edits').insert(sample.edits.map(asJson))
    return { jobId: String(sample.jobs[0]!.id) }
  }
  finally {
    await db.destroy()
  }
}
