import { readFileSync } from 'node:fs'
import knex, { type Knex } from 'knex'
import * as jobs from '../../server/database/migrations/001-jobs'
import * as records from '../../server/database/migrations/002-records'
import * as faults from '../../server/database/migrations/003-more-faults'
import * as taken from '../../server/database/migrations/004-how-taken'
import * as kinds from '../../server/database/migrations/005-kinds'
import * as gear from '../../server/database/migrations/006-gear'
import * as controls from '../../server/database/migrations/007-controls'
import * as spaces from '../../server/database/migrations/008-spaces'
import * as lowImpedance from '../../server/database/migrations/009-low-impedance'

export type OldVersion = 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8

/** The migrations in order, and how many of them each version knew. */
const KNEW: Record<OldVersion, number> = { 1: 1, 2: 2, 3: 3, 4: 4, 5: 6, 6: 7, 7: 8, 8: 9 }
const ALL: readonly (readonly [string, Knex.Migration])[] = [['001-jobs', jobs], ['002-records', records], ['003-more-faults', faults], ['004-how-taken', taken], ['005-kinds', kinds], ['006-gear', gear], ['007-controls', controls], ['008-spaces', spaces], ['009-low-impedance', lowImpedance]]

/** A database as an older version left it: its tables, and the rows of a job with its edits (tests/samples). */
export async function fillAsVersion(version: OldVersion, url: string): Promise<{ jobId: string }> {
  const db = knex({ client: 'pg', connection: url, pool: { min: 0, max: 1 } })
  try {
    await db.migrate.latest({
      tableName: 'migrations',
      migrationSource: {
        getMigrations: () => Promise.resolve(ALL.slice(0, KNEW[version]).map(([name]) => name)),
        getMigrationName: (name: string) => name,
        getMigration: (name: string) => Promise.resolve(ALL.find(([n]) => n === name)![1]),
      },
    })
    const sample = JSON.parse(readFileSync(`tests/samples/rows-version-${version}.json`, 'utf8')) as Record<string, Record<string, unknown>[]>
    const asJson = (row: Record<string, unknown>) => Object.fromEntries(Object.entries(row).map(([key, value]) => [key, value !== null && typeof value === 'object' ? JSON.stringify(value) : value]))
    for (const [table, rows] of Object.entries(sample)) if (rows.length > 0) await db(table).insert(rows.map(asJson))
    return { jobId: String(sample.jobs![0]!.id) }
  }
  finally {
    await db.destroy()
  }
}
