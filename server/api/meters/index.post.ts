import { newMeterSchema } from '#core/meter/meters'
import { addressOf } from '../../meter/address'
import { addMeter } from '../../meter/repository'
import { readJson, route } from '../../http/route'

/** Adds a meter, once it is sure that it is on a network of one's own. */
export default route(async (event, db) => {
  const meter = await readJson(event, newMeterSchema)
  await addressOf(meter.host)
  return { id: await addMeter(db, meter) }
})
