import { InputError } from '#core/quantity/inputError'
import { LEAST_READINGS, SKIN_C, thermalReport, type Warm } from './thermal'
import { writtenOf, type Entry, type Ticket } from './ticket'

/** Warm-up runs of a ticket: what was typed while they went on, and what each says. */

export interface WarmRun {
  run: Entry<'run'>
  warm: Warm[]
  /** The baseline that it is held against: the last with a right load; null: none, or it is one itself. */
  baseline: Warm[] | null
  limitC: number
  /** Null while too little was read, or what was read is no run: then `why` says so. */
  report: ReturnType<typeof thermalReport> | null
  why: string
}

/** By minute; of two at one minute the later counts. */
export function warmOf(ticket: Pick<Ticket, 'entries'>, runId: string): Warm[] {
  const byMinute = new Map(writtenOf(ticket, 'warm').filter(({ what }) => what.runId === runId).map(({ what: { minute, celsius } }) => [minute, celsius]))
  return [...byMinute].map(([minute, celsius]) => ({ minute, celsius })).sort((a, b) => a.minute - b.minute)
}

export function runsOf(ticket: Pick<Ticket, 'entries'>): WarmRun[] {
  const runs = writtenOf(ticket, 'run')
  return runs.map((run) => {
    const warm = warmOf(ticket, run.id)
    const right = run.what.run === 'baseline' ? null : runs.findLast(r => r.what.run === 'baseline' && warmOf(ticket, r.id).length >= LEAST_READINGS)
    const baseline = right ? warmOf(ticket, right.id) : null
    const limitC = run.what.limitC ?? SKIN_C
    // At the limit it is off, however little was read.
    if (warm.length < LEAST_READINGS) return { run, warm, baseline, limitC, report: null, why: warm.some(w => w.celsius >= limitC) ? 'It has reached the limit. Off, and let it cool.' : `${LEAST_READINGS - warm.length} more before anything can be said.` }
    try {
      return { run, warm, baseline, limitC, report: thermalReport(warm, baseline, limitC), why: '' }
    }
    catch (error) {
      if (!(error instanceof InputError)) throw error
      return { run, warm, baseline, limitC, report: null, why: error.message }
    }
  })
}
