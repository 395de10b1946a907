import type { Knex } from 'knex'

/**
 * Who edited: version 10 (who read and repaired are columns of what only grows, added by themselves). The version of a document is always
 * written with it, so its default goes. The checks that had a name of the database's own making go too: what is true of each entry is held by
 * checks that follow the lists of the sections (database/growing.ts).
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('alter table edits add column who varchar(40)')
  await knex.raw('alter table jobs alter column version drop default')
  const { rows } = await knex.raw<{ rows: { conname: string }[] }>(`select conname from pg_constraint where conrelid = 'readings'::regclass and contype = 'c'
    and (pg_get_constraintdef(oid) like '%silent%' or pg_get_constraintdef(oid) like '%node_id IS NULL%')`)
  for (const { conname } of rows) await knex.raw('alter table readings drop constraint ??', [conname])
}

/** Who did what is lost; what was done stays. */
export async function down(knex: Knex): Promise<void> {
  for (const table of ['edits', 'readings', 'repairs']) await knex.raw(`alter table ${table} drop column if exists who`)
  for (const name of ['readings_together_1', 'readings_together_2']) await knex.raw(`alter table readings drop constraint if exists ${name}`)
  await knex.raw(`alter table readings add check ((kind in ('line-impedance', 'line-dcr')) = (node_id is null))`)
  await knex.raw(`alter table readings add constraint readings_sound_check check ((kind = 'sound') = (value->>'is' in ('plays', 'silent', 'scratchy', 'thin', 'quiet', 'hum', 'comes-and-goes')))`)
  await knex.raw('alter table jobs alter column version set default 9')
}
