import type { Knex } from 'knex'

/** Spaces are in the document: version 7. What stands is brought up as it is read; no table changes. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs alter column version set default 7')
}

/** Documents that version 7 wrote stay: version 6 says that a newer program is needed, and changes nothing of them. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs alter column version set default 6')
}
