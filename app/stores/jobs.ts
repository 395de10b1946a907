import { computed, shallowRef } from 'vue'
import { defineStore } from 'pinia'
import { JOBS_A_PAGE, type ListQuery } from '#core/job/protocol'
import { FORMAT_VERSION } from '#core/job/schema'
import type { JobList, JobSummary } from '#core/line/jobSummary'
import type { Units } from '#core/quantity/units'
import { api, ApiError } from '~/api/client'
import { newId, newUuid, windowId } from '~/api/ids'
import { whoHere } from '~/door/me'
import { onLive } from '~/api/live'

type Source = { from: 'nothing', name: string, units: Units } | { from: 'line', line: string } | { from: 'file', text: string } | { from: 'copy', of: string }

export const USUAL_QUERY: ListQuery = { place: 'active', search: '', state: null, sort: 'changed', page: 0 }

/** A page of the list of jobs, kept up to date while someone looks. */
export const useJobsStore = defineStore('jobs', () => {
  const list = shallowRef<JobList>({ jobs: [], total: 0, counts: { active: 0, archived: 0, deleted: 0 } })
  const query = shallowRef<ListQuery>(USUAL_QUERY)
  const status = shallowRef<'loading' | 'ready' | 'failed'>('loading')
  /** Why the list could not be read; it may be older than it looks while this stands. */
  const problem = shallowRef('')
  let newest = 0
  let retry: ReturnType<typeof setTimeout> | undefined

  const pages = computed(() => Math.max(1, Math.ceil(list.value.total / JOBS_A_PAGE)))

  async function refresh(): Promise<void> {
    const mine = ++newest
    clearTimeout(retry)
    const { place, search, state, sort, page } = query.value
    const asked = new URLSearchParams({ place, search, sort, page: String(page), ...(state ? { state } : {}) })
    try {
      const answer = await api<JobList>(`/jobs?${asked}`)
      // A late answer never overwrites a newer one.
      if (mine !== newest) return
      list.value = answer
      status.value = 'ready'
      problem.value = ''
      if (page > 0 && answer.jobs.length === 0) await ask({ page: 0 })
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (mine !== newest) return
      problem.value = error.message
      if (status.value === 'loading') status.value = 'failed'
      retry = setTimeout(() => void refresh(), RETRY_MS)
    }
  }

  /** Asks for another page, order, or choice of jobs. */
  function ask(change: Partial<ListQuery>): Promise<void> {
    query.value = { ...query.value, page: 0, ...change }
    return refresh()
  }

  function watchLive(): () => void {
    void refresh()
    let waiting: ReturnType<typeof setTimeout> | undefined
    const stop = onLive((message) => {
      if (message === 'gear' || message === 'devices' || (typeof message === 'object' && 'here' in message)) return
      clearTimeout(waiting)
      waiting = setTimeout(() => void refresh(), 80)
    })
    return () => {
      clearTimeout(waiting)
      clearTimeout(retry)
      stop()
    }
  }

  /** Makes a job; its id, and what of a file counts for nothing. @throws ApiError */
  async function create(source: Source): Promise<{ id: string, remarks: string[] }> {
    return await api<{ id: string, remarks: string[] }>('/jobs', { method: 'POST', body: { id: newUuid(), ...source } })
  }

  async function rename(job: JobSummary, name: string): Promise<void> {
    const edit = { kind: 'job.set', was: { name: job.name }, to: { name } }
    const answer = await api<{ results: { status: string, message?: string }[] }>(`/jobs/${job.id}/sync`, {
      method: 'POST', body: { since: job.revision, version: FORMAT_VERSION, edits: [{ id: newId(), by: windowId(), who: whoHere(), undoes: null, edit }] },
    })
    const [result] = answer.results
    if (result?.status === 'refused') throw new ApiError(result.message ?? 'The name was not taken.', 409)
    await refresh()
  }

  async function archive(id: string, archived: boolean): Promise<void> {
    await api(`/jobs/${id}`, { method: 'PATCH', body: { archived } })
    await refresh()
  }

  async function remove(id: string): Promise<void> {
    await api(`/jobs/${id}`, { method: 'DELETE' })
    await refresh()
  }

  async function recover(id: string): Promise<void> {
    await api(`/jobs/${id}`, { method: 'PATCH', body: { deleted: false } })
    await refresh()
  }

  return { list, query, status, problem, pages, refresh, ask, watchLive, create, rename, archive, remove, recover }
})

const RETRY_MS = 4000
