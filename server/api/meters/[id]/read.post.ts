import { getRouterParam } from 'h3'
import { meterAskSchema } from '#core/meter/meters'
import { readMeter } from '../../../meter/read'
import { meters } from '../../../meter/repository'
import { problem } from '../../../http/problem'
import { readJson, route } from '../../../http/route'

/** One reading of a meter by wire. */
export default route(async (event, db) => {
  const id = getRouterParam(event, 'id') ?? ''
  const { quantity, at } = await readJson(event, meterAskSchema)
  const meter = (await meters(db)).find(m => m.id === id)
  if (!meter) throw problem(404, 'no-such-meter', 'There is no such meter. It may have been taken off the list.')
  return readMeter(meter, quantity, at)
})
