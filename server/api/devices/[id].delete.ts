import { getRouterParam } from 'h3'
import { takeBack } from '../../door/repository'
import { problem } from '../../http/problem'
import { route } from '../../http/route'

/** Takes a device back at once. */
export default route(async (event, db) => {
  const id = getRouterParam(event, 'id') ?? ''
  if (!await takeBack(db, id)) throw problem(404, 'no-such-device', 'There is no such device, or it was taken back before.')
  return { id }
})
