import { InputError } from '#core/quantity/inputError'
import { JobError } from '#core/job/jobError'
import { DatabaseUnfit } from '../database/unfit'

/** An answer other than success: a status, a code for programs, a sentence for people, and where in the input it lies. */
export interface Problem {
  status: number
  code: string
  message: string
  where?: string | number
  expected?: readonly string[]
}

export class ProblemError extends Error {
  override name = 'ProblemError'
  constructor(readonly problem: Problem) {
    super(problem.message)
  }
}

export function problem(status: number, code: string, message: string, where?: string | number): ProblemError {
  return new ProblemError({ status, code, message, where })
}

/**
 * Failures of the connection, by the codes of the driver and SQLSTATE: classes 08, 28, 3D (no way in), 53 and 57 (a statement that
 * took too long among them), a lock that was not to be had, a transaction that had to give way. The input is not at fault.
 */
const AWAY = /^(ECONN|ETIMEDOUT|EPIPE|ENOENT|ENOTFOUND|08|28|3D|53|57|55P03|25P03|40)/

/** What went wrong as a problem; null for what nobody foresaw. */
export function problemOf(error: unknown): Problem | null {
  if (error instanceof ProblemError) return error.problem
  if (error instanceof InputError) return { status: 422, code: 'not-readable', message: error.message, where: error.position, expected: error.expected }
  if (error instanceof JobError) return { status: 422, code: 'not-a-job', message: error.message, where: error.path, expected: error.expected }
  // Data nested without end: the stack ran out inside the schema.
  if (error instanceof RangeError) return { status: 422, code: 'not-valid', message: 'The request nests too deep.' }
  if (error instanceof DatabaseUnfit) return { status: 503, code: 'database-unfit', message: error.message }
  if (isAway(error)) {
    return { status: 503, code: 'database-away', message: 'The database does not answer just now. Nothing is lost: edits are kept in this window and sent when it does.' }
  }
  return null
}

/** The driver gives a lost connection no code; these are all its words for one (pg 8). The query builder puts the statement before them. */
const UNCODED = [
  'Query read timeout', 'timeout expired', 'Connection terminated unexpectedly', 'Connection terminated', 'Connection terminated due to connection timeout',
  'Client has encountered a connection error and is not queryable', 'Client was closed and is not queryable', 'Connection ended unexpectedly',
]

function isAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false
  if (error.name === 'KnexTimeoutError' || UNCODED.some(words => error.message === words || error.message.endsWith(` - ${words}`))) return true
  if (error instanceof AggregateError) return error.errors.some(isAway)
  return 'code' in error && AWAY.test(String(error.code))
}
