import { connection } from './connection'
import { floor } from './floor'
import { lineVoltage } from './lineVoltage'
import { reserve } from './reserve'
import type { Rule } from './rule'
import { sharing } from './sharing'
import { cableLoss } from './cableLoss'
import { taps } from './taps'
import { throughs } from './throughs'
import { highPass } from './highPass'
import { kindRemarks } from './kinds'
import { cableGrows } from './cableGrows'
import { bands } from './bands'
import { believed } from './believed'
import { curves } from './curves'
import { input } from './input'
import { limiter } from './limiter'
import { stated } from './stated'
import { labels } from './labels'
import { repeated } from './repeated'
import { taken } from './taken'
import { units } from './units'
import { valve } from './valve'

/** Every rule, in the order in which their findings are told within one grade. */
export const RULES: readonly Rule[] = [connection, lineVoltage, kindRemarks, throughs, taps, floor, stated, valve, reserve, limiter, cableLoss,
  cableGrows, highPass,
  sharing, believed, units, bands, input, labels, curves, repeated, taken]
