import type { Knex } from 'knex'
import { supersedeOnce } from '#core/job/upgrades/from1'

/**
 * Readings and repairs in rows of their own: what only grows no longer makes every edit write all of it. The document may lag
 * behind the edits (`document_revision`): an edit writes itself, and the document now and then. What was written by version 1
 * of the document is brought up; every document and every edit says which version wrote it.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('jobs', (table) => {
    table.text('name').notNullable().defaultTo('')
    table.smallint('version').notNullable().defaultTo(2)
    table.integer('document_revision').notNullable().defaultTo(0)
    table.timestamp('deleted_at')
    table.jsonb('summary')
    table.integer('summary_revision')
    table.text('summary_build')
    table.smallint('state')
    table.index(['updated_at'])
  })
  await knex.raw('alter table jobs add constraint jobs_document_not_ahead check (document_revision <= revision)')
  await knex.schema.alterTable('edits', (table) => {
    // What stands there was written by version 1; everything later says its own.
    table.smallint('version').notNullable().defaultTo(1)
    /** False: it only adds to rows, and is not needed to bring a document up to date. */
    table.boolean('in_document').notNullable().defaultTo(true)
  })
  await knex.raw(`update edits set in_document = false where edit->>'kind' in ('reading.add', 'reading.withdraw', 'repair.add', 'repair.withdraw')`)
  await knex.raw('alter table edits alter column version drop default, alter column in_document drop default')
  await knex.raw('create index edits_of_window on edits (job_id, by, seq)')
  await knex.raw('create index edits_in_document on edits (job_id, seq) where in_document')

  await knex.raw(`
    create table readings (
      job_id uuid not null references jobs (id) on delete cascade,
      id varchar(40) not null,
      no integer not null,
      at text not null,
      kind text not null check (kind in ('line-impedance', 'line-dcr', 'coil-dcr', 'sound')),
      output_id varchar(40) not null,
      node_id varchar(40),
      value jsonb not null,
      note text not null,
      supersedes varchar(40),
      withdrawn boolean not null,
      primary key (job_id, id),
      unique (job_id, no),
      foreign key (job_id, supersedes) references readings (job_id, id),
      check (supersedes <> id),
      check ((kind in ('line-impedance', 'line-dcr')) = (node_id is null)),
      check ((kind = 'sound') = (value->>'is' in ('plays', 'silent')))
    )`)
  // Each reading is corrected once, whichever server takes the correction.
  await knex.raw('create unique index readings_corrected_once on readings (job_id, supersedes) where supersedes is not null and not withdrawn')
  await knex.raw('create index readings_of_line on readings (job_id, output_id, no)')
  await knex.raw(`
    create table repairs (
      job_id uuid not null references jobs (id) on delete cascade,
      id varchar(40) not null,
      no integer not null,
      at text not null,
      output_id varchar(40) not null,
      node_id varchar(40) not null,
      fault text not null check (fault in ('open-at-drop', 'break-in-reach', 'short-at-drop', 'wrong-tap', 'high-resistance')),
      note text not null,
      withdrawn boolean not null,
      primary key (job_id, id),
      unique (job_id, no)
    )`)
  await knex.raw('create index repairs_of_line on repairs (job_id, output_id, no)')
  await moveRecords(knex)
}

async function moveRecords(knex: Knex): Promise<void> {
  const jobs = await knex('jobs').select('id') as { id: string }[]
  for (const { id } of jobs) {
    const { document } = await knex('jobs').select('document').where({ id }).first() as { document: Record<string, unknown> }
    const { readings, repairs, ...rest } = supersedeOnce(document).document
    await insertAll(knex, id, 'readings', readings, 'at text, kind text, "outputId" text, "nodeId" text, value jsonb, note text, supersedes text, withdrawn boolean',
      'at, kind, output_id, node_id, value, note, supersedes, withdrawn', 'at, kind, "outputId", "nodeId", value, note, supersedes, withdrawn')
    await insertAll(knex, id, 'repairs', repairs, 'at text, "outputId" text, "nodeId" text, fault text, note text, withdrawn boolean',
      'at, output_id, node_id, fault, note, withdrawn', 'at, "outputId", "nodeId", fault, note, withdrawn')
    await knex('jobs').where({ id }).update({
      document: JSON.stringify({ ...rest, version: 2 }), name: String(rest.name), version: 2, document_revision: knex.ref('revision'),
    })
  }
}

async function insertAll(knex: Knex, jobId: string, table: string, entries: unknown, types: string, columns: string, from: string): Promise<void> {
  if (!Array.isArray(entries) || entries.length === 0) return
  const numbered = entries.map((entry: object, k) => ({ ...entry, no: k + 1 }))
  await knex.raw(`insert into ${table} (job_id, id, no, ${columns}) select ?, id, no, ${from} from jsonb_to_recordset(?::jsonb) as e(id text, no integer, ${types}) order by no`,
    [jobId, JSON.stringify(numbered)])
}

/** Back to one document a job. Edits since then are in the log alone where the document lags; they are not lost, but the document is as old as it stands. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw(`update jobs j set document = j.document || jsonb_build_object('version', 1,
    'readings', coalesce((select jsonb_agg(jsonb_build_object('id', id, 'at', at, 'kind', kind, 'outputId', output_id, 'nodeId', node_id, 'value', value, 'note', note,
      'supersedes', supersedes, 'withdrawn', withdrawn) order by no) from readings where job_id = j.id), '[]'),
    'repairs', coalesce((select jsonb_agg(jsonb_build_object('id', id, 'at', at, 'outputId', output_id, 'nodeId', node_id, 'fault', fault, 'note', note,
      'withdrawn', withdrawn) order by no) from repairs where job_id = j.id), '[]'))`)
  await knex.schema.dropTable('repairs')
  await knex.schema.dropTable('readings')
  await knex.schema.alterTable('edits', table => table.dropColumns('version', 'in_document'))
  await knex.schema.alterTable('jobs', table => table.dropColumns('name', 'version', 'document_revision', 'deleted_at', 'summary', 'summary_revision', 'summary_build', 'state'))
}
