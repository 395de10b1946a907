import { computed, shallowRef } from 'vue'
import { defineStore } from 'pinia'
import { idsOf, modelAfter, rowsAfter, takingBack, type GearAct } from '#core/gear/acts'
import type { GearKind, Model } from '#core/gear/models'
import type { GearModel, GearRow } from '#core/gear/protocol'
import { same } from '#core/quantity/same'
import { writeActInSteps } from '#core/window/keptAct'
import { api, ApiError } from '~/api/client'
import { newUuid } from '~/api/ids'
import { inSlices } from '~/composables/inSlices'
import { useGearChangesStore } from './gearChanges'

/**
 * The library of gear as its pages have it: what was read, with what was done here on top of it. Rows are read by who shows them: a model's own
 * page has no use for ten thousand others after each of its changes.
 */
export const useGearStore = defineStore('gear', () => {
  const changes = useGearChangesStore()
  const kind = shallowRef<GearKind>('speaker')
  const served = shallowRef<readonly GearRow[]>([])
  const status = shallowRef<'loading' | 'ready' | 'failed'>('loading')
  const problem = shallowRef('')
  /** What was done in this page, the last at the end, with what takes it back. */
  const stack = shallowRef<readonly { id: string, says: string, back: GearAct }[]>([])
  let newest = 0

  const acts = computed(() => changes.shown.map(k => k.act))
  const rows = computed(() => rowsAfter(kind.value, served.value, acts.value))
  /** Models of which something has not reached the server yet. */
  const waits = computed((): ReadonlySet<string> => new Set(changes.waiting.flatMap(k => idsOf(k.act))))
  /** What can be taken back: not what the server would not have. */
  const standing = computed(() => stack.value.filter(({ id }) => !changes.refused.some(k => k.id === id)))
  const done = computed(() => standing.value.at(-1) ?? null)

  async function load(wanted: GearKind = kind.value): Promise<void> {
    const [mine, arrivals] = [++newest, changes.arrivals]
    if (wanted !== kind.value || status.value === 'failed') {
      served.value = []
      status.value = 'loading'
    }
    kind.value = wanted
    try {
      const answer = await api<{ rows: GearRow[] }>(`/gear?kind=${wanted}`)
      if (mine !== newest) return
      served.value = answer.rows
      status.value = 'ready'
      problem.value = ''
      changes.hasRead(arrivals)
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (mine !== newest) return
      problem.value = error.message
      if (status.value === 'loading') status.value = 'failed'
    }
  }

  /** A model as the server has it; null where only this device knows it yet. @throws ApiError */
  async function read(id: string): Promise<GearModel | null> {
    try {
      return await api<GearModel>(`/gear/${id}`)
    }
    catch (error) {
      if (error instanceof ApiError && shown(id, null)) return null
      throw error
    }
  }
  /** The same with what was done here. */
  const shown = (id: string, model: GearModel | null) => modelAfter(id, model, changes.shown.map(({ at, act }) => ({ at: new Date(at).toISOString(), act })))
  /** A model as it stands, read if it has to be. @throws ApiError */
  async function whole(id: string): Promise<GearModel> {
    const model = shown(id, await read(id))
    if (!model) throw new ApiError('There is no such model in the library.', 404)
    return model
  }

  function doing(act: GearAct, says: string): void {
    stack.value = [...stack.value, { id: changes.done(act, says), says, back: takingBack(act) }]
  }

  /** As many as of a table: written beforehand, in slices. */
  async function addMany(models: readonly { kind: GearKind, body: Model }[]): Promise<void> {
    const act: GearAct = { do: 'add', models: models.map(model => ({ ...model, id: newUuid() })) }
    await inSlices(writeActInSteps(act))
    doing(act, models.length === 1 ? `“${models[0]!.body.name}” taken in` : `${models.length.toLocaleString('en-GB')} models taken in`)
  }

  function add(model: { kind: GearKind, body: Model }): string {
    const added = { ...model, id: newUuid() }
    doing({ do: 'add', models: [added] }, `“${model.body.name}” made`)
    return added.id
  }

  /** Changes fields of a model, from what stands in them: a version more. */
  function set(id: string, name: string, was: Record<string, unknown>, to: Record<string, unknown>, ofKind: GearKind = kind.value): void {
    if (Object.keys(to).some(field => !same(was[field], to[field]))) doing({ do: 'set', id, kind: ofKind, was, to }, `“${name}” changed`)
  }

  function retire(id: string, name: string, retired: boolean): void {
    doing({ do: 'retire', ids: [id], retired }, `“${name}” ${retired ? 'retired' : 'offered again'}`)
  }

  function takeBack(): void {
    const last = done.value
    if (!last) return
    changes.done(last.back, `taken back: ${last.says}`)
    stack.value = standing.value.slice(0, -1)
  }

  return { kind, rows, waits, status, problem, done, load, read, whole, shown, add, addMany, set, retire, takeBack }
})
