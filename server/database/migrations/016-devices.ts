import type { Knex } from 'knex'

/**
 * Devices that were let in, and the codes by which they come in. Of keys and codes only hashes are kept. A device that was taken back stays in the list: it is
 * the *who* of what it did, and its name is free again.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`create table devices (
    id varchar(40) primary key, name varchar(60) not null check (name <> ''), key_hash bytea not null unique, may_let_in boolean not null,
    let_in_at timestamptz not null default now(), last_seen_at timestamptz not null default now(), taken_back_at timestamptz)`)
  await knex.raw('create unique index devices_named_once on devices (lower(name)) where taken_back_at is null')
  await knex.raw(`create table door_codes (
    id bigint generated always as identity primary key, code_hash bytea not null, may_let_in boolean not null, made_at timestamptz not null default now(),
    expires_at timestamptz not null, tries_left smallint not null check (tries_left >= 0), used_by varchar(40) references devices (id))`)
  await knex.raw(`create unlogged table presences (
    job_id uuid not null, by varchar(40) not null, who varchar(40), station varchar(40) not null, output_id varchar(40), node_id varchar(40),
    seen_at timestamptz not null, primary key (job_id, by))`)
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('drop table presences')
  await knex.raw('drop table door_codes')
  await knex.raw('drop table devices')
}
