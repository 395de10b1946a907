import { defineEventHandler, getHeader, getRouterParam, getQuery, readRawBody, setResponseStatus, type H3Event } from 'h3'
import type { Knex } from 'knex'
import { z } from 'zod'
import { complaintOf } from '#core/job/readJob'
import { database } from '../database'
import { problem, problemOf } from './problem'

/** The largest body taken: a job file of the longest kind. */
const LONGEST_BODY = 20_000_000

/** A thin route: runs the handler with the database, and turns whatever goes wrong into a clear answer. */
export function route<T>(handler: (event: H3Event, db: Knex) => Promise<T>) {
  return defineEventHandler(async (event) => {
    try {
      return await handler(event, await database())
    }
    catch (error) {
      const known = problemOf(error)
      if (!known) console.error(error)
      const { status, ...rest } = known ?? { status: 500, code: 'not-foreseen', message: 'Something went wrong here that should not. It is in the server’s log.' }
      setResponseStatus(event, status)
      return { error: rest }
    }
  })
}

const uuid = z.uuid()

/** The job id of the path. An id of another form is of no job: not found. */
export function jobIdOf(event: H3Event): string {
  const parsed = uuid.safeParse(getRouterParam(event, 'id'))
  if (!parsed.success) throw noSuchJob()
  return parsed.data
}

export function noSuchJob() {
  return problem(404, 'no-such-job', 'There is no such job. It may have been made on another database.')
}

export async function readText(event: H3Event): Promise<string> {
  if (Number(getHeader(event, 'content-length') ?? 0) > LONGEST_BODY) throw problem(413, 'too-large', 'More than 20 MB: too large for a job.')
  const text = await readRawBody(event, 'utf8') ?? ''
  if (text.length > LONGEST_BODY) throw problem(413, 'too-large', 'More than 20 MB: too large for a job.')
  return text
}

/** The body as JSON of a schema. */
export async function readJson<S extends z.ZodType>(event: H3Event, schema: S): Promise<z.infer<S>> {
  const text = await readText(event)
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
  let parsed
  try {
    parsed = schema.safeParse(data)
  }
  catch (error) {
    // Data nested without end: the stack ran out inside the schema.
    if (error instanceof RangeError) throw problem(422, 'not-valid', 'The request nests too deep.')
    throw error
  }
  if (parsed.success) return parsed.data
  const { message, path } = complaintOf(parsed.error)
  throw problem(422, 'not-valid', message, path)
}
