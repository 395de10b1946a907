import type { Meter, MeterAnswer, MeterPlace } from '#core/meter/meters'
import { CONFIGURE, MEASURE, readError, readIdentity, readMeasured, type MeterQuantity } from '#core/meter/scpi'
import { InputError } from '#core/quantity/inputError'
import { problem } from '../http/problem'
import { addressOf } from './address'
import { withWire, type Patience } from './wire'

/** One at a time to each meter: two that ask at once would hear each other's answers. */
const queues = new Map<string, Promise<unknown>>()

function inTurn<T>(meterKey: string, work: () => Promise<T>): Promise<T> {
  const turn = (queues.get(meterKey) ?? Promise.resolve()).catch(() => undefined).then(work)
  queues.set(meterKey, turn)
  void turn.catch(() => undefined).finally(() => { if (queues.get(meterKey) === turn) queues.delete(meterKey) })
  return turn
}

/**
 * One reading. The meter is asked who it is, set to ohms, and asked whether it understood: one that did not would answer with whatever it measured before,
 * and volts look like ohms.
 */
export async function readMeter(meter: Meter, quantity: MeterQuantity, at: MeterPlace | null, patience?: Patience): Promise<MeterAnswer> {
  const address = await addressOf(meter.host)
  return inTurn(`${address} ${meter.port}`, () => withWire(address, meter.port, async ({ say, ask }) => {
    try {
      const { name, isStandIn } = readIdentity(await ask('*IDN?'))
      if (isStandIn) say(`ROUT:PLACE "${at ? [at.jobId, at.outputId, at.nodeId ?? '', at.kind].join(' ') : ''}"`)
      if (quantity !== 'ohm') return { value: readMeasured(quantity, await ask(MEASURE[quantity])), meterName: name, fourWire: false }
      const configure = CONFIGURE.ohm[meter.fourWire ? 'four' : 'two']
      say(configure)
      const refused = readError(await ask('SYST:ERR?'))
      if (refused !== null) throw problem(424, 'meter-refused', `The meter did not take ${configure}: ${refused.slice(0, 60)}.`)
      return { value: readMeasured('ohm', await ask('READ?')), meterName: name, fourWire: meter.fourWire }
    }
    catch (error) {
      if (error instanceof InputError) throw problem(424, 'meter-odd', error.message)
      throw error
    }
  }, patience))
}
