import { z } from 'zod'
import { readActInSteps } from '#core/gear/acts'
import type { GearAnswer } from '#core/gear/protocol'
import { jobIdSchema, readJson, refused, route } from '../../http/route'
import { inSlices } from '../../jobs/slices'
import { takeAct } from '../../gear/repository'

/** One act on the library, once: the id is the caller's. */
export default route(async (event, db): Promise<GearAnswer> => {
  const { id, act: sent } = await readJson(event, z.strictObject({ id: jobIdSchema, act: z.unknown() }))
  const act = await inSlices(readActInSteps(sent))
  if ('issues' in act) throw refused(act.issues, ['act', act.at].filter(Boolean).join('.'))
  return takeAct(db, id, act)
})
