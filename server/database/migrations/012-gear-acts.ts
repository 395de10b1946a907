import type { Knex } from 'knex'

/** Acts on the library that were taken in, by their ids: one sent again after its answer was lost counts once. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('create table gear_acts (id uuid primary key, at timestamptz not null default now())')
}

/** What was done stays done. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw('drop table gear_acts')
}
