import { computed, shallowRef } from 'vue'
import { defineStore } from 'pinia'
import { BENCH_ID } from '#core/job/bench'
import { MOST_PHOTOS, type Photo } from '#core/job/sections/photos/schema'
import { api, ApiError } from '~/api/client'
import { newId } from '~/api/ids'
import { whoHere } from '~/door/me'
import { photoShelf } from '~/storage/device'
import { useJobStore } from '~/stores/job'
import { addingPhoto, ticketPhotos } from './ticketPhotos'
import { scaleDown } from './scaleDown'
import { photoKey, readWaiting, writeWaiting, type WaitingPhoto } from './waitingPhoto'

const AGAIN_MS = 8000

/**
 * Photos of the opened job. One that was taken is on this device from that moment, and let go when its bytes are with the server and the job names it; what
 * cannot be kept or sent stays in front of the person with the reason.
 */
export const usePhotoStore = defineStore('photos', () => {
  const jobs = useJobStore()
  const waiting = shallowRef<WaitingPhoto[]>([])
  /** The device keeps none: what waits lives in this page alone. */
  const isUnkept = shallowRef(false)
  const problem = shallowRef('')
  let isSending = false
  let timer: ReturnType<typeof setTimeout> | undefined

  /** Those of one line, or of one ticket: of a whole bench each row was gone through with every row that is written. */
  function under(ownerId: string): Photo[] {
    if (!jobs.job) return []
    return [...jobs.job.photos.under(ownerId).filter(p => !p.withdrawn), ...ticketPhotos(jobs.job.tickets.under(ownerId))]
  }
  /** Photos of tickets are as many as are written. */
  const isFull = computed(() => jobs.id !== BENCH_ID && (jobs.job?.photos.size ?? 0) + waiting.value.length >= MOST_PHOTOS)
  const here = computed(() => waiting.value.filter(w => w.jobId === jobs.id))

  async function look(): Promise<void> {
    waiting.value = (await photoShelf.all()).flatMap(([, text]) => readWaiting(text) ?? [])
    isUnkept.value = photoShelf.isUnkept()
  }

  async function take(file: Blob, place: Pick<Photo, 'outputId' | 'nodeId' | 'repairId' | 'caption'>): Promise<void> {
    problem.value = ''
    if (isFull.value) {
      problem.value = `${MOST_PHOTOS} photos, as many as a job can hold: this one is not taken. Take one off first.`
      return
    }
    try {
      const { base64, widthPx, heightPx } = await scaleDown(file)
      const photo = { id: newId(), at: new Date().toISOString(), ...place, widthPx, heightPx, who: whoHere(), withdrawn: false }
      const taken: WaitingPhoto = { jobId: jobs.id, photo, base64 }
      waiting.value = [...waiting.value, taken]
      await photoShelf.put([[photoKey(taken), writeWaiting(taken)]])
      isUnkept.value = photoShelf.isUnkept()
    }
    catch {
      problem.value = 'This is no picture that the browser can read. Nothing was taken.'
      return
    }
    void send()
  }

  /** Sends what waits of the opened job, one after the other. */
  async function send(): Promise<void> {
    if (isSending) return
    isSending = true
    clearTimeout(timer)
    try {
      for (const one of here.value) {
        const { hash } = await api<{ hash: string }>('/photos', { method: 'POST', body: { base64: one.base64 } })
        if (jobs.id !== one.jobId || !jobs.job) return
        // Sent by another window meanwhile, it is there.
        if (!jobs.job.photos.get(one.photo.id) && !jobs.job.tickets.get(one.photo.id) && !jobs.edit(addingPhoto(one.jobId, { ...one.photo, hash }))) {
          problem.value = 'The job did not take this photo. It stays here; take it off, or try again.'
          return
        }
        await letGo(one)
      }
      problem.value = ''
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
      problem.value = error.isAway ? '' : error.message
      if (error.isAway) timer = setTimeout(() => void send(), AGAIN_MS)
    }
    finally {
      isSending = false
    }
  }

  async function letGo(one: WaitingPhoto): Promise<void> {
    waiting.value = waiting.value.filter(w => w !== one)
    await photoShelf.remove([photoKey(one)])
    isUnkept.value = photoShelf.isUnkept()
  }

  async function open(): Promise<void> {
    await look()
    await send()
  }

  return { under, waiting: here, isUnkept, isFull, problem, take, open, send, letGo }
})
