import type { Knex } from 'knex'
import { bodyWith, changedWords, type GearAct } from '#core/gear/acts'
import { broughtUp, unstatedField, type GearKind, type Model } from '#core/gear/models'
import { LIST_KEYS, type GearAnswer, type GearModel, type GearRow, type GearWhole } from '#core/gear/protocol'
import { originsOf } from '#core/job/origins'
import type { Job } from '#core/job/schema'
import { same } from '#core/quantity/same'
import { CHANGES_CHANNEL } from '../database/channel'

/** All SQL about the library of gear. */

/** What stands may be of a version that knew fewer fields: it is brought up as it is read, so a new field of a model needs no migration. */
interface RawVersion { version: number, at: Date, body: unknown }
const asVersion = (kind: GearKind) => ({ version, at, body }: RawVersion) => ({ version, at: at.toISOString(), body: broughtUp(kind, body) })

/** Every model of a kind, its newest version's listed fields, by name. */
export async function listModels(db: Knex, kind: GearKind): Promise<GearRow[]> {
  const values = LIST_KEYS[kind].map(() => 'coalesce(v.body->?::text, ?::jsonb)').join(', ')
  const given = LIST_KEYS[kind].flatMap(key => [key, JSON.stringify(unstatedField(kind, key))])
  const { rows } = await db.raw<{ rows: GearRow[] }>(`
    select m.id, m.version, m.retired_at is not null as "isRetired", jsonb_build_array(${values}) as "values",
      (select count(distinct job_id)::int from job_models j where j.model_id = m.id::text) as "usedIn"
    from models m join model_versions v on v.model_id = m.id and v.version = m.version
    where m.kind = ? order by lower(v.name), m.id`, [...given, kind])
  return rows
}

/** Every model of a kind that is not retired, whole, by name. */
export async function newestOf(db: Knex, kind: GearKind): Promise<GearWhole[]> {
  const { rows } = await db.raw<{ rows: GearWhole[] }>(`
    select m.id, m.version, v.body from models m join model_versions v on v.model_id = m.id and v.version = m.version
    where m.kind = ? and m.retired_at is null order by lower(v.name), m.id`, [kind])
  return rows.map(row => ({ ...row, body: broughtUp(kind, row.body) }))
}

export async function findModel(db: Knex, id: string): Promise<GearModel | null> {
  const model = await db('models').where({ id }).first() as { id: string, kind: GearKind, retired_at: Date | null } | undefined
  if (!model) return null
  const versions = await db('model_versions').select('version', 'at', 'body').where({ model_id: id }).orderBy('version', 'desc') as RawVersion[]
  const usedIn = await db('job_models').join('jobs', 'jobs.id', 'job_models.job_id').whereNull('jobs.deleted_at').where({ model_id: id })
    .select('jobs.id as jobId', 'jobs.name as name', 'job_models.version as version').orderBy('jobs.name') as GearModel['usedIn']
  return { id, kind: model.kind, isRetired: model.retired_at !== null, versions: versions.map(asVersion(model.kind)), usedIn }
}

/** Models of one statement: more of them at once would hold the server while they are written as text. */
const MODELS_A_STATEMENT = 250

/** Puts models in, each as its first version; an id that is there already stays as it is. @returns how many came in */
export async function insertModels(db: Knex, models: readonly { id: string, kind: GearKind, body: Model }[]): Promise<number> {
  return db.transaction(async (trx) => {
    let made = 0
    for (let k = 0; k < models.length; k += MODELS_A_STATEMENT) made += await insertSome(trx, models.slice(k, k + MODELS_A_STATEMENT))
    return made
  })
}

async function insertSome(trx: Knex, models: readonly { id: string, kind: GearKind, body: Model }[]): Promise<number> {
  const { rows } = await trx.raw<{ rows: { id: string }[] }>(
    `insert into models (id, kind) select * from jsonb_to_recordset(?) as x(id uuid, kind text) on conflict (id) do nothing returning id`,
    [JSON.stringify(models.map(({ id, kind }) => ({ id, kind })))])
  const made = new Set(rows.map(r => r.id))
  await trx.raw(`insert into model_versions (model_id, version, body) select id, 1, body from jsonb_to_recordset(?) as x(id uuid, body jsonb)`,
    [JSON.stringify(models.filter(m => made.has(m.id)).map(({ id, body }) => ({ id, body })))])
  return made.size
}

