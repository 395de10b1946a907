import type { Knex } from 'knex'
import { constraintsOf, TABLES, type Constraint, type Table } from '../jobs/tables'

/**
 * Brings the tables of what only grows to what the sections say, after the migrations: a table that is new is made, a column that is
 * new is added (what stands states nothing there), checks follow their lists. So a section or an enum that grows needs no migration. A check that a
 * newer program has widened stays as it is.
 */
export async function ensureGrowing(db: Knex): Promise<void> {
  for (const table of TABLES) {
    if (!await db.schema.hasTable(table.name)) await create(db, table)
    else await addColumns(db, table)
    for (const constraint of constraintsOf(table)) await ensureConstraint(db, table.name, constraint)
  }
}

const sqlType = (key: string, type: string) => key === 'id' || key.endsWith('Id') || key === 'supersedes' || key === 'who' ? 'varchar(40)' : type

async function create(db: Knex, { name, columns, growing }: Table): Promise<void> {
  const written = columns.map(c => `${c.name} ${sqlType(c.key, c.type)}${c.isNullable ? '' : ' not null'}`)
  const corrects = growing.corrects
  await db.raw(`create table ${name} (
    job_id uuid not null references jobs (id) on delete cascade, no integer not null, ${written.join(', ')},
    primary key (job_id, id), unique (job_id, no)${corrects ? `, foreign key (job_id, ${corrects}) references ${name} (job_id, id), check (${corrects} <> id)` : ''})`)
  if (corrects) await db.raw(`create unique index ${name}_corrected_once on ${name} (job_id, ${corrects}) where ${corrects} is not null and not withdrawn`)
  if (columns.some(c => c.key === 'outputId')) await db.raw(`create index ${name}_of_line on ${name} (job_id, output_id, no)`)
  if (columns.some(c => c.key === 'ticketId')) await db.raw(`create index ${name}_of_ticket on ${name} (job_id, ticket_id, no)`)
}

async function addColumns(db: Knex, { name, columns }: Table): Promise<void> {
  const there = await db(name).columnInfo() as Record<string, unknown>
  for (const column of columns.filter(c => !(c.name in there))) {
    if (!column.isNullable) throw new Error(`${name}.${column.name} always has a value: what stands needs a migration that says which.`)
    await db.raw(`alter table ${name} add column ${column.name} ${sqlType(column.key, column.type)}`)
  }
}

async function ensureConstraint(db: Knex, table: string, { name, sql }: Constraint): Promise<void> {
  const { rows: [there] } = await db.raw<{ rows: { says: string | null, definition: string }[] }>(
    `select obj_description(oid, 'pg_constraint') as says, pg_get_constraintdef(oid) as definition from pg_constraint where conrelid = ?::regclass and conname = ?`, [table, name])
  if (there?.says === sql) return
  const valuesIn = (text: string) => new Set([...text.matchAll(/'([^']*)'/g)].map(match => match[1]!))
  const [wanted, has] = [valuesIn(sql), valuesIn(there?.definition ?? '')]
  if (there && has.size > wanted.size && [...wanted].every(value => has.has(value))) return
  if (there) await db.raw(`alter table ${table} drop constraint ${name}`)
  await db.raw(`alter table ${table} add constraint ${name} ${sql}`)
  await db.raw(`comment on constraint ${name} on ${table} is '${sql.replaceAll('\'', '\'\'')}'`)
}
