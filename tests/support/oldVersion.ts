import { readFileSync } from 'node:fs'
import knex from 'knex'
import { ensureGrowing } from '../../server/database/growing'
import { MIGRATIONS } from '../../server/database/migrations'

export type OldVersion = 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8 | 9 | 15

/** How many of the migrations, in order, each version knew. */
const KNEW: Record<OldVersion, number> = { 1: 1, 2: 2, 3: 3, 4: 4, 5: 6, 6: 7, 7: 8, 8: 9, 9: 10, 15: 14 }
/** A database as an older version left it: its tables, and the rows of a job with its edits (tests/samples). */
export async function fillAsVersion(version: OldVersion, url: string): Promise<{ jobId: string }> {
  const db = knex({ client: 'pg', connection: url, pool: { min: 0, max: 1 } })
  try {
    await db.migrate.latest({
      tableName: 'migrations',
      migrationSource: {
        getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS).slice(0, KNEW[version])),
        getMigrationName: (name: string) => name,
        getMigration: (name: string) => Promise.resolve(MIGRATIONS[name]!),
      },
    })
    // From here on what only grows has its tables from the sections, as a start makes them.
    if (version >= 15) await ensureGrowing(db)
    const sample = JSON.parse(readFileSync(`tests/samples/rows-version-${version}.json`, 'utf8')) as Record<string, Record<string, unknown>[]>
    const asJson = (row: Record<string, unknown>) => Object.fromEntries(Object.entries(row).map(([key, value]) => [key, value !== null && typeof value === 'object' ? JSON.stringify(value) : value]))
    for (const [table, rows] of Object.entries(sample)) if (rows.length > 0) await db(table).insert(rows.map(asJson))
    return { jobId: String(sample.jobs![0]!.id) }
  }
  finally {
    await db.destroy()
  }
}
