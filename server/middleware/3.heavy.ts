import { defineEventHandler, getHeader } from 'h3'
import { database } from '../database'
import { isHelper, withHelper } from '../helper/helper'
import { isHeavyJob, weighed } from '../helper/heavy'
import { passOn } from '../helper/passOn'
import { isApi } from '../http/guard'

/** Hands what is heavy to the helper. Comes after the guard: what is refused there is refused. */
export default defineEventHandler(async (event) => {
  if (isHelper || !isApi(event.path)) return
  const asked = weighed({
    method: event.method, path: event.path, contentLength: getHeader(event, 'content-length'), isChunked: getHeader(event, 'transfer-encoding') !== undefined,
  })
  // A database that is away is told by the route itself.
  const isHeavy = typeof asked === 'boolean' ? asked : await database().then(db => isHeavyJob(db, asked)).catch(() => false)
  if (isHeavy) return withHelper(async socketPath => socketPath === null ? undefined : await passOn(event, socketPath) as undefined)
})
