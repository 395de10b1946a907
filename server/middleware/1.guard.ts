import { defineEventHandler, getHeader } from 'h3'
import { isApi, refusalOf } from '../http/guard'
import { answerProblem } from '../http/route'

/** Names that the server was told to answer to besides its own. */
const hosts = (process.env.PLAIN_MATCH_HOSTS ?? '').toLowerCase().split(',').filter(Boolean)

/** Looks at every request before anything else does. */
export default defineEventHandler((event) => {
  const header = (name: string) => getHeader(event, name) as string | undefined
  const refusal = refusalOf({
    method: event.method, path: event.path, host: header('host'), origin: header('origin'), fetchSite: header('sec-fetch-site'), contentType: header('content-type'),
  }, hosts)
  if (refusal) return answerProblem(event, refusal.problem)
  if (isApi(event.path) && /^\/api\/?(?:\?|$)/.test(event.path)) {
    return answerProblem(event, { status: 404, code: 'no-such-address', message: 'There is nothing at /api itself.' })
  }
})
