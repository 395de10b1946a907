import { z } from 'zod'
import { writeCell } from './cells'
import { same } from '#core/quantity/same'
import { drained } from '#core/quantity/steps'
import { broughtUp, columnsOf, GEAR_KINDS, MODEL_SCHEMAS, type GearKind, type Model } from './models'
import { LIST_KEYS, MOST_MODELS, type GearModel, type GearRow } from './protocol'

/**
 * What is done to the library, as data: it travels, waits on a device, and is taken back by another of its kind. The server counts each once by
 * its id. A view shows what waits as if it had arrived.
 */

type Fields = Readonly<Record<string, unknown>>
export interface NewModel { id: string, kind: GearKind, body: Model }
export type GearAct
  = | { do: 'add', models: NewModel[] }
    /** Fields of the newest version, each from what it was: a version more. Refused where one is another by now. */
    | { do: 'set', id: string, kind: GearKind, was: Fields, to: Fields }
    /** Out of what is offered, or back in. */
    | { do: 'retire', ids: string[], retired: boolean }

const id = z.uuid().transform(text => text.toLowerCase())
const kind = z.enum(GEAR_KINDS)
/** Everything but the models themselves, which are read one by one. */
const actShell = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('add'), models: z.array(z.strictObject({ id, kind, body: z.unknown() })).min(1).max(MOST_MODELS) }),
  z.strictObject({ do: z.literal('set'), id, kind, was: z.record(z.string(), z.unknown()), to: z.record(z.string(), z.unknown()) }),
  z.strictObject({ do: z.literal('retire'), ids: z.array(id).min(1).max(MOST_MODELS), retired: z.boolean() }),
])

/** Some fields of a model. Made once a kind: making one takes longer than reading with it. */
const FIELDS = new Map<GearKind, z.ZodType<Fields>>()
function fieldsOf(kind: GearKind): z.ZodType<Fields> {
  const made = FIELDS.get(kind) ?? MODEL_SCHEMAS[kind].partial().strict() as z.ZodType<Fields>
  FIELDS.set(kind, made)
  return made
}

/** What is wrong, and where in the act. */
export interface ActComplaint { issues: z.ZodError, at: string }

/**
 * Reads an act, a model a step: ten thousand take their time, and a server has others to answer. Models of an older version state nothing in
 * the fields that it did not know.
 */
export function* readActInSteps(data: unknown): Generator<void, GearAct | ActComplaint> {
  const shell = actShell.safeParse(data)
  if (!shell.success) return { issues: shell.error, at: '' }
  const act = shell.data
  if (act.do === 'retire') return act
  if (act.do === 'set') {
    const parsed = fieldsOf(act.kind).safeParse(act.to)
    if (!parsed.success) return { issues: parsed.error, at: 'to' }
    const unsaid = Object.keys(act.to).find(field => !(field in act.was))
    return unsaid === undefined ? { ...act, to: parsed.data } : complaint([unsaid], 'is set without saying what it was', 'was')
  }
  const models: NewModel[] = []
  const seen = new Set<string>()
  for (const [k, { id, kind, body }] of act.models.entries()) {
    const parsed = MODEL_SCHEMAS[kind].safeParse(broughtUp(kind, body))
    if (!parsed.success) return { issues: parsed.error, at: `models[${k}].body` }
    if (seen.has(id)) return complaint(['id'], 'stands twice in this request', `models[${k}]`)
    seen.add(id)
    models.push({ id, kind, body: parsed.data })
    yield
  }
  return { do: 'add', models }
}

const complaint = (path: string[], message: string, at: string): ActComplaint => ({ issues: new z.ZodError([{ code: 'custom', path, message, input: null }]), at })

/** The same in one go. @throws z.ZodError */
export function readAct(data: unknown): GearAct {
  const read = drained(readActInSteps(data))
  if ('issues' in read) throw read.issues
  return read
}

/** What takes an act back. */
export function takingBack(act: GearAct): GearAct {
  switch (act.do) {
    case 'add': return { do: 'retire', ids: act.models.map(m => m.id), retired: true }
    case 'set': return { ...act, was: { ...act.was, ...act.to }, to: Object.fromEntries(Object.keys(act.to).map(field => [field, act.was[field]])) }
    case 'retire': return { ...act, retired: !act.retired }
  }
}

