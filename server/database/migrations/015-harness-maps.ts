import type { Knex } from 'knex'

const kinds = (knex: Knex, names: readonly string[]) => knex.raw(`alter table models drop constraint models_kind_check, add constraint models_kind_check check (kind in (${names.map(n => `'${n}'`).join(', ')}))`)
const BEFORE = ['speaker', 'amplifier', 'cable', 'control', 'transformer']

/** Maps of harnesses and of printed terminals are a kind of gear. */
export async function up(knex: Knex): Promise<void> {
  await kinds(knex, [...BEFORE, 'harness'])
}

/** Refused by the check itself while one is kept: what was typed is not thrown away by going back. */
export async function down(knex: Knex): Promise<void> {
  await kinds(knex, BEFORE)
}
