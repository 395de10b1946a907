import type { Knex } from 'knex'

/** Controls, transformers and losses are in the document: version 6. What stands is brought up as it is read; no table changes. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs alter column version set default 6')
}

/** Documents that version 6 wrote stay: version 5 says that a newer program is needed, and changes nothing of them. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs alter column version set default 5')
}
