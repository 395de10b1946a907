import type { Refusal } from './refusal'
import type { Job } from './schema'
import type { LogEntry } from './undo'

/** What server and windows say to each other about a job. */

/** An edit as the server numbered it. */
export interface EditEntry extends LogEntry { seq: number, at: string }

export interface OpenedJob { id: string, revision: number, archivedAt: string | null, job: Job, log: EditEntry[] }

/** What became of one edit that was sent. */
export type EditResult
  = | { id: string, status: 'applied' | 'known', seq: number }
    | { id: string, status: 'refused', refusal: Refusal, message: string }

export interface SyncAnswer {
  revision: number
  results: EditResult[]
  /** Edits after the window's revision, its own among them; null when it should read the whole job. */
  entries: EditEntry[] | null
}
