import type { Knex } from 'knex'

/**
 * The library of gear. A model is its versions; none is changed or lost. What is searched, sorted and compared stands in columns
 * that the database makes of the version itself, with the bounds that it may not pass. What jobs use is named by id and version,
 * without a foreign key: a job comes in from elsewhere with models that are not in this library.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`create table models (
    id uuid primary key,
    kind text not null check (kind in ('speaker', 'amplifier', 'cable', 'control', 'transformer')),
    version integer not null default 1 check (version > 0),
    retired_at timestamptz,
    created_at timestamptz not null default now()
  )`)
  const number = (column: string, key: string, least: number, most: number) =>
    `${column} double precision generated always as ((body->>'${key}')::double precision) stored check (${column} between ${least} and ${most})`
  await knex.raw(`create table model_versions (
    model_id uuid not null references models (id) on delete cascade,
    version integer not null check (version > 0),
    at timestamptz not null default now(),
    body jsonb not null check (jsonb_typeof(body) = 'object'),
    name text not null generated always as (body->>'name') stored check (btrim(name) <> '' and length(name) <= 120),
    build text generated always as (body->>'build') stored,
    ${number('nominal_ohm', 'nominalOhm', 0.05, 100_000)},
    ${number('continuous_w', 'continuousW', 0.001, 100_000)},
    ${number('believed_w', 'believedW', 0.001, 100_000)},
    ${number('rating_w', 'ratingW', 0.001, 100_000)},
    ${number('sensitivity_db', 'sensitivityDb', 40, 130)},
    ${number('coverage_deg', 'coverageDeg', 1, 360)},
    ${number('insertion_db', 'insertionDb', 0, 12)},
    ${number('price', 'price', 0, 1_000_000)},
    primary key (model_id, version)
  )`)
  for (const column of ['lower(name)', 'build', 'nominal_ohm', 'coalesce(believed_w, continuous_w, rating_w)', 'sensitivity_db', 'price']) {
    await knex.raw(`create index on model_versions (${column})`)
  }
  await knex.raw('create index on models (kind) where retired_at is null')
  await knex.raw(`create table job_models (
    job_id uuid not null references jobs (id) on delete cascade,
    model_id text not null,
    version integer not null,
    primary key (job_id, model_id, version)
  )`)
  await knex.raw('create index on job_models (model_id)')
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('job_models')
  await knex.schema.dropTable('model_versions')
  await knex.schema.dropTable('models')
}
