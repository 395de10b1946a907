import type { Knex } from 'knex'

/** Jobs as whole documents, and the numbered list of edits that made each what it is. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('jobs', (table) => {
    table.uuid('id').primary()
    table.integer('revision').notNullable().defaultTo(0)
    table.jsonb('document').notNullable()
    table.timestamp('archived_at')
    table.timestamp('created_at').notNullable().defaultTo(knex.fn.now())
    table.timestamp('updated_at').notNullable().defaultTo(knex.fn.now())
    table.check('?? >= 0', ['revision'], 'jobs_revision_not_negative')
  })
  await knex.schema.createTable('edits', (table) => {
    table.uuid('job_id').notNullable().references('jobs.id').onDelete('CASCADE')
    table.integer('seq').notNullable()
    table.string('id', 40).notNullable()
    table.string('by', 40).notNullable()
    table.string('undoes', 40)
    table.jsonb('edit').notNullable()
    table.jsonb('inverse').notNullable()
    table.timestamp('at').notNullable().defaultTo(knex.fn.now())
    table.primary(['job_id', 'seq'])
    // The constraint that makes a repeated edit a no-op, whichever server it reaches.
    table.unique(['job_id', 'id'])
  })
  await knex.schema.createTable('settings', (table) => {
    table.string('key', 60).primary()
    table.jsonb('value').notNullable()
  })
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('settings')
  await knex.schema.dropTable('edits')
  await knex.schema.dropTable('jobs')
}
