import { evaluateJob } from '#core/match/evaluate'
import { jobState, stateSentence, type JobSummary } from '#core/match/jobState'
import type { JobRow } from './repository'

type Told = Pick<JobSummary, 'name' | 'sentence' | 'lines'>

/** Summaries of jobs as they stood at a revision. Bounded; a forgotten one is told again from its document. */
const MOST_REMEMBERED = 2000
const remembered = new Map<string, Told>()

/** Summaries of all jobs; only documents not yet told at their revision are read. */
export async function summaryOf(all: Omit<JobRow, 'document'>[], read: (ids: string[]) => Promise<JobRow[]>): Promise<JobSummary[]> {
  const key = (row: { id: string, revision: number }) => `${row.id} ${row.revision}`
  const missing = await read(all.filter(row => !remembered.has(key(row))).map(row => row.id))
  for (const row of missing) {
    if (remembered.size >= MOST_REMEMBERED) remembered.delete(remembered.keys().next().value!)
    remembered.set(key(row), tell(row))
  }
  const fresh = new Map(missing.map(row => [row.id, row]))
  return all.flatMap((row) => {
    const current = fresh.get(row.id) ?? row
    const told = remembered.get(key(current))
    return told ? [{ id: row.id, revision: current.revision, archivedAt: row.archivedAt, updatedAt: row.updatedAt, ...told }] : []
  })
}

function tell({ document }: JobRow): Told {
  const lines = jobState(document, evaluateJob(document))
  return { name: document.name, sentence: stateSentence(lines), lines }
}
