import type { FaultDefinition } from './fault'
import { breakInReach } from './breakInReach'
import { coilHigh } from './coilHigh'
import { coilOpen } from './coilOpen'
import { controlAtZero, controlBypassed, controlOverrated, controlTurnedDown } from './controls'
import { dropsExchanged, speakerMissing, wrongJack } from './drawnOtherwise'
import { extraSpeaker } from './extraSpeaker'
import { highResistance } from './highResistance'
import { lowImpedancePosition } from './lowImpedancePosition'
import { highUnitGone, oneDriverGone, rubbing } from './mechanical'
import { openAtDrop } from './openAtDrop'
import { amplifierClipping, amplifierDead, amplifierLow, amplifierWrongTap, linesExchanged, sourceOneSide } from './rack'
import { anotherCable, jointInRun, leakAcross, legEarth, pairCrossed, shortInRun } from './run'
import { shortAtDrop } from './shortAtDrop'
import { shortAtTabs } from './shortAtTabs'
import { shortedTurns } from './shortedTurns'
import { tapsOneOff, tapsOnOtherScale } from './taps'
import { coilOpposed, turnedRound } from './turnedRound'
import { comesAndGoes, dirtyContact } from './unsteady'
import { windingExchanged, windingOpen, windingShorted } from './windings'
import { wrongScale, wrongTap } from './wrongTap'

/** The catalogue. Its kinds are the ones that the job schema names, with `something-else` for all others; a test holds both against each other. */
export const FAULTS: readonly FaultDefinition[] = [
  openAtDrop, coilOpen, coilHigh, highResistance, shortAtDrop, shortAtTabs, shortedTurns, coilOpposed, rubbing, highUnitGone, oneDriverGone, comesAndGoes,
  dirtyContact,
  windingOpen, windingShorted, windingExchanged, lowImpedancePosition, wrongTap, wrongScale, tapsOnOtherScale, tapsOneOff,
  breakInReach, jointInRun, shortInRun, leakAcross, legEarth, anotherCable, pairCrossed, turnedRound,
  extraSpeaker, speakerMissing, dropsExchanged, wrongJack,
  controlAtZero, controlTurnedDown, controlBypassed, controlOverrated,
  amplifierDead, amplifierClipping, amplifierLow, amplifierWrongTap, linesExchanged, sourceOneSide,
]

const byKind = new Map(FAULTS.map(f => [f.kind, f]))
/** What is known of a kind; null for what is not in the list. */
export const definitionOf = (kind: FaultDefinition['kind']): FaultDefinition | null => byKind.get(kind) ?? null
