import { applyEdit } from '#core/job/apply'
import { fromDocument } from '#core/job/document'
import type { Edit } from '#core/job/edits'
import { EditRefused, type Refusal } from '#core/job/refusal'
import { FORMAT_VERSION, type Job } from '#core/job/schema'
import { UNDO_REACH, undoStacks, type LogEntry, type UndoStacks } from '#core/job/undo'
import type { EditEntry, OpenedJob, SyncAnswer } from '#core/job/protocol'
import { historyWords } from '#core/job/historyWords'
import { refusalWords } from '#core/job/words'
import { inOrder, type Kept } from './keptEdit'
import { onTop } from './rebase'
import { nextRequest, retryMs } from './request'
import type { Failure, Message, News, Pending, Refused, Step, WindowEvent, WindowState } from './state'

/** A window that has just been given a job to open. */
export function openWindow(jobId: string, by: string, who: string | null = null): Step {
  return onward({
    jobId, by, who, phase: 'loading', problem: '', confirmed: null, revision: 0, job: null, log: [], news: [], pending: [], refused: [], isAway: false, said: '',
    asking: null, asked: 0, wantsJob: true, wantsNews: false, failures: 0, isSingle: false,
  })
}

/** One event, one new state, and what is to be done about it. Pure: the same events give the same states. */
export function step(state: WindowState, event: WindowEvent): Step {
  switch (event.is) {
    case 'opened': return isMine(state, event.number) ? opened(state, event.answer) : { state, messages: [] }
    case 'answered': return isMine(state, event.number) ? answered(state, event.answer) : { state, messages: [] }
    case 'failed': return isMine(state, event.number) ? failed(state, event.problem) : { state, messages: [] }
    case 'done': return done(state, event.edit, event.id, event.at, null, historyWords(event.edit, state.job))
    case 'undo': return turnBack(state, 'undo', event.id, event.at)
    case 'redo': return turnBack(state, 'redo', event.id, event.at)
    case 'remembered': return remembered(state, event.answer)
    case 'found': return found(state, event.kept)
    case 'heard': return event.revision !== null && event.revision <= state.revision ? { state, messages: [] } : onward({ ...state, wantsNews: true })
    case 'again': return onward({ ...state, wantsNews: state.phase === 'ready' })
    case 'dismissed': return { state: withoutRefused(state, event.id), messages: [{ do: 'let go', ids: [event.id] }] }
    case 'forced': return forced(state, event.id, event.newId, event.at)
  }
}

export function stacksOf({ log, pending, by }: Pick<WindowState, 'log' | 'pending' | 'by'>): UndoStacks {
  return undoStacks([...log, ...pending.flatMap(({ stamped, inverse, at }) => inverse === null ? [] : [{ ...stamped, inverse, at }])], by)
}

/** How it stands with the server: all is there, on its way, or waiting here. */
export function connectionOf({ isAway, pending }: Pick<WindowState, 'isAway' | 'pending'>): 'saved' | 'saving' | 'away' {
  return isAway ? 'away' : pending.length > 0 ? 'saving' : 'saved'
}

function isMine({ asking }: WindowState, number: number): boolean {
  return asking?.number === number
}

/** Asks the server for what is wanted next, if nothing is under way. */
function onward(state: WindowState, messages: Message[] = []): Step {
  if (state.asking || state.phase === 'missing') return { state, messages }
  const number = state.asked + 1
  if (state.wantsJob || state.phase !== 'ready') {
    return { state: { ...state, asked: number, asking: { number, what: 'job', ids: [] } }, messages: [...messages, { do: 'read job', number }] }
  }
  if (!state.wantsNews && state.pending.length === 0) return { state, messages }
  const edits = nextRequest(state.pending.map(p => p.stamped), state.isSingle)
  return {
    state: { ...state, asked: number, asking: { number, what: 'exchange', ids: edits.map(e => e.id) }, wantsNews: false },
    messages: [...messages, { do: 'exchange', number, request: { since: state.revision, by: state.by, version: FORMAT_VERSION, edits } }],
  }
}

