import type { Knex } from 'knex'
import { MIGRATIONS } from './migrations'

/** A database that this program cannot work with as it stands; the message is a sentence for whoever keeps it. */
export class DatabaseUnfit extends Error {
  override name = 'DatabaseUnfit'
}

/** Refuses a database that a newer program has brought up: this one does not know what stands there. @throws DatabaseUnfit */
export async function refuseNewer(db: Knex): Promise<void> {
  if (!await db.schema.hasTable('migrations')) return
  const names = (await db('migrations').select('name') as { name: string }[]).map(row => row.name).filter(name => !(name in MIGRATIONS))
  if (names.length > 0) throw new DatabaseUnfit(`The database was brought up by a newer version of this program (${names.join(', ')}): start that version, or a newer one.`)
}

/** What a role may not do, in a sentence with what would let it; other errors as they are. */
export function unfit(error: unknown, url: string): unknown {
  if (!(error instanceof Error) || (error as { code?: string }).code !== '42501') return error
  const { username, pathname } = new URL(url)
  const [role, database] = [decodeURIComponent(username), decodeURIComponent(pathname.slice(1))]
  return new DatabaseUnfit(`The role “${role}” may make no tables in the database “${database}”: let its owner run “grant create on schema public to ${role}”, or give it the database.`)
}
