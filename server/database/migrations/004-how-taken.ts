import type { Knex } from 'knex'

/** More sounds, and how a reading was taken: version 4 of the document. What stands needs no change. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('alter table readings add column taken jsonb')
  await replaceCheck(knex, SOUNDS_NOW)
  await knex.raw('alter table jobs alter column version set default 4')
}

const SOUNDS_NOW = `'plays', 'silent', 'scratchy', 'thin', 'quiet', 'hum', 'comes-and-goes'`
const SOUNDS_BEFORE = `'plays', 'silent'`

/** The check that a kind and its value go together has a name of the database's own making: it is found by what it says. */
async function replaceCheck(knex: Knex, sounds: string): Promise<void> {
  const { rows } = await knex.raw<{ rows: { conname: string }[] }>(
    `select conname from pg_constraint where conrelid = 'readings'::regclass and contype = 'c' and pg_get_constraintdef(oid) like '%silent%'`)
  for (const { conname } of rows) await knex.raw('alter table readings drop constraint ??', [conname])
  await knex.raw(`alter table readings add constraint readings_sound_check check ((kind = 'sound') = (value->>'is' in (${sounds})))`)
}

/** Sounds that version 3 cannot say are kept as playing, with their own name in the note; so is who took what. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw(`update readings set note = left('(' || (value->>'is') || ') ' || note, 2000), value = '{"is": "plays"}' where kind = 'sound' and not value->>'is' in (${SOUNDS_BEFORE})`)
  await knex.raw(`update readings set note = left(note || ' (' || taken::text || ')', 2000) where taken is not null`)
  await replaceCheck(knex, SOUNDS_BEFORE)
  await knex.raw('alter table readings drop column taken')
  await knex.raw('alter table jobs alter column version set default 3')
}
