import { defineEventHandler, getRouterParam, getQuery, setResponseStatus, type H3Event } from 'h3'
import type { Knex } from 'knex'
import { z } from 'zod'
import { complaintOf } from '#core/job/readJob'
import { FORMAT_VERSION } from '#core/job/schema'
import { database } from '../database'
import { noteAnswer, noteAway } from '../database/watch'
import { readText } from './body'
import { problem, problemOf, type Problem } from './problem'

/** A thin route: runs the handler with the database, and turns whatever goes wrong into a clear answer. */
export function route<T>(handler: (event: H3Event, db: Knex) => Promise<T>) {
  return defineEventHandler(async (event) => {
    try {
      const answer = await handler(event, await database())
      noteAnswer()
      return answer
    }
    catch (error) {
      return answerFailure(event, error)
    }
  })
}

/** What went wrong, as an answer; in the log what nobody foresaw. */
export function answerFailure(event: H3Event, error: unknown): { error: Omit<Problem, 'status'> } {
  const known = problemOf(error)
  if (!known) console.error(error)
  if (known?.code === 'database-away') noteAway()
  return answerProblem(event, known ?? { status: 500, code: 'not-foreseen', message: 'Something went wrong here that should not. It is in the server’s log.' })
}

export function answerProblem(event: H3Event, { status, ...rest }: Problem): { error: Omit<Problem, 'status'> } {
  setResponseStatus(event, status)
  return { error: rest }
}

const uuid = z.uuid()
/** Ids of jobs in one spelling: another would be another channel for whoever listens. */
export const jobIdSchema = uuid.transform(id => id.toLowerCase())

/** The job id of the path. An id of another form is of no job: not found. */
export function jobIdOf(event: H3Event): string {
  const parsed = jobIdSchema.safeParse(getRouterParam(event, 'id'))
  if (!parsed.success) throw noSuchJob()
  return parsed.data
}

export function noSuchJob() {
  return problem(404, 'no-such-job', 'There is no such job. It may have been deleted, or made on another database.')
}

/**
 * While servers are brought up one after the other, a page of the newer version may meet one of the older: it waits, keeps what it has and
 * sends it again, until it meets a newer one. (Read by the older, its edits would be refused for fields that this one does not know.)
 */
export function refuseNewerPage(version: number): void {
  if (version > FORMAT_VERSION) throw problem(503, 'older-server', 'This server is of an older version than the page. What you do is kept in this window and sent when it is brought up.')
}

/** The body as JSON of a schema. */
export async function readJson<S extends z.ZodType>(event: H3Event, schema: S, mostBytes?: number): Promise<z.infer<S>> {
  const text = await readText(event, mostBytes)
  let data: unknown
  try {
    data = JSON.parse(text === '' ? 'null' : text)
  }
  catch {
    throw problem(400, 'not-json', 'The request is not JSON.')
  }
  return checked(data, schema)
}

export function readQuery<S extends z.ZodType>(event: H3Event, schema: S): z.infer<S> {
  return checked(getQuery(event), schema)
}

function checked<S extends z.ZodType>(data: unknown, schema: S): z.infer<S> {
  const parsed = schema.safeParse(data)
  if (parsed.success) return parsed.data
  throw refused(parsed.error)
}

/** What a schema complained of, with its place, below `at`. */
export function refused(error: z.ZodError, at = '') {
  const { message, path } = complaintOf(error)
  return problem(422, 'not-valid', at === '' ? message : `${at}.${message}`, [at, path].filter(Boolean).join('.'))
}
