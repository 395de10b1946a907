import { same } from '#core/quantity/same'
import { toDocument } from '#core/job/document'
import { takeInSteps } from '#core/job/ledger'
import type { Job } from '#core/job/schema'
import type { EditEntry, OpenedJob, SyncAnswer, SyncRequest } from '#core/job/protocol'
import type { LogEntry } from '#core/job/undo'
import { refusalWords } from '#core/job/words'
import { keptKey, readKept, writeKept, type Kept } from '#core/window/keptEdit'
import { readKeptJob, writeKeptJob } from '#core/window/keptJob'
import { outboxAnswered, outboxRequest } from '#core/window/outbox'
import type { Message, WindowEvent, WindowState } from '#core/window/state'
import { openWindow, step } from '#core/window/window'
import { compositeEdit, randomEdit } from './edits'
import { counter, jobOf } from './jobs'
import { seeded } from './trees'

/**
 * Windows and a server in a world where everything that can go wrong between them does: requests are lost, come twice, late
 * and in another order, answers are lost, windows are reloaded and closed, jobs are changed under them. The windows are the
 * real ones (core/window), the server takes edits in by the real ledger.
 */

class ModelServer {
  readonly jobs = new Map<string, { job: Job, log: (LogEntry & { seq: number })[], isArchived: boolean }>()
  /** Windows further behind than this read the job anew: small, so that it happens. */
  static readonly MOST_ENTRIES = 6

  open(id: string, by: string): OpenedJob {
    const { job, log } = this.jobs.get(id)!
    const own = log.filter(e => e.by === by).slice(-20)
    return JSON.parse(JSON.stringify({ id, revision: log.length, archivedAt: null, job: toDocument(job), log: own })) as OpenedJob
  }

  sync(id: string, { since, by, edits }: SyncRequest): SyncAnswer {
    const held = this.jobs.get(id)!
    const steps = takeInSteps(held.job, edits, new Map(held.log.map(e => [e.id, e.edit])), held.isArchived)
    let next = steps.next()
    while (!next.done) next = steps.next()
    const { job, outcomes } = next.value
    held.job = job
    for (const outcome of outcomes) if (outcome.status === 'applied') held.log.push({ ...outcome.entry, seq: held.log.length + 1 })
    const behind = held.log.length - since
    const sent = new Set(edits.map(e => e.id))
    const told = (e: LogEntry & { seq: number }): EditEntry => ({ ...e, edit: sent.has(e.id) ? null : e.edit, inverse: e.by === by ? e.inverse : null })
    return JSON.parse(JSON.stringify({
      revision: held.log.length,
      results: outcomes.map(o => o.status === 'refused' ? { ...o, message: refusalWords(o.refusal) } : { id: o.id, status: o.status }),
      entries: behind < 0 || behind > ModelServer.MOST_ENTRIES ? null : held.log.slice(since).map(told),
    })) as SyncAnswer
  }
}

interface Device { storage: Map<string, string>, jobs: Map<string, string> }
interface Tab { device: Device, by: string, window: WindowState | null, timers: number, life: number }
/** Something on its way. `life`: the tab has been reloaded or has another job since, and will not hear it. */
interface Parcel { tab: Tab, life: number, jobId: string, number: number, to: 'server' | 'tab', ask: 'job' | SyncRequest, event: WindowEvent | null }

const UNREADABLE = ['plain-match.kept.j1.damaged', '{"version": 1, "at"'] as const

export interface ScheduleResult { made: number, refused: number, dismissed: number, trouble: string | null }

