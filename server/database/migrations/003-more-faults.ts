import type { Knex } from 'knex'

/** More kinds of fault, and repairs of a whole line: version 3 of the document. What stands needs no change. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('alter table repairs alter column node_id drop not null')
  await knex.raw('alter table repairs drop constraint repairs_fault_check')
  await knex.raw(`alter table repairs add constraint repairs_fault_check check (fault in ('open-at-drop', 'break-in-reach', 'short-at-drop', 'wrong-tap', 'high-resistance',
    'taps-on-other-scale', 'taps-one-off', 'low-impedance-position', 'shorted-turns', 'extra-speaker', 'something-else'))`)
  await knex.raw('alter table jobs alter column version set default 3')
}

/** Repairs that version 2 cannot say are kept as ones of something it knows, with their own name in the note. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw(`update repairs set note = left('(' || fault || ') ' || note, 2000), fault = 'open-at-drop'
    where fault not in ('open-at-drop', 'break-in-reach', 'short-at-drop', 'wrong-tap', 'high-resistance')`)
  await knex.raw(`update repairs set node_id = output_id where node_id is null`)
  await knex.raw('alter table repairs drop constraint repairs_fault_check')
  await knex.raw(`alter table repairs add constraint repairs_fault_check check (fault in ('open-at-drop', 'break-in-reach', 'short-at-drop', 'wrong-tap', 'high-resistance'))`)
  await knex.raw('alter table repairs alter column node_id set not null')
  await knex.raw('alter table jobs alter column version set default 2')
}
