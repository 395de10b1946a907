import type { Knex } from 'knex'

/** What somebody found in practice; who is a device that was let in, '' the machine that serves. Of no job. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`create table practice_results (
    who text not null, code varchar(40) not null, at timestamptz not null, result jsonb not null, primary key (who, code, at))`)
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('drop table practice_results')
}
