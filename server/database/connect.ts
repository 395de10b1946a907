import knex, { type Knex } from 'knex'
import { migrationSource } from './migrations'

/** A pool on a PostgreSQL server. */
export function connect(url: string): Knex {
  return knex({
    client: 'pg',
    connection: url,
    pool: { min: 0, max: 10 },
    acquireConnectionTimeout: 8000,
    migrations: { migrationSource, tableName: 'migrations' },
  })
}

/** Brings the database up; the names of the migrations that ran. */
export async function migrate(database: Knex): Promise<string[]> {
  const [, names] = await database.migrate.latest() as [number, string[]]
  return names
}
