import type { Job } from '#core/job/schema'
import type { LineState } from '#core/line/jobState'

/** A station of the work on a job. Navigation, key help and the list of jobs read these entries; a new one is a folder and its line in index.ts. */
export interface Station {
  name: string
  /** Below the job's own address; the first station is that address itself. */
  path: string
  /** Goes there from any other; null where no letter is left for it: it is found by its name like all that can be done. */
  key: string | null
  keySays: string
  /** Where it stands, in a few words; empty where there is nothing to say. `tooQuiet`: spaces that fall short, where that is known. */
  state: (lines: readonly LineState[], job: Pick<Job, 'spaces' | 'splices'> | null, tooQuiet?: readonly string[]) => string
  isDone: (lines: readonly LineState[], job: Pick<Job, 'spaces' | 'splices'> | null) => boolean
}

export function addressOf(jobId: string, { path }: Station): string {
  return `/jobs/${jobId}${path === '' ? '' : `/${path}`}`
}
