import { ticketsOf, writing } from '#core/bench/ticket'
import { applyEdit } from '#core/job/apply'
import { emptyJob } from '#core/job/document'
import { together } from '#core/job/edits'
import type { Job, Written } from '#core/job/schema'
import { UNMEASURED } from '#core/job/sections/tickets/schema'
import { quantile } from './timing'

/** A bench of 3,000 tickets, fourteen rows each: folded when it is opened, and after each row that is written. */
export const TICKETS = 3000
const ROWS: Written[] = [
  { is: 'answer', to: 'plays', answer: 'scratchy' }, { is: 'step', step: 'off' }, { is: 'step', step: 'unplugged' }, { is: 'part', kind: 'screw', name: 'screw', count: 4, place: 'corners' },
  ...[3.4, 3.5, 36, 3.4, 41].map((ohm): Written => ({ is: 'reading', of: 'coil', unit: 'this', ohm, condition: 'as-it-lay', meter: 'yellow one', leadsOhm: 0.2 })),
  { is: 'said', as: 'found', text: 'its coil comes and goes' }, { is: 'check', check: 'power', isRight: true, note: '' }, { is: 'check', check: 'listen', isRight: true, note: '' },
  { is: 'state', state: 'waits', on: null, as: null, reason: 'driver ordered' },
]

export function benchTimes(): { firstMs: number, afterRowMs: number, rows: number } {
  const at = (k: number) => new Date(Date.UTC(2026, 0, 5) + 60_000 * k).toISOString()
  let count = 0
  const stamp = () => ({ id: `e${count}`, at: at(count++), who: null })
  const whole = Array.from({ length: TICKETS }, (_, k) => {
    const opened = writing('', { is: 'opened', head: { unit: `Handset ${k % 40}`, kind: 'handset', ...UNMEASURED, complaint: 'one side is dead', folklore: '', from: null } }, stamp())
    return [opened, ...ROWS.map(what => writing(opened.entry.id, what, stamp()))]
  })
  let job: Job = emptyJob('Bench')
  // As it comes in: some thousand at once.
  for (let k = 0; k < whole.length; k += 100) job = applyEdit(job, together(whole.slice(k, k + 100).flat())!).job
  const timed = () => {
    const from = performance.now()
    ticketsOf(job)
    return performance.now() - from
  }
  const firstMs = timed()
  const after: number[] = []
  for (let k = 0; k < 20; k++) {
    job = applyEdit(job, writing(whole[37 * k]![0]!.entry.id, ROWS[4]!, stamp())).job
    after.push(timed())
  }
  return { firstMs, afterRowMs: quantile(after, 0.5), rows: job.tickets.size }
}
