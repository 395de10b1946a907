import type { Edit, StampedEdit } from '#core/job/edits'
import type { Job } from '#core/job/schema'
import type { LogEntry } from '#core/job/undo'
import type { OpenedJob, SyncAnswer, SyncRequest } from '#core/job/protocol'
import type { Kept, KeptRefusal } from './keptEdit'

/** A window's side of the protocol: what it knows, what it hears, what it asks for. All plain data. */

/** Something that another window did, as it came in. */
export interface News { id: string, by: string, who: string | null, says: string }

/** An edit of this device that the server has not confirmed. `inverse` is null where it does not fit the job as it stands. */
export interface Pending { stamped: StampedEdit, at: number, inverse: Edit | null }

/** An edit that was not taken, for the person to see and decide. */
export interface Refused extends KeptRefusal { stamped: StampedEdit }

export interface WindowState {
  readonly jobId: string
  /** The name of this window: undo is of one's own edits. */
  readonly by: string
  /** The person at it; null while nobody has signed in. */
  readonly who: string | null
  readonly phase: 'loading' | 'ready' | 'missing' | 'failed'
  /** Why there is nothing to show, in a sentence. */
  readonly problem: string
  /** What the server has, as far as this window knows. */
  readonly confirmed: Job | null
  readonly revision: number
  /** What is shown: confirmed with all pending edits that fit. */
  readonly job: Job | null
  /** This window's own edits that the server has. */
  readonly log: readonly LogEntry[]
  /** What others have done since this window opened the job, the newest last. */
  readonly news: readonly News[]
  /** In the order done. */
  readonly pending: readonly Pending[]
  readonly refused: readonly Refused[]
  /** The last thing tried did not reach the server. */
  readonly isAway: boolean
  /** What was last done, undone or refused, in words. */
  readonly said: string
  /** The one request under way. */
  readonly asking: { number: number, what: 'job' | 'exchange', ids: readonly string[] } | null
  readonly asked: number
  /** The job should be read anew: what came does not fit what is known. */
  readonly wantsJob: boolean
  /** Something happened on the server that this window has not seen. */
  readonly wantsNews: boolean
  readonly failures: number
  /** Edits go one by one: one of several could not be read by the server, and it is not said which. */
  readonly isSingle: boolean
}

export type WindowEvent
  = | { is: 'opened', number: number, answer: OpenedJob }
    | { is: 'answered', number: number, answer: SyncAnswer }
    | { is: 'failed', number: number, problem: Failure }
    /** Done by the person. `at` orders it among what is kept, in ms. */
    | { is: 'done', id: string, at: number, edit: Edit }
    | { is: 'undo' | 'redo', id: string, at: number }
    /** The job as this device last had it from the server, while that is away; null: it never had it. */
    | { is: 'remembered', answer: OpenedJob | null }
    /** Edits of earlier windows that waited on this device. */
    | { is: 'found', kept: readonly Kept[] }
    /** A change of this job at a revision; null: something may have been missed. */
    | { is: 'heard', revision: number | null }
    /** The wait is over. */
    | { is: 'again' }
    | { is: 'dismissed', id: string }
    | { is: 'forced', id: string, newId: string, at: number }

/** Why a request came to nothing. */
export interface Failure {
  /** away: try later; unreadable: the server cannot read what was sent; missing: there is no such job. */
  kind: 'away' | 'unreadable' | 'missing'
  message: string
}

/** What the window wants done. */
export type Message
  = | { do: 'read job', number: number }
    | { do: 'exchange', number: number, request: SyncRequest }
    | { do: 'keep', kept: Kept[] }
    | { do: 'let go', ids: string[] }
    /** Look in storage for what waits there. */
    | { do: 'look' }
    /** What the server has of this job is kept on the device, for when it is away. */
    | { do: 'remember' }
    /** The server is away and the job is not known: as the device last had it. */
    | { do: 'recall' }
    | { do: 'wait', ms: number }

export interface Step { state: WindowState, messages: Message[] }
