import { emptyJob } from '#core/job/document'
import { applyEdit } from '#core/job/apply'
import type { Job, TicketHead, Written } from '#core/job/schema'
import { UNMEASURED } from '#core/job/sections/tickets/schema'
import { ticketOf, writing, type Ticket } from '#core/bench/ticket'

/** Tickets for tests: what is written, an hour apart, in order. */

export const head = (more: Partial<TicketHead> = {}): TicketHead => ({ unit: 'Handset', kind: 'handset', ...UNMEASURED, labelOhm: 32, labelW: 0.5, complaint: 'one side is dead', folklore: '', from: null, ...more })
const atHour = (k: number) => new Date(Date.UTC(2026, 4, 4) + k * 3_600_000).toISOString()

export function written(job: Job, ticketId: string, ...whats: Written[]): Job {
  return whats.reduce((so, what) => {
    const k = so.tickets.size
    return applyEdit(so, writing(ticketId, what, { id: what.is === 'opened' ? ticketId : `e${k}`, at: atHour(k), who: null })).job
  }, job)
}
export const bench = (...whats: Written[]): Job => written(emptyJob('Bench'), 't', { is: 'opened', head: head() }, ...whats)
export const ticket = (more: Partial<TicketHead>, ...whats: Written[]): Ticket => ticketOf(written(emptyJob('Bench'), 't', { is: 'opened', head: head(more) }, ...whats), 't')!

export const answer = (to: string, answer: string) => ({ is: 'answer', to, answer }) as Written
export const coil = (ohm: number | null, more: object = {}): Written => ({ is: 'reading', of: 'coil', unit: 'this', ohm, condition: 'as-it-lay', meter: '', leadsOhm: 0.2, ...more })
export const right = (check: Extract<Written, { is: 'check' }>['check'], isRight = true): Written => ({ is: 'check', check, isRight, note: '' })
