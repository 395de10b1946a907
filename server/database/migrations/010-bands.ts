import type { Knex } from 'knex'

/**
 * Version 9: the part of the range that an output plays, its limiter, what feeds an amplifier. Documents are brought up as they are read; a model
 * of the library states its new fields.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs alter column version set default 9')
  await knex.raw(`update model_versions v set body = '{"made": null, "inputOhm": null, "protection": ""}'::jsonb || body || jsonb_build_object('outputs',
      (select coalesce(jsonb_agg('{"valve": null}'::jsonb || o), '[]'::jsonb) from jsonb_array_elements(body->'outputs') o))
    from models m where m.id = v.model_id and m.kind = 'amplifier' and not jsonb_exists(body, 'made')`)
  await knex.raw(`update model_versions v set body = '{"magnetMm": null, "plusMark": ""}'::jsonb || body
    from models m where m.id = v.model_id and m.kind = 'speaker' and not jsonb_exists(body, 'magnetMm')`)
}

/** What version 9 states of a model is more than version 8 knows of it: what is empty goes, what is there stays. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw('alter table jobs alter column version set default 8')
  await knex.raw(`update model_versions v set body = jsonb_set(body - (case when body->'made' = 'null'::jsonb and body->'inputOhm' = 'null'::jsonb and body->>'protection' = ''
      then array['made', 'inputOhm', 'protection'] else array[]::text[] end), '{outputs}',
      (select coalesce(jsonb_agg(case when o->'valve' = 'null'::jsonb then o - 'valve' else o end), '[]'::jsonb) from jsonb_array_elements(body->'outputs') o))
    from models m where m.id = v.model_id and m.kind = 'amplifier'`)
  await knex.raw(`update model_versions set body = body - 'magnetMm' - 'plusMark' where body->'magnetMm' = 'null'::jsonb and body->>'plusMark' = ''`)
}
