import type { Knex } from 'knex'

/** Kinds of speaker are in the document: version 5. What stands is brought up as it is read; no table changes. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs alter column version set default 5')
}

/** Documents that version 5 wrote stay: version 4 says that a newer program is needed, and changes nothing of them. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs alter column version set default 4')
}
