import type { Knex } from 'knex'

/** The bytes of photos by their hash: one that two jobs show is kept once. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`create table photo_bytes (
    hash text primary key check (hash ~ '^[0-9a-f]{64}$'),
    bytes bytea not null check (octet_length(bytes) between 4 and 400000),
    at timestamptz not null default now()
  )`)
}

/** What was photographed is not thrown away by going back: that is refused while any is kept. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw(`do $$ begin if exists (select 1 from photo_bytes) then raise exception 'photos are kept: take them out first'; end if; end $$`)
  await knex.raw('drop table photo_bytes')
}