/** Plays one schedule; `trouble` says what was lost, doubled or left hanging. */
export function playSchedule(seed: number): ScheduleResult {
  const chance = seeded(seed)
  const newId = counter(`s${seed}e`)
  const server = new ModelServer()
  for (const id of ['j1', 'j2']) server.jobs.set(id, { job: { ...jobOf('3 x 10 W on 70 V 100 W', '(8 + 8) || 8 on 100 W at 4'), name: id }, log: [], isArchived: false })
  const devices: Device[] = [{ storage: new Map([UNREADABLE]), jobs: new Map() }, { storage: new Map(), jobs: new Map() }]
  const tabs: Tab[] = Array.from({ length: 2 + Math.floor(chance() * 2) }, (_, k) => ({ device: devices[k === 2 ? 1 : 0]!, by: `w${k}`, window: null, timers: 0, life: 0 }))
  let parcels: Parcel[] = []
  let clock = 0
  const made = new Set<string>()
  const dismissed = new Set<string>()
  const pick = <T>(list: readonly T[]): T => list[Math.floor(chance() * list.length)]!

  function keptOn({ storage }: Device): Kept[] {
    return [...storage].flatMap(([key, text]) => readKept(key, text) ?? []).flatMap(found => found.kept ? [found.kept] : [])
  }
  /** A window takes over what was left by windows that are no more, and its own of before a reload. */
  function adoptable(tab: Tab): Kept[] {
    const living = new Set(tabs.filter(t => t !== tab && t.window).map(t => t.by))
    return keptOn(tab.device).filter(k => !living.has(k.stamped.by))
  }

  const recalled = ({ jobs }: Device, jobId: string) => jobs.has(jobId) ? readKeptJob(jobs.get(jobId)!) : null
  function act(tab: Tab, messages: readonly Message[]): void {
    for (const message of messages) {
      const { jobId } = tab.window!
      switch (message.do) {
        case 'read job': parcels.push({ tab, life: tab.life, jobId, number: message.number, to: 'server', ask: 'job', event: null }); break
        case 'exchange': parcels.push({ tab, life: tab.life, jobId, number: message.number, to: 'server', ask: message.request, event: null }); break
        case 'keep': for (const kept of message.kept) tab.device.storage.set(keptKey(kept.jobId, kept.stamped.id), writeKept(kept)); break
        case 'let go': for (const id of message.ids) tab.device.storage.delete(keptKey(jobId, id)); break
        // A database of the browser answers later: what it says may be old by then.
        case 'look': parcels.push({ tab, life: tab.life, jobId, number: -1, to: 'tab', ask: 'job', event: { is: 'found', kept: adoptable(tab) } }); break
        case 'remember': tab.device.jobs.set(jobId, writeKeptJob(tab.window!)); break
        case 'recall': parcels.push({ tab, life: tab.life, jobId, number: -1, to: 'tab', ask: 'job', event: { is: 'remembered', answer: recalled(tab.device, jobId) } }); break
        case 'wait': tab.timers++
      }
    }
  }
  function tell(tab: Tab, event: WindowEvent): void {
    if (!tab.window) return
    const next = step(tab.window, event)
    tab.window = next.state
    act(tab, next.messages)
  }
  function openJob(tab: Tab, jobId: string): void {
    const next = openWindow(jobId, tab.by)
    tab.life++
    tab.timers = 0
    tab.window = next.state
    act(tab, next.messages)
  }
  function closeTab(tab: Tab): void {
    tab.life++
    tab.window = null
  }

  function deliver(parcel: Parcel): void {
    const { tab, life, jobId, number, ask } = parcel
    if (parcel.to === 'tab') {
      if (tab.life === life) tell(tab, parcel.event!)
      return
    }
    const before = server.jobs.get(jobId)!.log.length
    const event: WindowEvent = ask === 'job' ? { is: 'opened', number, answer: server.open(jobId, tab.by) } : { is: 'answered', number, answer: server.sync(jobId, ask) }
    parcels.push({ ...parcel, to: 'tab', event })
    const revision = server.jobs.get(jobId)!.log.length
    if (revision === before) return
    for (const other of tabs) if (other.window?.jobId === jobId && chance() < 0.7) tell(other, { is: 'heard', revision })
  }
  /** The request or its answer never arrives: the window is told after its patience. */
  function lose(parcel: Parcel): void {
    if (parcel.number === -1) parcels.push(parcel)
    else if (parcel.tab.life === parcel.life) tell(parcel.tab, { is: 'failed', number: parcel.number, problem: { kind: 'away', message: 'away' } })
  }
  function takeParcel(): Parcel | null {
    if (parcels.length === 0) return null
    const parcel = pick(parcels)
    parcels = parcels.filter(p => p !== parcel)
    return parcel
  }

  function edit(tab: Tab): void {
    const { window } = tab
    if (!window?.job) return
    const id = newId()
    const roll = chance()
    const wanted = roll < 0.25
      ? { kind: 'job.set' as const, was: { name: window.job.name }, to: { name: `named ${id}` } }
      : roll < 0.4 ? compositeEdit(window.job, chance, newId) : randomEdit(window.job, chance, newId)
    const at = clock++
    if (roll > 0.85) tell(tab, { is: roll > 0.93 ? 'redo' : 'undo', id, at })
    else if (wanted) tell(tab, { is: 'done', id, at, edit: wanted })
    if (tab.window!.pending.some(p => p.stamped.id === id)) made.add(id)
  }
  function decide(tab: Tab): void {
    const refused = tab.window?.refused[0]
    if (!refused) return
    const { id } = refused.stamped
    dismissed.add(id)
    if (chance() < 0.5) return tell(tab, { is: 'dismissed', id })
    const again = newId()
    tell(tab, { is: 'forced', id, newId: again, at: clock++ })
    if (tab.window!.pending.some(p => p.stamped.id === again)) made.add(again)
  }
  /** The page with the list of jobs: sends what waits of windows that are no more. */
  function outbox(device: Device, isLost: () => boolean): void {
    const living = new Set(tabs.filter(t => t.device === device && t.window).map(t => t.by))
    for (const jobId of server.jobs.keys()) {
      for (let round = 0; round < 50; round++) {
        const kept = keptOn(device).filter(k => k.jobId === jobId && !living.has(k.stamped.by))
        const request = outboxRequest(kept)
        if (!request) break
        const answer = server.sync(jobId, request)
        if (isLost()) break
        const { letGo, keep } = outboxAnswered(kept, answer)
        for (const id of letGo) device.storage.delete(keptKey(jobId, id))
        for (const k of keep) device.storage.set(keptKey(jobId, k.stamped.id), writeKept(k))
      }
    }
  }

  for (const tab of tabs) openJob(tab, pick(['j1', 'j1', 'j2']))
  for (let turn = 40 + Math.floor(chance() * 100); turn > 0; turn--) {
    const tab = pick(tabs)
    const roll = chance()
    if (roll < 0.40) edit(tab)
    else if (roll < 0.66) onParcel(deliver)
    else if (roll < 0.71) onParcel(lose)
    else if (roll < 0.74) onParcel(deliverTwice)
    else if (roll < 0.80) fireTimer(tab)
    else if (roll < 0.84) openJob(tab, tab.window?.jobId ?? 'j1')
    else if (roll < 0.88) openJob(tab, pick(['j1', 'j2']))
    else if (roll < 0.91) closeTab(tab)
    else if (roll < 0.94) decide(tab)
    else if (roll < 0.96) outbox(tab.device, () => chance() < 0.4)
    else if (roll < 0.98) archive(pick(['j1', 'j2']))
    else tell(tab, { is: 'heard', revision: null })
  }

  /** The request comes twice; the answer to the first is not heard. */
  function deliverTwice(parcel: Parcel): void {
    if (parcel.to === 'server') deliver({ ...parcel, life: -1 })
    parcels.push(parcel)
  }
  function onParcel(run: (parcel: Parcel) => void): void {
    const parcel = takeParcel()
    if (parcel) run(parcel)
  }
  function fireTimer(tab: Tab): void {
    if (tab.timers === 0) return
    tab.timers--
    tell(tab, { is: 'again' })
  }
  function archive(id: string): void {
    const held = server.jobs.get(id)!
    held.isArchived = !held.isArchived && chance() < 0.4
  }

  // The server is there again and everything arrives; every window hears that it may have missed something.
  const settle = () => {
    for (let round = 0; round < 400 && (parcels.length > 0 || tabs.some(t => t.timers > 0)); round++) {
      onParcel(deliver)
      for (const tab of tabs) fireTimer(tab)
    }
  }
  settle()
  for (const tab of tabs) tell(tab, { is: 'heard', revision: null })
  settle()
  const hanging = tabs.flatMap(({ window, by }) => {
    if (!window) return []
    const there = toDocument(server.jobs.get(window.jobId)!.job)
    if (window.phase !== 'ready' || window.asking || window.pending.length > 0) return [`${by} hangs: ${window.phase}, ${window.pending.length} pending`]
    return same(toDocument(window.job!), there) ? [] : [`${by} shows another job than the server has`]
  })
  const shown = new Set(tabs.flatMap(t => t.window?.refused.map(r => r.stamped.id) ?? []))
  for (const tab of tabs) closeTab(tab)
  for (const device of devices) outbox(device, () => false)

  const onServer = [...server.jobs.values()].flatMap(j => j.log.map(e => e.id))
  const times = new Map<string, number>()
  for (const id of onServer) times.set(id, (times.get(id) ?? 0) + 1)
  const waiting = devices.flatMap(keptOn)
  const refusedIds = new Set(waiting.filter(k => k.refused && k.refused.message.length > 5).map(k => k.stamped.id))
  const lost = [...made].filter(id => !times.has(id) && !refusedIds.has(id) && !dismissed.has(id))
  const unseen = [...shown].filter(id => made.has(id) && !refusedIds.has(id) && !dismissed.has(id))
  const trouble = [
    ...hanging,
    ...lost.map(id => `${id} is neither on the server nor in front of anybody`),
    ...unseen.map(id => `${id} was refused, and would be forgotten by a reload`),
    ...[...times].filter(([, count]) => count > 1).map(([id]) => `${id} counts twice`),
    ...waiting.filter(k => !k.refused).map(k => `${k.stamped.id} waits for ever`),
    ...devices[0]!.storage.get(UNREADABLE[0]) === UNREADABLE[1] ? [] : ['what could not be read was dropped'],
  ]
  return { made: made.size, refused: refusedIds.size, dismissed: dismissed.size, trouble: trouble[0] ?? null }
}
