import type { JOB_PLACES, StateId } from '#core/job/protocol'
import type { Job } from '#core/job/schema'
import { pressing, stateSentence, type LineState } from './jobState'

/** What a job says of itself in a list. */
export interface JobTold {
  sentence: string
  state: StateId
  lines: LineState[]
  /** Rooms planned in it; null while the job is being looked at. */
  spaces: number | null
  /** The day on which it is to be looked at again; null: none. */
  again: string | null
}

/** A job in a list of jobs. */
export interface JobSummary extends JobTold {
  id: string
  name: string
  revision: number
  archivedAt: string | null
  deletedAt: string | null
  updatedAt: string
}

/** One page of the list, with how many there are. */
export interface JobList { jobs: JobSummary[], total: number, counts: Record<(typeof JOB_PLACES)[number], number> }

export function tell(lines: LineState[], { spaces, checks }: Pick<Job, 'spaces' | 'checks'>): JobTold {
  return { sentence: stateSentence(lines, spaces.length), state: pressing(lines), lines, spaces: spaces.length, again: checks.again }
}
