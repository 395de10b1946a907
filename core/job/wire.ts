import type { StampedEdit } from './edits'
import type { Refusal } from './refusal'
import type { JobDocument } from './schema'
import type { LogEntry } from './undo'

/** What server and windows say to each other about a job. */

/** An edit as the server numbered it. */
export interface EditEntry extends LogEntry { seq: number, at: string }

export interface OpenedJob { id: string, revision: number, archivedAt: string | null, job: JobDocument, log: EditEntry[] }

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
