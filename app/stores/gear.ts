import { shallowRef } from 'vue'
import { defineStore } from 'pinia'
import type { GearKind, Model } from '#core/gear/models'
import type { GearModel, GearRow } from '#core/gear/protocol'
import { api as ask, ApiError } from '~/api/client'
import { newUuid } from '~/api/ids'
import { makeTried, type NewModel } from '~/gear/tried'

/** Nothing of the library waits on the device: what was not taken stands where it was typed. */
async function api<T>(path: string, options?: { method?: string, body?: unknown }): Promise<T> {
  try {
    return await ask<T>(path, options)
  }
  catch (error) {
    if (!(error instanceof ApiError) || error.status !== 0) throw error
    throw new ApiError('The server does not answer. What you typed stands here: once more when it does, nothing comes in twice.', 0)
  }
}

/**
 * The library of gear as its pages have it. What the server did not take is thrown on: the page keeps it in front of the person. Rows
 * are read by who shows them: a model's own page has no use for ten thousand others after each of its changes.
 */
export const useGearStore = defineStore('gear', () => {
  const kind = shallowRef<GearKind>('speaker')
  const rows = shallowRef<readonly GearRow[]>([])
  const status = shallowRef<'loading' | 'ready' | 'failed'>('loading')
  const problem = shallowRef('')
  /** What was done last, with what takes it back. */
  const done = shallowRef<{ says: string, undo: () => Promise<unknown> } | null>(null)
  let newest = 0

  async function load(wanted: GearKind = kind.value): Promise<void> {
    const mine = ++newest
    if (wanted !== kind.value || status.value === 'failed') {
      rows.value = []
      status.value = 'loading'
    }
    kind.value = wanted
    try {
      const answer = await api<{ rows: GearRow[] }>(`/gear?kind=${wanted}`)
      if (mine !== newest) return
      rows.value = answer.rows
      status.value = 'ready'
      problem.value = ''
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (mine !== newest) return
      problem.value = error.message
      if (status.value === 'loading') status.value = 'failed'
    }
  }

  const read = (id: string) => api<GearModel>(`/gear/${id}`)
  const setRetired = (ids: readonly string[], retired: boolean) => api('/gear', { method: 'PATCH', body: { ids, retired } })
  const tried = makeTried(newUuid)

  async function add(models: readonly NewModel[]): Promise<string[]> {
    const ids = tried.idsFor(models)
    await api('/gear', { method: 'POST', body: { models: models.map((m, k) => ({ ...m, id: ids[k] })) } })
    tried.cameIn()
    const says = ids.length === 1 ? `“${models[0]!.body.name}” is in the library.` : `${ids.length} models are in the library.`
    done.value = { says, undo: () => setRetired(ids, true) }
    return ids
  }

  /** Changes fields of a model: a version more, made from the newest. */
  async function change(id: string, fields: Partial<Model>, from?: { version: number, body: Model }): Promise<void> {
    const now = from ?? (await read(id)).versions[0]!
    const version = await saved(id, now.version, { ...now.body, ...fields } as Model)
    done.value = { says: `“${now.body.name}” is changed.`, undo: () => saved(id, version, now.body) }
  }
  const saved = async (id: string, was: number, body: Model): Promise<number> => (await api<{ version: number }>(`/gear/${id}/versions`, { method: 'POST', body: { was, body } })).version

  async function retire(row: Pick<GearRow, 'id'>, name: string, retired: boolean): Promise<void> {
    await setRetired([row.id], retired)
    done.value = { says: `“${name}” is ${retired ? 'retired' : 'offered again'}.`, undo: () => setRetired([row.id], !retired) }
  }

  async function takeBack(): Promise<void> {
    const last = done.value
    done.value = null
    try {
      await last?.undo()
    }
    catch (error) {
      // Not taken back: it can be, once more.
      done.value = last
      throw error
    }
  }

  return { kind, rows, status, problem, done, load, read, add, change, retire, takeBack }
})
