import { z } from 'zod'
import { READING_KINDS } from '#core/job/sections/readings/kinds'
import { idText, plainText } from '#core/quantity/fields'
import { METER_QUANTITIES, type MeterValue } from './scpi'

/** Meters that are reached by a wire, as server and pages speak of them. */

/** Where most meters listen. Common practice, no source. */
export const USUAL_PORT = 5025
export const MOST_METERS = 20

const HOST = /^(?:[a-z0-9](?:[a-z0-9.-]*[a-z0-9])?|\[?[0-9a-f:]+\]?)$/i
export const newMeterSchema = z.strictObject({
  name: plainText(60).refine(text => text.trim() !== '', 'must have a name, as “Bench one”'),
  host: z.string().trim().max(100).regex(HOST, 'must be an address or a name, as 192.168.1.40, without a port'),
  port: z.int().min(1).max(65_535).default(USUAL_PORT),
  /** Measured with four wires: the leads are not in the reading. */
  fourWire: z.boolean(),
})
export type NewMeter = z.infer<typeof newMeterSchema>

export interface Meter extends NewMeter {
  id: string
  /** The simulated one, which starts with the demo. */
  isStandIn: boolean
}

/** Where the leads lie. Only the simulated meter is told. */
const placeSchema = z.strictObject({ jobId: idText, outputId: idText, nodeId: idText.nullable(), kind: z.enum(READING_KINDS) })
export type MeterPlace = z.infer<typeof placeSchema>
export const meterAskSchema = z.strictObject({ quantity: z.enum(METER_QUANTITIES), at: placeSchema.nullable() })
export interface MeterAnswer { value: MeterValue, meterName: string, fourWire: boolean }
