import { z } from 'zod'
import { readActInSteps } from '#core/gear/acts'
import type { GearAnswer } from '#core/gear/protocol'
import { FORMAT_VERSION } from '#core/job/schema'
import { jobIdSchema, readJson, refused, refuseNewerPage, route } from '../../http/route'
import { inSlices } from '../../jobs/slices'
import { takeAct } from '../../gear/repository'

const request = z.strictObject({ id: jobIdSchema, version: z.int().min(1).default(FORMAT_VERSION), act: z.unknown() })

/** One act on the library, once: the id is the caller's. */
export default route(async (event, db): Promise<GearAnswer> => {
  const { id, version, act: sent } = await readJson(event, request)
  refuseNewerPage(version)
  const act = await inSlices(readActInSteps(sent))
  if ('issues' in act) throw refused(act.issues, ['act', act.at].filter(Boolean).join('.'))
  return takeAct(db, id, act)
})
