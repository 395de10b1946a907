import { computed, shallowRef } from 'vue'
import { defineStore } from 'pinia'
import type { SyncAnswer } from '#core/job/protocol'
import { editWords } from '#core/job/words'
import type { Found, Kept } from '#core/window/keptEdit'
import { outboxAnswered, outboxRequest, outboxUnreadable } from '#core/window/outbox'
import { api, ApiError } from '~/api/client'
import { windowId } from '~/api/ids'
import { onLive } from '~/api/live'
import { isAnythingUnkept } from '~/storage/device'
import { allKept, keep, letGo, letGoOf } from '~/storage/waiting'
import { beThere, otherWindows } from '~/storage/windows'
import { failureOf, useJobStore } from './job'

/** What waits of one job on this device, in words for a list. */
export interface Waiting { jobId: string, jobName: string, count: number }
export interface NotTaken { jobId: string, jobName: string, editId: string, what: string, message: string }
export interface Unreadable { key: string, jobId: string, text: string }

const RETRY_MS = 8000

/**
 * Edits that wait on this device without their job being open: of tabs that were closed while the server was away, and of
 * jobs that this tab has left. They are sent from whichever page is open, and shown in the list of jobs.
 */
export const useOutboxStore = defineStore('outbox', () => {
  const found = shallowRef<Found[]>([])
  const others = shallowRef<ReadonlySet<string>>(new Set())
  const isAway = shallowRef(false)
  /** The device cannot keep what waits. */
  const isUnkept = shallowRef(false)
  const jobs = useJobStore()
  let isSending = false
  let again = false
  let timer: ReturnType<typeof setTimeout> | undefined

  /** An edit that no open job will send. */
  const isLeft = ({ jobId, stamped }: Kept) => jobId !== jobs.id && !others.value.has(stamped.by)
  const left = computed(() => found.value.flatMap(({ kept }) => kept && isLeft(kept) ? [kept] : []))
  const waiting = computed((): Waiting[] => [...byJob(left.value.filter(k => !k.refused))]
    .map(([jobId, edits]) => ({ jobId, jobName: nameOf(edits), count: edits.length })))
  const notTaken = computed((): NotTaken[] => left.value.flatMap(k => k.refused
    ? [{ jobId: k.jobId, jobName: k.jobName, editId: k.stamped.id, what: editWords(k.stamped.edit), message: k.refused.message }]
    : []))
  const unreadable = computed((): Unreadable[] => found.value.flatMap(f => f.kept ? [] : [{ key: f.key, jobId: f.jobId, text: f.text }]))

  function byJob(edits: readonly Kept[]): Map<string, Kept[]> {
    const jobs = new Map<string, Kept[]>()
    for (const kept of edits) jobs.set(kept.jobId, [...jobs.get(kept.jobId) ?? [], kept])
    return jobs
  }
  const nameOf = (edits: readonly Kept[]) => edits.findLast(k => k.jobName !== '')?.jobName ?? ''

  async function look(): Promise<void> {
    const [there, kept] = await Promise.all([otherWindows(), allKept()])
    others.value = there
    found.value = kept
    isUnkept.value = isAnythingUnkept()
  }

  /** Sends what waits, job by job. */
  async function send(): Promise<void> {
    if (isSending) {
      again = true
      return
    }
    isSending = true
    clearTimeout(timer)
    try {
      do {
        again = false
        await look()
        if (found.value.some(f => f.kept && f.jobId === jobs.id && f.kept.stamped.by !== windowId() && !others.value.has(f.kept.stamped.by))) void jobs.look()
        isAway.value = false
        for (const [jobId, edits] of byJob(left.value)) await sendJob(jobId, edits)
        await look()
      } while (again)
    }
    finally {
      isSending = false
      if (waiting.value.length > 0) timer = setTimeout(() => void send(), RETRY_MS)
    }
  }

  async function sendJob(jobId: string, edits: readonly Kept[]): Promise<void> {
    let rest = edits
    let isSingle = false
    for (let request = outboxRequest(rest); request; request = outboxRequest(rest, isSingle)) {
      const sent = request.edits
      const ids = new Set(sent.map(e => e.id))
      try {
        const answer = await api<SyncAnswer>(`/jobs/${jobId}/sync`, { method: 'POST', body: request })
        const after = outboxAnswered(rest, answer)
        await keep(after.keep)
        await letGo(jobId, after.letGo)
      }
      catch (error) {
        if (!(error instanceof ApiError)) throw error
        const { kind, message } = failureOf(error)
        if (kind === 'away') {
          isAway.value = true
          return
        }
        if (kind === 'unreadable' && sent.length > 1) {
          isSingle = true
          continue
        }
        await keep(outboxUnreadable(rest, sent, message))
      }
      rest = rest.filter(k => !ids.has(k.stamped.id))
    }
  }

  /** From here on, as long as the page lives. */
  function begin(): void {
    beThere()
    // What is neither on the device nor on the server goes with the page: the browser asks first.
    addEventListener('beforeunload', (event) => { if (isAnythingUnkept()) event.preventDefault() })
    onLive((message) => { if (message === 'gap') void send() })
    addEventListener('online', () => void send())
    void send()
  }

  async function dismiss({ jobId, editId }: NotTaken): Promise<void> {
    await letGo(jobId, [editId])
    await look()
  }

  async function throwAway({ key }: Unreadable): Promise<void> {
    await letGoOf(key)
    await look()
  }

  return { waiting, notTaken, unreadable, isAway, isUnkept, begin, send, dismiss, throwAway }
})
