import { computed } from 'vue'
import { defineStore } from 'pinia'
import { BENCH_ID } from '#core/job/bench'
import { together } from '#core/job/edits'
import type { SimpleEdit } from '#core/job/edits'
import type { Written } from '#core/job/schema'
import { ticketsOf, writing } from '#core/bench/ticket'
import { newId } from '~/api/ids'
import { whoHere } from '~/door/me'
import { useJobStore } from '~/stores/job'

/** The bench, which is kept as a job is: what is opened is the job store's. */
export const useBenchStore = defineStore('bench', () => {
  const jobs = useJobStore()
  const isOpen = computed(() => jobs.id === BENCH_ID && jobs.job !== null)
  const tickets = computed(() => isOpen.value ? ticketsOf(jobs.opened) : [])
  const drawer = computed(() => isOpen.value ? jobs.opened.drawer : [])
  /** Tickets whose opening the server has not numbered yet. */
  const unnumbered = computed(() => new Set((jobs.pending ?? []).flatMap(({ stamped: { edit } }) => edit.kind === 'ticket.write' && edit.entry.what.is === 'opened' ? [edit.entry.id] : [])))

  const stamp = () => ({ id: newId(), at: new Date().toISOString(), who: whoHere() })
  /** Opens a ticket; its id, null where that was not taken. */
  function open(head: Extract<Written, { is: 'opened' }>['head']): string | null {
    const edit = writing('', { is: 'opened', head }, stamp())
    return jobs.edit(edit) ? edit.entry.id : null
  }
  /** Writes on a ticket, all of it as one. `besides`: what changes with it, as the count in the drawer. */
  function write(ticketId: string, whats: readonly Written[], besides: readonly SimpleEdit[] = []): boolean {
    return jobs.edit(together([...whats.map(what => writing(ticketId, what, stamp())), ...besides]))
  }
  /** The same on several tickets, as one. */
  const writeOn = (ticketIds: readonly string[], what: Written): boolean => jobs.edit(together(ticketIds.map(id => writing(id, what, stamp()))))
  const withdraw = (entryId: string) => jobs.edit({ kind: 'ticket.withdraw', entryId, withdrawn: true })

  return { isOpen, tickets, drawer, unnumbered, open, write, writeOn, withdraw }
})

/** Today, as a day of this device's clock. */
export function today(): string {
  const now = new Date()
  return new Date(now.getTime() - 60_000 * now.getTimezoneOffset()).toISOString().slice(0, 10)
}
const WHEN = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
export const whenText = (at: string) => WHEN.format(new Date(at))
const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' })
export const dayText = (day: string) => DAY.format(new Date(`${day.slice(0, 10)}T12:00:00Z`))
