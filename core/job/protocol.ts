import type { Edit, StampedEdit } from './edits'
import type { Refusal } from './refusal'
import type { JobDocument } from './schema'
import type { LogEntry } from './undo'

/** What server and windows say to each other about a job. */

/**
 * An edit as the server numbered it. What would take it back is told to the window that made it, which alone undoes it; the
 * edit itself is not told again to the window that has just sent it (null): a thousand readings would travel three times.
 */
export interface EditEntry extends Omit<LogEntry, 'edit' | 'inverse'> { seq: number, edit: Edit | null, inverse: Edit | null }

/** The job, and the newest edits of the window that asks: what it can undo. */
export interface OpenedJob { id: string, revision: number, archivedAt: string | null, job: JobDocument, log: LogEntry[] }

/** What is most pressing about a job, most pressing first. The place in this list is how it is stored and sorted. */
export const JOB_STATES = ['stop', 'wrong', 'unproved', 'tight', 'open', 'empty', 'proved'] as const
export type StateId = (typeof JOB_STATES)[number]

/** Days for which a deleted job can be brought back. */
export const DELETED_KEPT_DAYS = 30
/** Jobs on one page of the list. */
export const JOBS_A_PAGE = 50

export const JOB_SORTS = ['changed', 'name', 'state'] as const
export const JOB_PLACES = ['active', 'archived', 'deleted'] as const

/** What is asked of the list of jobs. */
export interface ListQuery { place: (typeof JOB_PLACES)[number], search: string, state: StateId | null, sort: (typeof JOB_SORTS)[number], page: number }

/** Parts of edits in one request; a single edit of more goes alone. What is left comes in further requests. */
export const PARTS_A_REQUEST = 1000
/** Edits in one request. */
export const EDITS_A_REQUEST = 200

/** `version`: of the document that the edits were made on. */
export interface SyncRequest { since: number, by: string, version: number, edits: StampedEdit[] }

/** What became of one edit that was sent. */
export type EditResult
  = | { id: string, status: 'applied' | 'known' }
    | { id: string, status: 'refused', refusal: Refusal, message: string }

export interface SyncAnswer {
  revision: number
  results: EditResult[]
  /** Edits after the window's revision, those just sent among them; null when it should read the whole job. */
  entries: EditEntry[] | null
}
