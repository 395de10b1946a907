import type { Grade } from '#core/check/verdict'
import type { ReserveSchoolId } from '#core/practice/reserve'
import type { PowerSchoolId } from '#core/practice/power'
import type { Basis } from '#core/amplifier/rating'

/** What can be found on a line, and the quantities that its sentence needs. A new finding is one entry here, one rule, one sentence. */
export interface FindingFacts {
  'nothing-connected': Record<string, never>
  'amplifier-not-known': { kind: 'low-impedance' | 'constant-voltage' }
  'fits-with-reserve': { tapsW: number, ratedW: number, requiredW: number, practice: ReserveSchoolId }
  'reserve-short': { tapsW: number, ratedW: number, requiredW: number, allowedW: number, practice: ReserveSchoolId }
  'taps-over-amplifier': { tapsW: number, ratedW: number }
  'scale-mismatch': { label: string, tapW: number, ratedV: number, lineV: number, takesW: number }
  'plain-speaker-on-line': { label: string, nominalOhm: number, lineV: number, wouldTakeW: number }
  'transformer-on-plain-output': { label: string }
  'far-end-loss': { label: string, lossDb: number, limitDb: number, volts: number | null, powerW: number | null }
  'cable-not-stated': { count: number }
  'tap-off': { label: string }
  'load-under-floor': { loadOhm: number, floorOhm: number }
  'curve-under-floor': { lowestOhm: number, frequencyHz: number, floorOhm: number }
  'curve-not-known': { permittedOhm: number }
  'load-suits': { loadOhm: number, floorOhm: number, powerW: number, basis: Basis, count: number, equal: boolean }
  'load-not-rated': { loadOhm: number, lowestRatedOhm: number, atLeastW: number }
  'unequal-shares': { most: string, mostShare: number, least: string, leastShare: number }
  'speaker-overdriven': { label: string, powerW: number, continuousW: number }
  'amplifier-outside-rule': { amplifierW: number, fromW: number, toW: number, practice: PowerSchoolId }
  'amplifier-inside-rule': { amplifierW: number, fromW: number, toW: number, practice: PowerSchoolId }
  'head-short': Record<string, never>
  'head-open': Record<string, never>
}

export type FindingCode = keyof FindingFacts

/** What was found; one code stands for one shape of facts, also where only some of the codes are meant. */
export type FindingOf<K extends FindingCode> = { [P in K]: { code: P, grade: Grade, facts: FindingFacts[P] } & FindingPlace }[K]
export interface FindingPlace {
  outputId: string
  /** The speaker it is about; null for the whole line. */
  nodeId: string | null
}
export type Finding = FindingOf<FindingCode>

const WORST_FIRST: readonly Grade[] = ['stop', 'tight', 'good', 'unknown']

/** The grade of a whole: what must not be switched on outweighs all, and "not known" stands only where nothing is known to be good. */
export function worstGrade(grades: Iterable<Grade>): Grade {
  const all = new Set(grades)
  return WORST_FIRST.find(grade => all.has(grade)) ?? 'unknown'
}
