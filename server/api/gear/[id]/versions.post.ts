import { z } from 'zod'
import { problem } from '../../../http/problem'
import { jobIdOf, readJson, route } from '../../../http/route'
import { addVersion, kindOfModel } from '../../../gear/repository'
import { bodyOf, noSuchModel } from '../../../gear/request'

const request = z.strictObject({ was: z.int().min(1), body: z.unknown() })

/** A version more. `was` is the version that it was made from: another since then is not written over. */
export default route(async (event, db) => {
  const id = jobIdOf(event)
  const { was, body } = await readJson(event, request)
  const kind = await kindOfModel(db, id)
  if (!kind) throw noSuchModel()
  const done = await addVersion(db, id, was, bodyOf(kind, body, 'body'))
  if (done === null) throw noSuchModel()
  if (!done) throw problem(409, 'changed-meanwhile', 'This model was changed in another window meanwhile. Read it anew, then change it.', 'was')
  return { version: was + 1 }
})
