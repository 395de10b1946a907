import { shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import { BEAT_MS, type HerePlace, type Other } from '#core/door/here'
import { api, ApiError } from '~/api/client'
import { windowId } from '~/api/ids'
import { onLive } from '~/api/live'
import { useJobStore } from './job'
import { useSelectionStore } from './selection'

/** A hand that goes along a rail is told when it rests. */
const REST_MS = 700
/** Who was heard of and cannot be asked after any more is shown no longer than he is known. */
const OLD_MS = 60_000

/** Who else has this job open, and where in it: told to each other now and then, and at once where it changes. */
export const useHereStore = defineStore('here', () => {
  const store = useJobStore()
  const selected = useSelectionStore()
  const others = shallowRef<readonly Other[]>([])
  let station = ''
  let place: () => Omit<HerePlace, 'station'> = () => selected.selection
  let heardAt = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  async function beat(jobId: string, place: HerePlace | null): Promise<void> {
    try {
      const answer = await api<{ others: Other[] }>(`/jobs/${jobId}/here`, { method: 'POST', body: { by: windowId(), place } })
      if (jobId !== store.id) return
      heardAt = Date.now()
      others.value = answer.others
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (Date.now() - heardAt > OLD_MS) others.value = []
    }
  }
  /** A page that is not looked at is not there: its beat ends, and the others see it go. */
  const now = () => {
    clearTimeout(timer)
    if (store.status !== 'ready' || document.visibilityState === 'hidden') return
    void beat(store.id, { station, ...place() })
    timer = setTimeout(now, BEAT_MS)
  }
  const soon = () => {
    clearTimeout(timer)
    timer = setTimeout(now, REST_MS)
  }

  /** From when a job's page stands until it is left. @param at the station that is open. @param where what is chosen there, if it is no line */
  function begin(at: () => string, where: () => Omit<HerePlace, 'station'> = () => selected.selection): () => void {
    place = where
    station = at() || 'match'
    const jobId = store.id
    const stopWatching = watch([at, () => where().outputId, () => where().nodeId, () => store.status], () => {
      station = at() || 'match'
      soon()
    })
    const stopLive = onLive((message) => { if (message === 'gap' || (typeof message === 'object' && 'here' in message && message.here === jobId)) soon() })
    document.addEventListener('visibilitychange', now)
    soon()
    return () => {
      clearTimeout(timer)
      stopWatching()
      stopLive()
      document.removeEventListener('visibilitychange', now)
      others.value = []
      void beat(jobId, null)
    }
  }

  return { others, begin }
})
