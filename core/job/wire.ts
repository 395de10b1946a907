import type { StampedEdit } from './edits'
import type { Refusal } from './refusal'
import type { JobDocument } from './schema'
import type { LogEntry } from './undo'

/** What server and windows say to each other about a job. */

/** An edit as the server numbered it. */
export interface EditEntry extends LogEntry { seq: number, at: string }

export interface OpenedJob { id: string, revision: number, archivedAt: string | null, job: JobDocument, log: EditEntry[] }

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

export interface SyncRequest { since: number, edits: StampedEdit[] }

/** What became of one edit that was sent. */
export type EditResult
  = | { id: string, status: 'applied' | 'known' }
    | { id: string, status: 'refused', refusal: Refusal, message: string }

export interface SyncAnswer {
  revision: number
  results: EditResult[]
  /** Edits after the window's revision, its own among them; null when it should read the whole job. */
  entries: EditEntry[] | null
}
