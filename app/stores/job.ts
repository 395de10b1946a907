import { computed, shallowRef } from 'vue'
import { defineStore } from 'pinia'
import { sure } from '#core/quantity/known'
import type { Edit } from '#core/job/edits'
import type { OpenedJob, SyncAnswer } from '#core/job/protocol'
import { historyWords } from '#core/job/historyWords'
import type { Failure, Message, Step, WindowEvent, WindowState } from '#core/window/state'
import { connectionOf, openWindow, stacksOf, step } from '#core/window/window'
import { api, ApiError } from '~/api/client'
import { newId, windowId } from '~/api/ids'
import { onLive } from '~/api/live'
import { whoHere } from '~/door/me'
import { codeLater } from '~/composables/fetchedLater'
import { allKept, keep, letGo } from '~/storage/waiting'
import { otherWindows } from '~/storage/windows'
import { speakFor, useUnits } from '~/composables/useUnits'
import { afterPaint } from '~/composables/useAfterPaint'
import { nextInstant } from './instant'

/** Not wanted for the first picture, and there before the server may be away. */
const onDevice = codeLater(() => import('~/storage/keptJobs'))
/** So long nothing may come before a job is kept on the device. */
const KEEP_MS = 1200
/** An answer that is slower than this is shown from the device meanwhile. */
const SLOW_MS = 3000

/** What is told of what was done. `read`: read out only; `done`: shown too; `not-done`: shown as what came to nothing. */
export interface JobMessage { words: string, tone: 'read' | 'done' | 'not-done' }

/**
 * The opened job. What happens to it is decided in core/window, a state machine; here it is wired to the screen, the browser's
 * storage and the network.
 */