function opened(state: WindowState, answer: OpenedJob): Step {
  const reached = { ...state, asking: null, isAway: false, failures: 0 }
  if (answer.job.version !== FORMAT_VERSION) {
    return { state: { ...reached, phase: 'failed', problem: 'The server has a newer program than this page. Read the page anew.' }, messages: [{ do: 'wait', ms: retryMs(Infinity) }] }
  }
  const { kept, ids } = settled(state, new Set(answer.log.map(e => e.id)))
  const confirmed = fromDocument(answer.job)
  const next = rebuilt({ ...reached, ...kept, phase: 'ready', problem: '', wantsJob: false, confirmed, revision: answer.revision, log: answer.log })
  return onward(next, [...letGo(ids), { do: 'remember' }, { do: 'look' }])
}

/** As this device last had it: shown and worked on, and read anew as soon as the server answers. */
function remembered(state: WindowState, answer: OpenedJob | null): Step {
  if (answer === null || state.job !== null || state.phase === 'missing' || answer.job.version !== FORMAT_VERSION) return { state, messages: [] }
  const known = { confirmed: fromDocument(answer.job), revision: answer.revision, log: answer.log }
  return { state: rebuilt({ ...state, ...known, phase: 'ready', problem: '', isAway: true, wantsJob: true }), messages: [{ do: 'look' }] }
}

function answered(state: WindowState, answer: SyncAnswer): Step {
  const sent = new Set(state.asking!.ids)
  const reached = { ...state, asking: null, isAway: false, failures: 0, isSingle: state.isSingle && state.pending.length > sent.size }
  const results = new Map(answer.results.map(r => [r.id, r]))
  const refused = state.pending.flatMap(({ stamped, at }) => {
    const result = results.get(stamped.id)
    return result?.status === 'refused' ? [{ stamped, at, message: result.message, code: result.refusal.code }] : []
  })
  const news = answer.entries && withBodies(state, answer.entries)
  // What others' edits of this answer confirm is confirmed, too: an earlier request of ours may have arrived after all.
  const confirmedIds = [...answer.results.filter(r => r.status !== 'refused').map(r => r.id), ...(news ?? []).map(e => e.id)]
  const { kept, ids } = settled(reached, new Set(confirmedIds))
  const without = refused.reduce<WindowState>(withRefused, { ...reached, ...kept })
  const messages = [...letGo(ids), ...keepRefused(without, refused)]
  const remember: Message[] = answer.revision === state.revision ? [] : [{ do: 'remember' }]

  const onlyOurs = news !== null && news.length === sent.size && news.every((e, k) => e.id === state.asking!.ids[k])
  // Where nothing came but our own edits in our own order, what is shown is right as it is, and drawn by its identity.
  if (onlyOurs && without.pending.length === 0) {
    return onward({ ...without, confirmed: state.job, revision: answer.revision, log: logged(state, news) }, [...messages, ...remember])
  }
  const confirmed = news && withEntries(state.confirmed!, news)
  if (!confirmed) return onward({ ...without, wantsJob: true }, messages)
  const next = { ...without, confirmed, revision: answer.revision, log: logged(state, news), news: toldOf(state, news, confirmed) }
  return onward(onlyOurs ? next : rebuilt(next), [...messages, ...remember])
}

/** What came, with the edits that this window sent put in again: they are not sent back to it. */
function withBodies({ pending }: WindowState, entries: readonly EditEntry[]): (EditEntry & { edit: Edit })[] | null {
  const sent = new Map(pending.map(p => [p.stamped.id, p.stamped.edit]))
  const all = entries.map(entry => ({ ...entry, edit: entry.edit ?? sent.get(entry.id) ?? null }))
  return all.every((e): e is EditEntry & { edit: Edit } => e.edit !== null) ? all : null
}

/** So much of what others do is kept in sight. */
const MOST_NEWS = 40

/** Told by the names of the job as it is now: of what was taken away nothing more is known. */
function toldOf({ news, by }: WindowState, entries: readonly (EditEntry & { edit: Edit })[], job: Job): WindowState['news'] {
  const others = entries.filter(e => e.by !== by).slice(-MOST_NEWS)
  if (others.length === 0) return news
  return [...news, ...others.map(({ id, by, who, edit }): News => ({ id, by, who, says: historyWords(edit, job) }))].slice(-MOST_NEWS)
}

