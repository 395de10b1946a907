import type { Knex } from 'knex'
import { BENCH_ID } from '#core/job/bench'
import { MOST_PARTS, type SimpleEdit } from '#core/job/edits'
import type { Job } from '#core/job/schema'
import { countOf } from '#core/quantity/write'
import { newId } from './newId'
import { readDrawing, syncJob } from './service'

/**
 * What a file of a bench holds, written on the bench of this place: what it has already stays as it is. A job shows no tickets: one that was made of such a
 * file would have kept them where nobody sees them.
 * @returns what came of it, in sentences
 */
export async function takeBenchIn(db: Knex, { tickets, drawer }: Pick<Job, 'tickets' | 'drawer'>): Promise<string[]> {
  const there = new Set((await db('tickets').where({ job_id: BENCH_ID }).select('id') as { id: string }[]).map(row => row.id))
  const lies = (await readDrawing(db, BENCH_ID))?.drawer ?? []
  const known = new Set(lies.map(d => d.id))
  const edits: SimpleEdit[] = [
    ...drawer.filter(d => !known.has(d.id)).map((item, k) => ({ kind: 'drawer.add' as const, index: lies.length + k, item })),
    ...[...tickets].filter(e => !there.has(e.id)).map(entry => ({ kind: 'ticket.write' as const, entry })),
  ]
  const refused: string[] = []
  for (let from = 0; from < edits.length; from += MOST_PARTS) {
    const stamped = { id: newId(), by: 'file-in', who: null, undoes: null, edit: { kind: 'batch' as const, edits: edits.slice(from, from + MOST_PARTS) } }
    const answer = await syncJob(db, BENCH_ID, { since: 0, by: 'file-in', edits: [stamped] })
    refused.push(...(answer?.results ?? []).flatMap(r => r.status === 'refused' ? r.message : []))
  }
  const came = edits.filter(e => e.kind === 'ticket.write').length
  const rest = tickets.size - came
  return [
    ...refused.length > 0 ? refused.map(why => `Not written on the bench: ${why}`) : [`${countOf(came, 'entry', 'entries')} of tickets and ${countOf(edits.length - came, 'thing')} of the drawer were written on the bench here.`],
    ...rest > 0 ? [`${countOf(rest, 'entry', 'entries')} of tickets ${rest === 1 ? 'was' : 'were'} here already, and ${rest === 1 ? 'stays as it is' : 'stay as they are'}.`] : [],
  ]
}

/** Whether a file is of a bench and of nothing else. */
export const isBenchOnly = ({ tickets, drawer, amplifiers, spaces }: Job): boolean =>
  tickets.size + drawer.length > 0 && amplifiers.length + spaces.length === 0