const rowOf = ({ id, kind, body }: NewModel): GearRow =>
  ({ id, version: 1, isRetired: false, usedIn: 0, values: LIST_KEYS[kind].map(key => (body as unknown as Record<string, unknown>)[key]) })

/** Rows of a kind as they are once these acts have arrived, by name; the very same where nothing changes. What has arrived already counts once. */
export function rowsAfter(kind: GearKind, rows: readonly GearRow[], acts: readonly GearAct[]): readonly GearRow[] {
  if (acts.length === 0) return rows
  const after = new Map(rows.map(row => [row.id, row]))
  for (const act of acts) {
    if (act.do === 'add') {
      for (const model of act.models) if (model.kind === kind && !after.has(model.id)) after.set(model.id, rowOf(model))
    }
    else if (act.do === 'set') {
      const row = after.get(act.id)
      if (row) after.set(act.id, rowWith(row, act))
    }
    else {
      for (const id of act.ids) {
        const row = after.get(id)
        if (row && row.isRetired !== act.retired) after.set(id, { ...row, isRetired: act.retired })
      }
    }
  }
  const changed = [...after.values()]
  if (changed.length === rows.length && changed.every((row, k) => row === rows[k])) return rows
  return changed.map(row => ({ row, name: nameOf(row) })).sort(byName).map(({ row }) => row)
}
function rowWith(row: GearRow, { kind, was, to }: Extract<GearAct, { do: 'set' }>): GearRow {
  const values = LIST_KEYS[kind].map((key, k) => key in to && same(row.values[k], was[key]) ? to[key] : row.values[k])
  return values.every((value, k) => value === row.values[k]) ? row : { ...row, values }
}
const nameOf = (row: GearRow) => String(row.values[0]).toLowerCase()
interface Named { row: GearRow, name: string }
const byName = (a: Named, b: Named) => a.name < b.name ? -1 : a.name > b.name ? 1 : a.row.id < b.row.id ? -1 : 1

/** A model with fields set; null where one of them is not what it was, or where nothing changes. */
export function bodyWith(body: Model, { was, to }: Extract<GearAct, { do: 'set' }>): Model | null {
  const now = body as unknown as Fields
  if (Object.entries(was).some(([field, value]) => !same(now[field], value))) return null
  return Object.entries(to).every(([field, value]) => same(now[field], value)) ? null : { ...body, ...to }
}

/** An act with the instant of its doing, ISO. */
export interface DoneAct { at: string, act: GearAct }

/** A model as it is once these acts have arrived; one that only waits yet is made of them. */
export function modelAfter(modelId: string, model: GearModel | null, acts: readonly DoneAct[]): GearModel | null {
  let after = model
  for (const { at, act } of acts) {
    if (act.do === 'add') {
      const added = act.models.find(m => m.id === modelId)
      if (added && !after) after = { id: modelId, kind: added.kind, isRetired: false, versions: [{ version: 1, at, body: added.body }], usedIn: [] }
    }
    else if (act.do === 'set') {
      const newest = after?.versions[0]
      const body = act.id === modelId && newest ? bodyWith(newest.body, act) : null
      if (body && newest) after = { ...after!, versions: [{ version: newest.version + 1, at, body }, ...after!.versions] }
    }
    else if (after && act.ids.includes(modelId)) after = { ...after, isRetired: act.retired }
  }
  return after
}

/** Ids of the models that an act is about. */
export const idsOf = (act: GearAct): string[] => act.do === 'add' ? act.models.map(m => m.id) : act.do === 'set' ? [act.id] : act.ids

/** Why a field was not set: what stands there now. */
export function changedWords({ kind, was }: Extract<GearAct, { do: 'set' }>, field: string, now: unknown): string {
  const column = columnsOf(kind).find(c => c.key === field)
  const words = (value: unknown) => (column ? writeCell(column, value) : '') || 'not stated'
  return `The ${column?.label ?? field} was changed in another window: it was ${words(was[field])}, it is now ${words(now)}.`
}
