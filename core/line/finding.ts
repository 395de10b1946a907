import type { Grade } from '#core/check/verdict'
import type { ReserveSchoolId } from '#core/schools/reserve'
import type { PowerSchoolId } from '#core/schools/power'
import type { Contradiction } from '#core/amplifier/index'
import type { AmplifierAround } from './surroundings'
import type { Basis, ChannelMode } from '#core/amplifier/rating'
import type { ValveSchoolId } from '#core/schools/valve'
import type { SourceKind } from '#core/gear/inputs'
import type { Twice } from './sources'

/** As an amplifier is made; null is not stated. */
export type AmplifierMade = AmplifierAround['made']
/** A band with the outputs that play it. */
export interface BandSaid { outputs: string[], fromHz: number | null, toHz: number | null }

/** What can be found on a line, and the quantities that its sentence needs. A new finding is one entry here, one rule, one sentence. */
export interface FindingFacts {
  'nothing-connected': Record<string, never>
  'amplifier-not-known': { kind: 'low-impedance' | 'constant-voltage' }
  'rating-contradicts': Contradiction
  'line-voltage-not-known': { printedV: number[] }
  'fits-with-reserve': { drawW: number, ratedW: number, requiredW: number, practice: ReserveSchoolId }
  'reserve-short': { drawW: number, ratedW: number, requiredW: number, allowedW: number, practice: ReserveSchoolId }
  'taps-over-amplifier': { drawW: number, ratedW: number }
  'draw-is-not-taps': { tapsW: number, drawW: number }
  'scale-mismatch': { label: string, tapW: number, ratedV: number, lineV: number, takesW: number }
  'tap-not-listed': { label: string, tapW: number, tapsW: number[] }
  'tap-over-rating': { label: string, takesW: number, continuousW: number }
  'plain-speaker-on-line': { label: string, nominalOhm: number, lineV: number, wouldTakeW: number }
  /** `takesW` null: the output may not drive this load at all. */
  'transformer-on-plain-output': { label: string, tapW: number, takesW: number | null }
  'plain-output-drives-line': { volts: number, ratedV: number, count: number }
  'far-end-loss': { label: string, lossDb: number, limitDb: number, volts: number | null, powerW: number | null, missing: number }
  'cable-not-stated': { count: number, lengthM: number }
  /** Lengths missing among those that a line has; the loss of those stated, dB. */
  /** `sizeless`: of those missing, how many lack their size alone. */
  'cable-partly-stated': { missing: number, sizeless: number, of: number, lossDb: number }
  'tap-off': { label: string }
  'dead-member': { label: string }
  /** `isFloorStated` false: taken from the lowest rated load. */
  'load-under-floor': { made: AmplifierMade, loadOhm: number, floorOhm: number, isFloorStated: boolean, mode: ChannelMode }
  /** `permittedOhm`: how low it may go where some members are known by their label alone; null where all curves are known. */
  'curve-under-floor': { lowestOhm: number, frequencyHz: number, floorOhm: number, isFloorStated: boolean, mode: ChannelMode, permittedOhm: number | null }
  'curve-not-known': { permittedOhm: number, isMixed: boolean }
  'load-suits': { loadOhm: number, floorOhm: number, isFloorStated: boolean, mode: ChannelMode, powerW: number, basis: Basis, count: number, equal: boolean, isStandKnown: boolean }
  /** Measured curves that end within the hearing range; the span that all of them cover, null where there is none. */
  'curve-ends': { labels: string[], fromHz: number, toHz: number }
  'curve-without-phase': { labels: string[] }
  /** `bestOhm` null: the load is below all of its taps. */
  'valve-tap-not-known': { loadOhm: number, tapsOhm: number[], bestOhm: number | null }
  'valve-matched': { loadOhm: number, tapOhm: number, powerW: number | null, isStandKnown: boolean }
  'valve-low': { loadOhm: number, tapOhm: number, bestOhm: number | null, isTooLow: boolean }
  'valve-high': { loadOhm: number, tapOhm: number, bestOhm: number, lossDb: number, practice: ValveSchoolId, isFar: boolean }
  'valve-open': Record<string, never>
  /**
   * Next to nothing, or far over the tap, that hands or frequency can leave on it: `off` are the controls that do, empty where capacitors or coils do;
   * `ohm` null: nothing at all.
   */
  'valve-unloaded': { off: string[], ohm: number | null, frequencyHz: number | null, tapOhm: number | null, practice: ValveSchoolId }
  /** A label against the curve of the unit: its lowest point, and what loads and watts are counted by. */
  'label-contradicts': { labels: string[], nominalOhm: number, lowestOhm: number, frequencyHz: number, judgedOhm: number, isUnder: boolean }
  'label-dips': { labels: string[], nominalOhm: number, lowestOhm: number, frequencyHz: number }
  /** Speakers, controls and transformers that stand for ones of which nothing is known yet. */
  'taken-as': { labels: string[] }
  /** Numbers that more than one speaker of the line bears. */
  'labels-repeat': { labels: string[] }
  /** A unit whose coils have terminals of their own: `driven` of `of` are wired. */
  'coil-idle': { unit: string, of: number, driven: number }
  'coils-unlike': { unit: string, outputs: string[] }
  'coils-alike': { unit: string, outputs: string[] }
  /** Cabinets of which one half of the drivers is between the terminals. */
  'half-cabinet': { labels: string[] }
  /** Ratings that somebody believes more than the sheet; `sheetW` null: the sheet states none. */
  'rating-believed': { labels: string[], believedW: number, sheetW: number | null }
  'load-not-rated': { loadOhm: number, lowestRatedOhm: number, atLeastW: number, atMostW: number }
  'unequal-shares': { most: string, mostShare: number, least: string, leastShare: number }
  /** `isMost`: the output is not rated at this load; this is the most it may give. */
  'speaker-overdriven': { label: string, powerW: number, continuousW: number, isMost: boolean }
  'amplifier-outside-rule': { amplifierW: number, fromW: number, toW: number, practice: PowerSchoolId, isMost: boolean }
  'amplifier-inside-rule': { amplifierW: number, fromW: number, toW: number, practice: PowerSchoolId, isMost: boolean }
  /** A control: what it is rated for and what hangs behind it, W. */
  'control-fits': { label: string, ratingW: number, behindW: number }
  'control-tight': { label: string, ratingW: number, behindW: number }
  'control-over': { label: string, ratingW: number, behindW: number }
  /** `behindW` null: that is not known either. */
  'control-rating-not-known': { label: string, behindW: number | null }
  'control-off': { label: string, silent: string[] }
  /** Made for another line voltage. */
  'control-wrong-line': { label: string, ratedV: number, lineV: number }
  'transformer-over': { label: string, ratingW: number, takesW: number }
  /** A transformer of a group, whose load is not what its tap is meant for. */
  'transformer-load': { label: string, secondaryOhm: number, takesW: number, tapW: number }
  /** A unit with a transformer, left on its position past it. */
  'through-on-line': { label: string, nominalOhm: number, lineV: number, wouldTakeW: number }
  /** `hz` null: there is none. */
  'no-high-pass': { hz: number | null, count: number }
  'asks-for-can': { labels: string[], remark: string }
  /** From this place on the run is thicker than before it. */
  'cable-grows': { label: string, thin: string, thick: string }
  /** `protection`: what the maker says of it. */
  'protection-says': { amplifier: string, protection: string }
  /** Stated to run from `floorOhm`, with no power stated under `lowestRatedOhm`. */
  'stable-says': { made: AmplifierMade, floorOhm: number, lowestRatedOhm: number, mode: ChannelMode }
  /** Two bridged: twice the floor of one is taken. */
  'bridged-floor-taken': { floorOhm: number }
  /** A limiter below full output. `couldW`: what it would give without. */
  'limiter-holds': { limiterV: number, powerW: number, couldW: number }
  'limiter-idle': { limiterV: number, fullV: number }
  /** Outputs of one system whose bands meet: what clips in one stays out of the others. */
  'bands-meet': { system: string, bands: BandSaid[] }
  /** Only one band of the system is on an output; what is missing, Hz. */
  'band-alone': { system: string, fromHz: number | null, toHz: number | null }
  'band-gap': { system: string, fromHz: number, toHz: number }
  'band-overlap': { system: string, fromHz: number, toHz: number }
  /** Plays below, or above, what a unit on it is made for. */
  'band-under-unit': { label: string, fromHz: number, unitHz: number }
  'band-over-unit': { label: string, toHz: number, unitHz: number }
  /** The amplifier's high-pass stands inside the band, or leaves less than an octave of one that begins at the lowest. */
  'band-under-high-pass': { highPassHz: number, fromHz: number | null, toHz: number | null }
  /** What feeds it. Levels in dB against what drives this output full; `inputs` hang on one source. */
  'source-suits': { source: string, volts: number, needsV: number, moreDb: number }
  'source-weak': { source: string, volts: number, needsV: number, shortDb: number, ofFull: number }
  'source-loaded': { source: string, sourceOhm: number, inputOhm: number, inputs: number, lossDb: number }
  /** An input made for another level than what comes in there. */
  'input-other': { source: string, input: string, brings: SourceKind, takes: readonly SourceKind[] }
  /** Two sides on a line that has one; 'one-side' and 'both' are said, null is not known. */
  'not-summed': { source: string, sum: 'one-side' | 'both' | null }
  /** A call that does not put the music down, or of which nobody knows whether it does. */
  'paging-under': { source: string, music: string[] }
  /** One source that comes in by more than one way. */
  'source-twice': Twice
  'gain-contradicts': { gainDb: number, inputV: number, fullV: number, comesDb: number }
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

/** While one of these is said, what is drawn is a guess: nothing on its line is known to be good. */
const GUESSES: ReadonlySet<FindingCode> = new Set(['taken-as'])

/** What stands against a line, a little or wholly. */
export const isBad = ({ grade }: Pick<Finding, 'grade'>): boolean => grade === 'stop' || grade === 'tight'

/** What stands against a line after a change and did not before: the same finding at the same place is no news. */
export function newlyBad(before: readonly Finding[], after: readonly Finding[]): Finding[] {
  const keyOf = ({ code, nodeId }: Finding) => `${code} ${nodeId ?? ''}`
  const was = new Set(before.filter(isBad).map(keyOf))
  return after.filter(f => isBad(f) && !was.has(keyOf(f)))
}

/** The grade of a line by what was found on it. */
export function gradeOfFindings(findings: readonly Pick<Finding, 'code' | 'grade'>[]): Grade {
  const grade = worstGrade(findings.map(f => f.grade))
  return grade === 'good' && findings.some(f => GUESSES.has(f.code)) ? 'unknown' : grade
}

/** The grade of a whole: what must not be switched on outweighs all, and "not known" stands only where nothing is known to be good. */
export function worstGrade(grades: Iterable<Grade>): Grade {
  const all = new Set(grades)
  return WORST_FIRST.find(grade => all.has(grade)) ?? 'unknown'
}
