import { readFileSync } from 'node:fs'
import knex, { type Knex } from 'knex'
import * as jobs from '../../server/database/migrations/001-jobs'
import * as records from '../../server/database/migrations/002-records'
import * as faults from '../../server/database/migrations/003-more-faults'

/** The migrations that each version knew, in order. */
const KNOWN: Record<1 | 2 | 3, Record<string, Knex.Migration>> = {
  1: { '001-jobs': jobs }, 2: { '001-jobs': jobs, '002-records': records }, 3: { '001-jobs': jobs, '002-records': records, '003-more-faults': faults },
}

/** A database as an older version left it: its tables, and the rows of a job with its edits (tests/samples). */
export async function fillAsVersion(version: 1 | 2 | 3, url: string): Promise<{ jobId: string }> {
  const db = knex({ client: 'pg', connection: url, pool: { min: 0, max: 1 } })
  try {
    await db.migrate.latest({
      tableName: 'migrations',
      migrationSource: {
        getMigrations: () => Promise.resolve(Object.keys(KNOWN[version])),
        getMigrationName: (name: string) => name,
        getMigration: (name: string) => Promise.resolve(KNOWN[version][name]!),
      },
    })
    const sample = JSON.parse(readFileSync(`tests/samples/rows-version-${version}.json`, 'utf8')) as Record<string, Record<string, unknown>[]>
    const asJson = (row: Record<string, unknown>) => Object.fromEntries(Object.entries(row).map(([key, value]) => [key, value !== null && typeof value === 'object' ? JSON.stringify(value) : value]))
    for (const [table, rows] of Object.entries(sample)) await db(table).insert(rows.map(asJson))
    return { jobId: String(sample.jobs![0]!.id) }
  }
  finally {
    await db.destroy()
  }
}
