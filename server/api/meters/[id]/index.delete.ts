import { getRouterParam } from 'h3'
import { removeMeter } from '../../../meter/repository'
import { problem } from '../../../http/problem'
import { route } from '../../../http/route'

export default route(async (event, db) => {
  const id = getRouterParam(event, 'id') ?? ''
  if (!await removeMeter(db, id)) throw problem(404, 'no-such-meter', 'There is no such meter.')
  return { id }
})
