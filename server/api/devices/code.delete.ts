import { voidCodes } from '../../door/repository'
import { route } from '../../http/route'

/** Nobody comes in by the code that was shown. */
export default route(async (_, db) => {
  await voidCodes(db)
  return { void: true }
})