function logged({ log, by, pending }: WindowState, news: readonly (EditEntry & { edit: Edit })[]): WindowState['log'] {
  const doneAt = new Map(pending.map(p => [p.stamped.id, p.at]))
  const own = news.flatMap(({ id, who, undoes, edit, inverse, ...e }): LogEntry[] => {
    const at = doneAt.get(id)
    return e.by === by && inverse ? [{ id, by, who, undoes, edit, inverse, ...at === undefined ? {} : { at } }] : []
  })
  return own.length === 0 ? log : [...log, ...own].slice(-UNDO_REACH)
}

/** The job with the server's edits; null when one does not fit: then what is known here is not what the server has. */
function withEntries(job: Job, entries: readonly (EditEntry & { edit: Edit })[]): Job | null {
  try {
    return entries.reduce((current, entry) => applyEdit(current, entry.edit, 'taken').job, job)
  }
  catch {
    return null
  }
}

function failed(state: WindowState, { kind, message }: Failure): Step {
  const { what, ids } = state.asking!
  const idle = { ...state, asking: null }
  if (kind === 'missing') return { state: { ...idle, phase: 'missing', problem: message }, messages: [] }
  if (kind === 'unreadable' && what === 'exchange' && ids.length > 0) return unreadable(idle, ids, message)
  const away = { ...idle, isAway: true, failures: state.failures + 1 }
  const wait: Message = { do: 'wait', ms: retryMs(state.failures) }
  if (state.phase === 'ready') return { state: away, messages: [wait] }
  return { state: { ...away, phase: 'failed', problem: message }, messages: [{ do: 'recall' }, wait] }
}

/** One edit that the server cannot even read must not hold up the others: they go singly, and the one at fault is given back. */
function unreadable(state: WindowState, ids: readonly string[], message: string): Step {
  if (ids.length > 1) return onward({ ...state, isSingle: true })
  const atFault = state.pending.filter(p => p.stamped.id === ids[0]).map(({ stamped, at }) => ({ stamped, at, message, code: null }))
  const without = atFault.reduce<WindowState>(withRefused, { ...state, isSingle: false, pending: state.pending.filter(p => p.stamped.id !== ids[0]) })
  return onward(rebuilt(without), keepRefused(without, atFault))
}

function done(state: WindowState, edit: Edit, id: string, at: number, undoes: string | null, said: string): Step {
  if (!state.job) return { state, messages: [] }
  const stamped = { id, by: state.by, who: state.who, undoes, edit }
  try {
    const { job, inverse } = applyEdit(state.job, edit, undoes === null ? 'new' : 'undo')
    const next = { ...state, job, said, pending: [...state.pending, { stamped, at, inverse }] }
    return onward(next, [{ do: 'keep', kept: [keptOf(next, stamped, at, null)] }])
  }
  catch (error) {
    if (!(error instanceof EditRefused)) throw error
    return { state: withRefused(state, { stamped, message: refusalWords(error.refusal), code: error.refusal.code }), messages: [] }
  }
}

function turnBack(state: WindowState, which: 'undo' | 'redo', id: string, at: number): Step {
  const last = stacksOf(state)[which].at(-1)
  if (!last) return { state, messages: [] }
  // What is named is what the hand once did, in both directions: "done again: speaker moved".
  return done(state, last.entry.inverse, id, at, last.entry.id, `${which === 'undo' ? 'undone' : 'done again'}: ${historyWords(last.original.edit, state.job)}`)
}

