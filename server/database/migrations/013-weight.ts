import type { Knex } from 'knex'

/** How large a job may have become since it was last measured, in bytes; null: not measured yet. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs add column weight bigint')
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs drop column weight')
}
