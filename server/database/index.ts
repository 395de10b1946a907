import type { Knex } from 'knex'
import { connect, migrate } from './connect'
import { DatabaseUnfit } from './unfit'

let ready: Promise<Knex> | null = null
/** Said once, not with every request that meets it. */
let said = ''

/**
 * The server's database, migrated. Nitro does not wait for plugins, so every request waits here; a failed first try is
 * tried again by the next request.
 */
export function database(): Promise<Knex> {
  ready ??= open().catch((error: unknown) => {
    ready = null
    if (error instanceof DatabaseUnfit && error.message !== said) console.error(said = error.message)
    throw error
  })
  return ready
}

async function open(): Promise<Knex> {
  const url = databaseUrl()
  await migrate(url)
  return connect(url)
}

export function databaseUrl(): string {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set: start with npm start, or name a PostgreSQL server.')
  return url
}

export async function closeDatabase(): Promise<void> {
  const opened = ready
  ready = null
  await opened?.then(knex => knex.destroy(), () => undefined)
}