function found(known: WindowState, kept: readonly Kept[]): Step {
  if (known.phase !== 'ready') return { state: known, messages: [] }
  // Taken over from another window, refused here, and no more on the device: that window is back, and it was done or decided there.
  const still = new Set(kept.map(k => k.stamped.id))
  const state = { ...known, refused: known.refused.filter(r => r.stamped.by === known.by || still.has(r.stamped.id)) }
  const here = new Set([...state.pending.map(p => p.stamped.id), ...state.refused.map(r => r.stamped.id)])
  const confirmed = new Set(state.log.map(e => e.id))
  const ours = inOrder(kept).filter(k => k.jobId === state.jobId && !here.has(k.stamped.id))
  const left = ours.filter(k => !confirmed.has(k.stamped.id))
  const refused = left.flatMap(k => k.refused ? [{ stamped: k.stamped, ...k.refused }] : [])
  const waiting = left.filter(k => !k.refused).map(({ stamped, at }): Pending => ({ stamped, at, inverse: null }))
  const messages = letGo(ours.filter(k => confirmed.has(k.stamped.id)).map(k => k.stamped.id))
  if (left.length === 0) return { state, messages }
  // What is on its way has been sent already: it stays first. The rest goes in the order in which it was done.
  const sent = new Set(state.asking?.ids ?? [])
  const rest = [...state.pending.filter(p => !sent.has(p.stamped.id)), ...waiting].sort((a, b) => a.at - b.at)
  const next = { ...state, refused: [...state.refused, ...refused], pending: [...state.pending.filter(p => sent.has(p.stamped.id)), ...rest] }
  return onward(waiting.length > 0 ? rebuilt(next) : next, messages)
}

/** Does a refused edit after all, on top of what stands there now. */
function forced(state: WindowState, id: string, newId: string, at: number): Step {
  const refused = state.refused.find(r => r.stamped.id === id)
  if (!refused || !state.job) return { state, messages: [] }
  const { edit } = refused.stamped
  const { state: next, messages } = done(withoutRefused(state, id), onTop(state.job, edit), newId, at, null, historyWords(edit, state.job))
  // It is kept under its new name before the old one is let go.
  return { state: next, messages: [...messages, { do: 'let go', ids: [id] }] }
}

/** The job shown: confirmed with all pending edits that fit. One that does not is asked of the server all the same, which says why not. */
function rebuilt(state: WindowState): WindowState {
  let job = state.confirmed!
  const pending = state.pending.map((entry): Pending => {
    try {
      const applied = applyEdit(job, entry.stamped.edit, entry.stamped.undoes === null ? 'new' : 'undo')
      job = applied.job
      return { ...entry, inverse: applied.inverse }
    }
    catch (error) {
      if (!(error instanceof EditRefused)) throw error
      return { ...entry, inverse: null }
    }
  })
  return { ...state, job, pending }
}

/** Takes what the server has out of what waits; the ids of it. A refused edit that arrived after all is no longer refused. */
function settled(state: WindowState, has: ReadonlySet<string>): { kept: Pick<WindowState, 'pending' | 'refused'>, ids: string[] } {
  const ids = [...state.pending, ...state.refused].map(p => p.stamped.id).filter(id => has.has(id))
  return { kept: { pending: state.pending.filter(p => !has.has(p.stamped.id)), refused: state.refused.filter(r => !has.has(r.stamped.id)) }, ids }
}

function withRefused(state: WindowState, { stamped, message, code }: Refused): WindowState {
  return {
    ...withoutRefused(state, stamped.id), said: message, pending: state.pending.filter(p => p.stamped.id !== stamped.id),
    refused: [...state.refused.filter(r => r.stamped.id !== stamped.id), { stamped, message, code }],
  }
}

function withoutRefused(state: WindowState, id: string): WindowState {
  return { ...state, refused: state.refused.filter(r => r.stamped.id !== id) }
}

function keptOf(state: WindowState, stamped: Pending['stamped'], at: number, refused: { message: string, code: Refusal['code'] | null } | null): Kept {
  return { jobId: state.jobId, jobName: state.job?.name ?? '', at, stamped, refused }
}

function keepRefused(state: WindowState, refused: readonly (Refused & { at: number })[]): Message[] {
  return refused.length === 0 ? [] : [{ do: 'keep', kept: refused.map(({ stamped, at, message, code }) => keptOf(state, stamped, at, { message, code })) }]
}

function letGo(ids: string[]): Message[] {
  return ids.length === 0 ? [] : [{ do: 'let go', ids }]
}
