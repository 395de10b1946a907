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
import { curves } from './curves'
import { units } from './units'
import { valve } from './valve'

/** Every rule, in the order in which their findings are told within one grade. */
export const RULES: readonly Rule[] = [connection, lineVoltage, kindRemarks, throughs, taps, floor, valve, reserve, cableLoss, cableGrows, highPass,
  sharing, units, curves]
