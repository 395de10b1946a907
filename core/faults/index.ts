import type { FaultDefinition } from './fault'
import { breakInReach } from './breakInReach'
import { extraSpeaker } from './extraSpeaker'
import { highResistance } from './highResistance'
import { lowImpedancePosition } from './lowImpedancePosition'
import { openAtDrop } from './openAtDrop'
import { shortAtDrop } from './shortAtDrop'
import { shortedTurns } from './shortedTurns'
import { tapsOneOff, tapsOnOtherScale } from './taps'
import { coilOpposed, turnedRound } from './turnedRound'
import { wrongTap } from './wrongTap'

/** The catalogue. Its kinds are the ones that the job schema names, with `something-else` for all others; a test holds both against each other. */
export const FAULTS: readonly FaultDefinition[] = [
  openAtDrop, breakInReach, shortAtDrop, wrongTap, highResistance, tapsOnOtherScale, tapsOneOff, lowImpedancePosition, shortedTurns, extraSpeaker,
  turnedRound, coilOpposed,
]
