import type { FaultDefinition } from '../fault'
import { breakInReach } from './breakInReach'
import { highResistance } from './highResistance'
import { openAtDrop } from './openAtDrop'
import { shortAtDrop } from './shortAtDrop'
import { wrongTap } from './wrongTap'

/** The catalogue. Its kinds are the ones that the job schema names; a test holds both against each other. */
export const FAULTS: readonly FaultDefinition[] = [openAtDrop, breakInReach, shortAtDrop, wrongTap, highResistance]
