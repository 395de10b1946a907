import { shallowRef } from 'vue'
import { defineStore } from 'pinia'
import type { GearKind, Model } from '#core/gear/models'
import type { GearModel, GearRow } from '#core/gear/protocol'
import { api as ask, ApiError } from '~/api/client'
import { newUuid } from '~/api/ids'

/** Nothing of the library waits on the device: what was not taken stands where it was typed. */
async function api<T>(path: string, options?: { method?: string, body?: unknown }): Promise<T> {
  try {
    return await ask<T>(path, options)
  }
  catch (error) {
    if (!(error instanceof ApiError) || error.status !== 0) throw error
    throw new ApiError('The server does not answer, so the library is as it was. What you typed stands here: once more when it does.', 0)
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
  const setRetired = (id: string, retired: boolean) => api(`/gear/${id}`, { method: 'PATCH', body: { retired } })

  async function add(models: readonly { kind: GearKind, body: Model }[]): Promise<string[]> {
    const made = models.map(m => ({ ...m, id: newUuid() }))
    await api('/gear', { method: 'POST', body: { models: made } })
    const ids = made.map(m => m.id)
    const says = ids.length === 1 ? `“${made[0]!.body.name}” is in the library.` : `${ids.length} models are in the library.`
    done.value = { says, undo: () => Promise.all(ids.map(id => setRetired(id, true))) }
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
    await setRetired(row.id, retired)
    done.value = { says: `“${name}” is ${retired ? 'retired' : 'offered again'}.`, undo: () => setRetired(row.id, !retired) }
  }

  async function takeBack(): Promise<void> {
    const last = done.value
    done.value = null
    await last?.undo()
  }

  return { kind, rows, status, problem, done, load, read, add, change, retire, takeBack }
})
