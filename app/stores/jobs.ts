import { shallowRef } from 'vue'
import { defineStore } from 'pinia'
import type { JobSummary } from '#core/match/jobState'
import { api, ApiError } from '~/api/client'
import { newId, newUuid, windowId } from '~/api/ids'
import { onLive } from '~/api/live'

type Source = { from: 'nothing', name: string } | { from: 'line', line: string } | { from: 'file', text: string } | { from: 'copy', of: string }

/** All jobs, kept up to date while someone looks. */
export const useJobsStore = defineStore('jobs', () => {
  const jobs = shallowRef<JobSummary[]>([])
  const status = shallowRef<'loading' | 'ready' | 'failed'>('loading')
  const problem = shallowRef('')
  let newest = 0

  async function refresh(): Promise<void> {
    const mine = ++newest
    try {
      const answer = await api<{ jobs: JobSummary[] }>('/jobs')
      // A late answer never overwrites a newer one.
      if (mine !== newest) return
      jobs.value = answer.jobs
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

  function watchLive(): () => void {
    void refresh()
    let waiting: ReturnType<typeof setTimeout> | undefined
    const stop = onLive(() => {
      clearTimeout(waiting)
      waiting = setTimeout(() => void refresh(), 80)
    })
    return () => {
      clearTimeout(waiting)
      stop()
    }
  }

  /** Makes a job; its id. @throws ApiError */
  async function create(source: Source): Promise<string> {
    const { id } = await api<{ id: string }>('/jobs', { method: 'POST', body: { id: newUuid(), ...source } })
    return id
  }

  async function rename(job: JobSummary, name: string): Promise<void> {
    const edit = { kind: 'job.set', was: { name: job.name }, to: { name } }
    const answer = await api<{ results: { status: string, message?: string }[] }>(`/jobs/${job.id}/sync`, {
      method: 'POST', body: { since: job.revision, edits: [{ id: newId(), by: windowId(), undoes: null, edit }] },
    })
    const [result] = answer.results
    if (result?.status === 'refused') throw new ApiError(result.message ?? 'The name was not taken.', 409)
    await refresh()
  }

  async function archive(id: string, archived: boolean): Promise<void> {
    await api(`/jobs/${id}`, { method: 'PATCH', body: { archived } })
    await refresh()
  }

  return { jobs, status, problem, refresh, watchLive, create, rename, archive }
})
