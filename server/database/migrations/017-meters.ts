import type { Knex } from 'knex'

/** Meters that are reached by a wire. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`create table meters (
    id varchar(40) primary key, name varchar(60) not null, host varchar(100) not null, port integer not null check (port between 1 and 65535),
    four_wire boolean not null, made_at timestamptz not null default now())`)
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('drop table meters')
}
