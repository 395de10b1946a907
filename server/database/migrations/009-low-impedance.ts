import type { Knex } from 'knex'

/**
 * Version 8: channels of an output, valve outputs, measured curves, jacks. Documents are brought up as they are read; a model of the library
 * states its new fields.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs alter column version set default 8')
  await knex.raw(`update model_versions v set body = '{"curve": null, "positions": null}'::jsonb || body
    from models m where m.id = v.model_id and m.kind = 'speaker' and not jsonb_exists(body, 'curve')`)
}

/** What version 8 states of a model is more than version 7 knows of it: a curve and jacks that are there stay, empty ones go. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs alter column version set default 7')
  await knex.raw(`update model_versions set body = body - 'curve' where body->'curve' = 'null'::jsonb`)
  await knex.raw(`update model_versions set body = body - 'positions' where body->'positions' = 'null'::jsonb`)
}
