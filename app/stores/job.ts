import { computed, shallowRef } from 'vue'
import { defineStore } from 'pinia'
import { applyEdit } from '#core/job/apply'
import type { Edit, StampedEdit } from '#core/job/edits'
import { EditRefused, type Refusal } from '#core/job/refusal'
import type { Job } from '#core/job/schema'
import { undoStacks, type LogEntry } from '#core/job/undo'
import type { OpenedJob, SyncAnswer } from '#core/job/wire'
import { editWords, refusalWords } from '#core/job/words'
import { api, ApiError } from '~/api/client'
import { newId, windowId } from '~/api/ids'
import { onLive } from '~/api/live'
import { forgetOthers, keepPending, takePending } from './pending'

/** An edit that was not taken, for the person to see and decide. */
export interface Refused { id: string, message: string, edit: Edit, canForce: boolean }

const MOST_SENT = 200
const RETRY_MS = [1000, 2000, 5000, 10_000]
/** As many log entries as a window keeps: what undo can reach. */
const LOG_TAIL = 600

/**
 * The opened job. `confirmed` is what the server has; `job` is that with this window's pending edits on top, and what
 * everything on the screen is drawn from. An edit shows at once and travels after.
 */
export const useJobStore = defineStore('job', () => {
  const id = shallowRef('')
  const status = shallowRef<'loading' | 'ready' | 'missing' | 'failed'>('loading')
  const problem = shallowRef('')
  const connection = shallowRef<'saved' | 'saving' | 'away'>('saved')
  const job = shallowRef<Job | null>(null)
  const pending = shallowRef<LogEntry[]>([])
  const log = shallowRef<LogEntry[]>([])
  const refused = shallowRef<Refused[]>([])
  /** What was last done, undone or refused, for a screen reader. */
  const said = shallowRef('')

  let confirmed: Job | null = null
  let revision = 0
  let syncing = false
  let again = false
  let failures = 0
  let retry: ReturnType<typeof setTimeout> | undefined
  let stopLive = () => {}

  const by = windowId()
  const stacks = computed(() => undoStacks([...log.value, ...pending.value], by))
  const canUndo = computed(() => stacks.value.undo.length > 0)
  const canRedo = computed(() => stacks.value.redo.length > 0)
  const undoName = computed(() => nameOf(stacks.value.undo.at(-1)))
  const redoName = computed(() => nameOf(stacks.value.redo.at(-1)))

  function nameOf(entry: LogEntry | undefined): string {
    return entry ? editWords(entry.edit) : ''
  }

  async function open(jobId: string): Promise<void> {
    close()
    id.value = jobId
    status.value = 'loading'
    await load()
    if (id.value !== jobId) return
    stopLive = onLive((change) => {
      if (change === 'gap' || (change.jobId === id.value && change.revision > revision)) void sync()
    })
    if (isReady()) adopt(jobId)
  }

  const isReady = () => status.value === 'ready'

  async function load(): Promise<void> {
    const wanted = id.value
    try {
      const opened = await api<OpenedJob>(`/jobs/${encodeURIComponent(wanted)}`)
      if (wanted !== id.value) return
      confirmed = opened.job
      revision = opened.revision
      log.value = opened.log
      rebuild()
      status.value = 'ready'
    }
    catch (error) {
      if (!(error instanceof ApiError) || wanted !== id.value) throw error
      problem.value = error.message
      status.value = error.isAway ? 'failed' : 'missing'
    }
  }

  /** Takes over edits that an earlier window could not send. */
  function adopt(jobId: string): void {
    const known = new Set(log.value.map(e => e.id))
    const left = takePending(jobId).filter(e => !known.has(e.id))
    for (const stamped of left) add(stamped)
    keep()
    forgetOthers(jobId, by)
    if (pending.value.length > 0) void sync()
  }

  function close(): void {
    stopLive()
    stopLive = () => {}
    clearTimeout(retry)
    id.value = ''
    confirmed = null
    job.value = null
    pending.value = []
    log.value = []
    refused.value = []
    failures = 0
    connection.value = 'saved'
  }

  /** The job on the screen: confirmed with all pending edits that fit. */
  function rebuild(): void {
    let current = confirmed!
    pending.value = pending.value.map((entry) => {
      try {
        const applied = applyEdit(current, entry.edit)
        current = applied.job
        return { ...entry, inverse: applied.inverse }
      }
      catch (error) {
        // The server is asked all the same, and says why not.
        if (error instanceof EditRefused) return entry
        throw error
      }
    })
    job.value = current
  }

  function add(stamped: StampedEdit): boolean {
    try {
      const applied = applyEdit(job.value!, stamped.edit)
      job.value = applied.job
      pending.value = [...pending.value, { ...stamped, inverse: applied.inverse }]
      return true
    }
    catch (error) {
      if (!(error instanceof EditRefused)) throw error
      refuse(stamped, error.refusal, refusalWords(error.refusal))
      return false
    }
  }

  function refuse(stamped: StampedEdit, refusal: Refusal | undefined, message: string): void {
    refused.value = [...refused.value.filter(r => r.id !== stamped.id), { id: stamped.id, message, edit: stamped.edit, canForce: refusal?.code === 'changed-meanwhile' }]
    said.value = message
  }

  /** Does an edit: on the screen now, on the server as soon as it can be reached. False when it does not fit. */
  function edit(wanted: Edit | null, undoes: string | null = null): boolean {
    if (!wanted || !job.value) return false
    const done = add({ id: newId(), by, undoes, edit: wanted })
    if (done) {
      said.value = undoes === null ? editWords(wanted) : said.value
      keep()
      connection.value = connection.value === 'away' ? 'away' : 'saving'
      void sync()
    }
    return done
  }

  function undo(): void {
    const entry = stacks.value.undo.at(-1)
    if (entry && edit(entry.inverse, entry.id)) said.value = `undone: ${editWords(entry.edit)}`
  }

  function redo(): void {
    const entry = stacks.value.redo.at(-1)
    if (entry && edit(entry.inverse, entry.id)) said.value = `done again: ${editWords(entry.edit)}`
  }

  function keep(): void {
    keepPending(id.value, by, pending.value.map(({ id, by, undoes, edit }) => ({ id, by, undoes, edit })))
  }

  async function sync(): Promise<void> {
    if (syncing) {
      again = true
      return
    }
    const wanted = id.value
    if (!wanted || status.value !== 'ready') {
      if (wanted && status.value === 'failed') await load()
      return
    }
    syncing = true
    clearTimeout(retry)
    try {
      do {
        again = false
        await exchange(wanted)
      } while (wanted === id.value && (again || pending.value.length > 0))
      failures = 0
      if (wanted === id.value) connection.value = 'saved'
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
      if (wanted !== id.value) return
      if (error.status === 404) {
        status.value = 'missing'
        problem.value = error.message
        return
      }
      connection.value = 'away'
      retry = setTimeout(() => void sync(), RETRY_MS[Math.min(failures++, RETRY_MS.length - 1)])
    }
    finally {
      syncing = false
    }
  }

  /** One round: sends what is pending, takes in what others did. */
  async function exchange(wanted: string, most = MOST_SENT): Promise<void> {
    const sent = pending.value.slice(0, most)
    let answer: SyncAnswer
    try {
      const edits = sent.map(({ id, by, undoes, edit }) => ({ id, by, undoes, edit }))
      answer = await api<SyncAnswer>(`/jobs/${wanted}/sync`, { method: 'POST', body: { since: revision, edits } })
    }
    catch (error) {
      // One edit that the server cannot even read must not hold up the others: send singly, and give back the one at fault.
      const unreadable = error instanceof ApiError && (error.status === 422 || error.status === 400 || error.status === 413)
      if (!unreadable || sent.length === 0 || wanted !== id.value) throw error
      if (sent.length > 1) return exchange(wanted, 1)
      refuse(sent[0]!, undefined, error.message)
      settle(new Set([sent[0]!.id]))
      rebuild()
      return
    }
    if (wanted !== id.value) return
    if (answer.entries === null) {
      settle(new Set(answer.results.map(r => r.id)))
      await load()
      return
    }
    takeIn(answer, sent)
  }

  function takeIn(answer: SyncAnswer, sent: LogEntry[]): void {
    const entries = answer.entries!.filter(e => e.seq > revision)
    for (const entry of entries) confirmed = applyEdit(confirmed!, entry.edit).job
    revision = answer.revision
    log.value = [...log.value, ...entries].slice(-LOG_TAIL)

    const results = new Map(answer.results.map(r => [r.id, r]))
    for (const entry of sent) {
      const result = results.get(entry.id)
      if (result?.status === 'refused') refuse(entry, result.refusal, result.message)
    }
    settle(new Set(results.keys()))
    // Where nothing came but our own edits in our own order, the screen is right as it is; drawing stays untouched.
    const onlyOurs = entries.length === sent.length && entries.every((e, k) => e.id === sent[k]!.id)
    if (!onlyOurs) rebuild()
  }

  function settle(done: Set<string>): void {
    pending.value = pending.value.filter(e => !done.has(e.id))
    keep()
  }

  function dismiss(refusedId: string): void {
    refused.value = refused.value.filter(r => r.id !== refusedId)
  }

  /** Does a refused edit after all, on top of what stands there now. */
  function force(refusedId: string): void {
    const found = refused.value.find(r => r.id === refusedId)
    dismiss(refusedId)
    if (found && job.value) edit(onTop(job.value, found.edit))
  }

  return {
    id, status, problem, connection, job, pending, refused, said, canUndo, canRedo, undoName, redoName,
    open, close, edit, undo, redo, dismiss, force, sync,
  }
})

/** The edit with its `was` brought to what is there now. */
function onTop(job: Job, edit: Edit): Edit {
  for (let tries = 0; tries < 20; tries++) {
    try {
      applyEdit(job, edit)
      return edit
    }
    catch (error) {
      if (!(error instanceof EditRefused) || error.refusal.code !== 'changed-meanwhile') return edit
      edit = withWas(edit, error.refusal)
    }
  }
  return edit
}

function withWas(edit: Edit, { field, was, now }: Extract<Refusal, { code: 'changed-meanwhile' }>): Edit {
  const change = (part: Edit): Edit => {
    if (part.kind === 'batch') return { ...part, edits: part.edits.map(e => change(e) as typeof e) }
    if (part.kind === 'lead.set') return field === 'lead' && JSON.stringify(part.was) === JSON.stringify(was) ? { ...part, was: now as typeof part.was } : part
    if (!('was' in part) || !(field in part.was)) return part
    return { ...part, was: { ...part.was, [field]: now } } as Edit
  }
  return change(edit)
}
