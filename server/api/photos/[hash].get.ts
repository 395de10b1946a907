import { getRouterParam, setHeader } from 'h3'
import { photoHash } from '#core/job/sections/photos/schema'
import { problem } from '../../http/problem'
import { route } from '../../http/route'
import { photoBytes } from '../../photos/bytes'

/** A photo. It never changes under its hash. */
export default route(async (event, db) => {
  const hash = photoHash.safeParse(getRouterParam(event, 'hash'))
  const bytes = hash.success ? await photoBytes(db, hash.data) : null
  if (!bytes) throw problem(404, 'no-such-photo', 'There is no such photo here.')
  setHeader(event, 'content-type', 'image/jpeg')
  setHeader(event, 'x-content-type-options', 'nosniff')
  setHeader(event, 'cache-control', 'private, max-age=31536000, immutable')
  return bytes
})
