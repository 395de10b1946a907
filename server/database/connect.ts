import knex, { type Knex } from 'knex'
import type { ClientConfig } from 'pg'
import { ensureBench } from '../jobs/repository'
import { ensureGrowing } from './growing'
import { migrationSource } from './migrations'
import { refuseNewer, unfit } from './unfit'

/**
 * No wait without an end: a frozen database held a request for as long as it pleased. What the server cancels itself comes
 * before what the client gives up on; a lost link is noticed by keep-alive.
 */
export function connectionOf(url: string): ClientConfig {
  return {
    connectionString: url, application_name: 'plain-match', keepAlive: true, keepAliveInitialDelayMillis: 10_000,
    connectionTimeoutMillis: 5000, statement_timeout: 10_000, lock_timeout: 8000, query_timeout: 12_000, idle_in_transaction_session_timeout: 20_000,
  }
}

/** What the query builder would say of every lost connection, with its stack: each comes as an answer as well, and is told once. */
const QUIET = { warn: () => {}, error: () => {}, deprecate: () => {}, debug: () => {} }

/** A pool on a PostgreSQL server. */
export function connect(url: string): Knex {
  return knex({
    client: 'pg',
    connection: connectionOf(url) as Knex.PgConnectionConfig,
    pool: { min: 0, max: 10 },
    acquireConnectionTimeout: 8000,
    log: QUIET,
    migrations: { migrationSource, tableName: 'migrations' },
  })
}

/** Any number, the same for all: who migrates holds it. */
const MIGRATING = 461_046_104
/** Moving many jobs to another form takes its time. */
const MIGRATION_LIMIT = '10min'

/**
 * Brings the database up, one server at a time: two that began on one fresh database at once met in making the first table.
 * @returns the names of the migrations that ran
 * @throws DatabaseUnfit for one of a newer program, or where the role may make nothing
 */
export async function migrate(url: string): Promise<string[]> {
  const limits = { statement_timeout: 600_000, lock_timeout: 600_000, query_timeout: 600_000, idle_in_transaction_session_timeout: 0 }
  const database = knex({
    client: 'pg', connection: { ...connectionOf(url), ...limits } as Knex.PgConnectionConfig, pool: { min: 0, max: 3 }, acquireConnectionTimeout: 8000,
    migrations: { migrationSource, tableName: 'migrations' },
  })
  try {
    return await database.transaction(async (trx) => {
      await trx.raw(`set local lock_timeout = '${MIGRATION_LIMIT}'`)
      await trx.raw('select pg_advisory_xact_lock(?)', [MIGRATING])
      await refuseNewer(trx)
      // Whoever was killed while migrating left the query builder's own mark behind; with the lock in hand nobody is at it.
      await database.migrate.forceFreeMigrationsLock()
      const [, names] = await database.migrate.latest() as [number, string[]]
      await database.transaction(ensureGrowing)
      await ensureBench(database)
      return names
    })
  }
  catch (error) {
    throw unfit(error, url)
  }
  finally {
    await database.destroy()
  }
}