export const useJobStore = defineStore('job', () => {
  const window = shallowRef<WindowState | null>(null)
  /** What was last done, or why it was not: read out, and shown as long as it takes to read; then it is gone, so that the same can be said again. */
  const message = shallowRef<JobMessage | null>(null)
  let messageTimer: ReturnType<typeof setTimeout> | undefined
  /** The device cannot keep what is done; it is sent all the same. */
  const isStorageFull = shallowRef(false)
  /** Counts the jobs opened: an answer meant for one before is not heard. */
  let life = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  let stopLive = () => {}
  let keeping: ReturnType<typeof setTimeout> | undefined

  const id = computed(() => window.value?.jobId ?? '')
  const status = computed(() => window.value?.phase ?? 'loading')
  const problem = computed(() => window.value?.problem ?? '')
  const job = computed(() => window.value?.job ?? null)
  /** The job, for what is shown only while one is open. */
  const opened = computed(() => sure(job.value, 'job open'))
  const connection = computed(() => window.value ? connectionOf(window.value) : 'saved')
  const waiting = computed(() => window.value?.pending.length ?? 0)
  const refused = computed(() => window.value?.refused ?? [])
  /** What others have done since the job was opened here. */
  const news = computed(() => window.value?.news ?? [])
  const log = computed(() => window.value?.log)
  const pending = computed(() => window.value?.pending)
  const stacks = computed(() => log.value && pending.value ? stacksOf({ log: log.value, pending: pending.value, by: windowId() }) : { undo: [], redo: [] })
  const nameOf = (which: 'undo' | 'redo') => {
    const last = stacks.value[which].at(-1)
    return last ? historyWords(last.original.edit, job.value, useUnits().units.value) : ''
  }
  const canUndo = computed(() => stacks.value.undo.length > 0)
  const canRedo = computed(() => stacks.value.redo.length > 0)
  const undoName = computed(() => nameOf('undo'))
  const redoName = computed(() => nameOf('redo'))

  function open(jobId: string): void {
    close()
    const wanted = jobId.toLowerCase()
    take(openWindow(wanted, windowId(), whoHere()))
    setTimeout(() => { if (id.value === wanted && job.value === null) void recall(wanted) }, SLOW_MS)
    speakFor({ units: () => job.value?.units ?? null, set: (units) => { if (job.value) edit({ kind: 'job.set', was: { units: job.value.units }, to: { units } }) } })
    stopLive = onLive((change) => {
      if (change === 'gap') tell({ is: 'heard', revision: null })
      else if (typeof change === 'object' && 'jobId' in change && change.jobId === wanted) tell({ is: 'heard', revision: change.revision < 0 ? null : change.revision })
    })
  }

  function show(words: string, tone: JobMessage['tone']): void {
    clearTimeout(messageTimer)
    message.value = words === '' ? null : { words, tone }
    messageTimer = setTimeout(() => { message.value = null }, Math.max(4000, 70 * words.length))
  }

  function close(): void {
    life++
    stopLive()
    stopLive = () => {}
    clearTimeout(timer)
    clearTimeout(keeping)
    window.value = null
    speakFor(null)
    clearTimeout(messageTimer)
    message.value = null
  }

  function tell(event: WindowEvent): void {
    if (window.value) take(step(window.value, event), event.is === 'undo' || event.is === 'redo' ? 'done' : 'read')
  }

  /** What a hand does is seen where it does it, and read out; what is undone may lie elsewhere, and the same may be undone twice. */
  function take({ state, messages }: Step, tone: JobMessage['tone'] = 'read'): void {
    const isRefused = state.refused.length > (window.value?.refused.length ?? 0)
    if (tone === 'done' || state.said !== (window.value?.said ?? '')) show(state.said, isRefused ? 'not-done' : tone)
    window.value = state
    for (const message of messages) act(message, state.jobId)
  }

  function act(message: Message, jobId: string): void {
    switch (message.do) {
      case 'read job': return void ask(message.number, () => api<OpenedJob>(`/jobs/${encodeURIComponent(jobId)}?by=${windowId()}`), answer => ({ is: 'opened', number: message.number, answer }))
      case 'exchange': return void ask(message.number, () => sent(`/jobs/${jobId}/sync`, message.request), answer => ({ is: 'answered', number: message.number, answer }))
      case 'keep': return void keep(message.kept).then((isKept) => { isStorageFull.value = !isKept })
      case 'let go': return void letGo(jobId, message.ids)
      case 'look': return void look()
      case 'recall': return void recall(jobId)
      case 'remember': return remember()
      case 'wait':
        clearTimeout(timer)
        timer = setTimeout(() => tell({ is: 'again' }), message.ms)
    }
  }

  /** What is done is kept by now: it goes out when it has been shown, for 3 ms of a key went into sending it. */
  async function sent(path: string, body: unknown): Promise<SyncAnswer> {
    await new Promise<void>(afterPaint)
    return api<SyncAnswer>(path, { method: 'POST', body })
  }

  async function ask<T>(number: number, request: () => Promise<T>, toEvent: (answer: T) => WindowEvent): Promise<void> {
    const mine = life
    let event: WindowEvent
    try {
      event = toEvent(await request())
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
      event = { is: 'failed', number, problem: failureOf(error) }
    }
    if (mine === life) tell(event)
  }

  /** What the server has is kept on the device, once nothing more comes for a while: a walk is many small changes. */
  function remember(): void {
    clearTimeout(keeping)
    keeping = setTimeout(() => afterPaint(() => {
      const mine = life
      void onDevice().then(({ keepJob }) => { if (mine === life && window.value?.confirmed) void keepJob(window.value, Date.now()) })
    }), KEEP_MS)
  }
  async function recall(jobId: string): Promise<void> {
    const mine = life
    const answer = await (await onDevice()).keptJob(jobId)
    if (mine === life) tell({ is: 'remembered', answer })
  }

  /** Takes over what earlier windows could not send. */
  async function look(): Promise<void> {
    const mine = life
    const [others, found] = await Promise.all([otherWindows(), allKept()])
    if (mine !== life) return
    tell({ is: 'found', kept: found.flatMap(({ kept }) => kept && kept.jobId === id.value && !others.has(kept.stamped.by) ? [kept] : []) })
  }

  /** Does an edit: on the screen now, on the server as soon as it can be reached. False when it does not fit. */
  function edit(wanted: Edit | null): boolean {
    if (!wanted || !job.value) return false
    const editId = newId()
    tell({ is: 'done', id: editId, at: nextInstant(), edit: wanted })
    return window.value!.pending.some(p => p.stamped.id === editId)
  }

  return {
    id, status, problem, connection, job, opened, waiting, refused, news, message, isStorageFull, pending, stacks, canUndo, canRedo, undoName, redoName,
    open, close, edit, look,
    /** Says what was done. */
    say: (words: string) => show(words, 'done'),
    /** Says why what was asked for was not done. */
    sayNot: (words: string) => show(words, 'not-done'),
    undo: () => tell({ is: 'undo', id: newId(), at: nextInstant() }),
    redo: () => tell({ is: 'redo', id: newId(), at: nextInstant() }),
    dismiss: (refusedId: string) => tell({ is: 'dismissed', id: refusedId }),
    force: (refusedId: string) => tell({ is: 'forced', id: refusedId, newId: newId(), at: nextInstant() }),
    tryAgain: () => tell({ is: 'again' }),
  }
})

/** What a failed request means to a window. */
export function failureOf({ status, message }: Pick<ApiError, 'status' | 'message'>): Failure {
  if (status === 404) return { kind: 'missing', message }
  return { kind: [400, 413, 415, 422].includes(status) ? 'unreadable' : 'away', message }
}