/** A version more after `was`; null where there is no such model, false where `was` is no longer its newest. */
export async function addVersion(db: Knex, id: string, was: number, body: Model): Promise<boolean | null> {
  return db.transaction(async (trx) => {
    const model = await trx('models').where({ id }).forUpdate().first() as { version: number } | undefined
    if (!model) return null
    // The same once more, because its answer was lost: it is done.
    if (model.version === was + 1) {
      const newest = await trx('model_versions').select('body').where({ model_id: id, version: was + 1 }).first<{ body: unknown }>()
      if (same(newest.body, body)) return true
    }
    if (model.version !== was) return false
    await trx('model_versions').insert({ model_id: id, version: was + 1, body: JSON.stringify(body) })
    await trx('models').where({ id }).update({ version: was + 1 })
    return true
  })
}

export async function kindOfModel(db: Knex, id: string): Promise<GearKind | null> {
  const found = await db('models').select('kind').where({ id }).first() as { kind: GearKind } | undefined
  return found?.kind ?? null
}

class Undone extends Error {
  constructor(readonly answer: GearAnswer) {
    super()
  }
}
/** Does an act once, all of it or none: a second time it is done already. */
export async function takeAct(db: Knex, actId: string, act: GearAct): Promise<GearAnswer> {
  try {
    await db.transaction(async (trx) => {
      const { rows } = await trx.raw<{ rows: unknown[] }>('insert into gear_acts (id) values (?) on conflict (id) do nothing returning id', [actId])
      if (rows.length === 0) return
      if (act.do === 'add') await insertModels(trx, act.models)
      else if (act.do === 'retire') {
        if (!await setRetired(trx, act.ids, act.retired)) throw new Undone(NOT_THERE)
      }
      else {
        const refused = await setFields(trx, act)
        if (refused) throw new Undone(refused)
      }
      await trx.raw('select pg_notify(?, ?)', [CHANGES_CHANNEL, JSON.stringify({ gear: true })])
    })
    return { status: 'done' }
  }
  catch (error) {
    if (error instanceof Undone) return error.answer
    throw error
  }
}
const NOT_THERE: GearAnswer = { status: 'refused', code: 'not-there', message: 'There is no such model in the library. It may be of another database.' }

/** A version more, with fields of the newest set. */
async function setFields(trx: Knex, act: Extract<GearAct, { do: 'set' }>): Promise<GearAnswer | null> {
  const model = await trx('models').where({ id: act.id }).forUpdate().first() as { version: number, kind: GearKind } | undefined
  if (model?.kind !== act.kind) return NOT_THERE
  const newest = await trx('model_versions').select('body').where({ model_id: act.id, version: model.version }).first<{ body: unknown }>()
  const body = broughtUp(model.kind, newest.body)
  const now = body as unknown as Record<string, unknown>
  const changed = Object.entries(act.was).find(([field, value]) => !same(now[field], value))
  if (changed) return { status: 'refused', code: 'changed-meanwhile', message: changedWords(act, changed[0], now[changed[0]]) }
  const after = bodyWith(body, act)
  if (!after) return null
  await trx('model_versions').insert({ model_id: act.id, version: model.version + 1, body: JSON.stringify(after) })
  await trx('models').where({ id: act.id }).update({ version: model.version + 1 })
  return null
}

class NotAll extends Error {}
/** All or none: false, and nothing done, where one of them is not there. */
export async function setRetired(db: Knex, ids: readonly string[], retired: boolean): Promise<boolean> {
  const wanted = [...new Set(ids)]
  try {
    await db.transaction(async (trx) => {
      const done = await trx('models').whereRaw('id = any(?)', [wanted]).update({ retired_at: retired ? trx.fn.now() : null })
      if (done < wanted.length) throw new NotAll()
    })
    return true
  }
  catch (error) {
    if (error instanceof NotAll) return false
    throw error
  }
}

/** Writes which versions of which models a job is made with. */
export async function writeUse(db: Knex, jobId: string, job: Pick<Job, 'kinds' | 'amplifiers'>): Promise<void> {
  await db('job_models').where({ job_id: jobId }).delete()
  const used = new Map(originsOf(job).map(from => [`${from.modelId} ${from.version}`, from] as const))
  if (used.size > 0) await db('job_models').insert([...used.values()].map(({ modelId, version }) => ({ job_id: jobId, model_id: modelId, version })))
}
