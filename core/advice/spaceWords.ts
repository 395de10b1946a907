import type { Grade } from '#core/check/verdict'
import type { Kind, Space, Job } from '#core/job/schema'
import { TRANSFORMER_LOSS_DB } from '#core/schools/reserve'
import { peakSchool, spaceUse } from '#core/schools/loudness'
import { overlapOf } from '#core/room/coverage'
import { writeLength, type Units } from '#core/quantity/units'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { spaceFacts, type DropsById, type SpaceFacts, type SpaceUnknown } from './spaces'

/** Everything that is said of a space, in one place. */

const dB = (db: number) => `${db.toFixed(1).replace('-', '−')} dB`

/** As planned: whether it is as loud as it is to be. Good from half a decibel below the target, which nobody hears. */
export const NOT_HEARD_DB = 0.5
export function spaceGrade({ targetDb, level }: Pick<SpaceFacts, 'targetDb' | 'level'>): Extract<Grade, 'good' | 'tight' | 'unknown'> {
  if (targetDb === null || level === null) return 'unknown'
  return level.meanDb >= targetDb - NOT_HEARD_DB ? 'good' : 'tight'
}

/** Names of the spaces that fall short of their target, a space a step: each is some milliseconds. What is not known falls short of nothing. */
export function* tooQuietSpaces(job: Job, drops: DropsById): Generator<void, string[]> {
  const names: string[] = []
  for (const space of job.spaces) {
    if (spaceGrade(spaceFacts(job, drops, space)) === 'tight') names.push(space.name)
    yield
  }
  return names
}

const MISSING: Record<SpaceUnknown, string> = {
  'noise': 'how loud it is there with the system off', 'no-places': 'where speakers hang', 'kind': 'which speakers hang there', 'sensitivity': 'their sensitivity, and whether it is for 1 W or 2.83 V',
  'coverage': 'their coverage angle', 'power': 'what they get: rate the amplifier, or give them a tap',
}
export const missingWords = (unknown: readonly SpaceUnknown[]): string => unknown.length === 0 ? '' : `Not known yet: ${unknown.map(u => MISSING[u]).join('; ')}.`

/** One sentence: is it loud enough. */
export function verdictWords({ targetDb, level, unknown, taps }: SpaceFacts): string {
  if (targetDb === null || level === null) return missingWords(unknown)
  const over = level.meanDb - targetDb
  if (over < -NOT_HEARD_DB) return `${dB(-over)} short of its target: ${dB(level.meanDb)} on average, ${writeNumber(targetDb)} dB wanted.`
  const lower = taps?.lowestW != null && taps.nowW !== null && taps.lowestW < taps.nowW ? ` ${writeQuantity(taps.lowestW, 'W')} would do.` : ''
  return over > 3
    ? `Reaches its target with ${dB(over)} to spare: ${dB(level.meanDb)} on average, ${writeNumber(targetDb)} dB wanted.${lower}`
    : `Reaches its target: ${dB(level.meanDb)} on average, ${writeNumber(targetDb)} dB wanted.${lower}`
}

/** Where the target comes from. */
export function targetWords({ use, noiseDb, overDb }: Space, { targetDb }: SpaceFacts): string {
  const { name, overDb: [least, most], mostDb, mostSays } = spaceUse(use)
  if (noiseDb === null || targetDb === null) return ''
  if (overDb !== null) return `Target ${writeNumber(targetDb)} dB = ${writeNumber(noiseDb)} dB noise and ${writeNumber(overDb)} dB that you ask.`
  const capped = mostDb !== null && targetDb < noiseDb + most
  return capped
    ? `Target ${writeNumber(targetDb)} dB: ${name} wants ${least} to ${most} dB above ${writeNumber(noiseDb)} dB of noise, but ${mostSays}`
    : `Target ${writeNumber(targetDb)} dB = ${writeNumber(noiseDb)} dB noise and ${most} dB: ${name} wants ${least} to ${most}; the upper end, since level is trimmed later and capability is not.`
}

/** Over on the lowest tap, or short on the highest: what else would do. */
export const FAR_OVER_DB = 6
export function otherModelWords({ targetDb, level, taps }: Pick<SpaceFacts, 'targetDb' | 'level' | 'taps'>): string {
  const [lowest, highest] = [taps?.steps[0], taps?.steps.at(-1)]
  if (targetDb === null || level === null || !lowest || !highest) return ''
  if (lowest.meanDb - targetDb > FAR_OVER_DB) return `${dB(lowest.meanDb - targetDb)} over on its lowest tap, ${writeQuantity(lowest.tapW, 'W')}: a less sensitive speaker, one with a lower tap, or fewer of them would do.`
  if (highest.meanDb < targetDb - NOT_HEARD_DB) return `${dB(targetDb - highest.meanDb)} short on its highest tap, ${writeQuantity(highest.tapW, 'W')}: a more sensitive speaker, or more of them, closer.`
  return ''
}

/** What the transformers take of the level, where they are counted: stated by the model, or taken where it is not. */
export function lossWords({ spots }: Pick<SpaceFacts, 'spots'>): string {
  const losses = [...new Set(spots.flatMap(({ kind, tapW }) => kind === null || tapW === null || tapW === 0 ? [] : [lossText(kind)]))]
  return losses.length === 0 ? '' : `Counted: ${losses.join('; ')}.`
}
function lossText({ model: { insertionDb, tapMeans } }: Kind): string {
  if (tapMeans === 'driver-gets') return 'no transformer loss, since its taps say what the driver gets'
  return insertionDb === null ? `${dB(TRANSFORMER_LOSS_DB)} lost in the transformer, taken: its sheet states none` : `${dB(insertionDb)} lost in the transformer, as stated`
}

/** How even it is. */
export function evennessWords({ level }: SpaceFacts): string {
  if (!level) return ''
  return `Nine tenths of the floor above ${dB(level.p10Db)}, a tenth above ${dB(level.p90Db)}; ${Math.round(100 * level.within3Db)} % within 3 dB of the average.`
}

export function peaksWords({ peaks }: Space): string {
  const { db, name } = peakSchool(peaks)
  return db === 0 ? 'Levels are at full output of the line.' : `Levels are of the programme on average: ${db} dB below full output, kept for its peaks (${name}).`
}

/** How far apart, and why. */
export function spacingWords(space: Space, { circleM, spacingM, kind }: SpaceFacts, units: Units): string {
  if (kind === null) return ''
  if (space.spots.length > 0 && space.spots.every(s => s.aim !== null)) return 'Units that face along the floor are not set by circles: read the level between them.'
  if (kind.model.coverageDeg === null) return `The coverage angle of ${kind.model.name} is not stated: no spacing can be worked out.`
  if (circleM === null || spacingM === null) return 'Ears are as high as the ceiling, or it covers all round: no circle, lay the places out by hand.'
  return `One covers ${writeLength(circleM, units)} across at the ears (${writeNumber(kind.model.coverageDeg)}°); ${overlapOf(space.overlap).name}: at most ${writeLength(spacingM, units)} apart.`
}

export const LAW_WORDS = 'Direct sound of every speaker, added by power, falling with distance; beside its axis by 6 dB at half its coverage angle, by the square of the angle, no more than 18 dB. Walls, echo and people are not in it: a meter in the room decides.'

/** What the trade remarks of such a space; cautions first. */
export interface SpaceRemark { grade: 'caution' | 'remark', says: string }
export function spaceRemarks(space: Space, { kind, spots }: SpaceFacts): SpaceRemark[] {
  const remarks: SpaceRemark[] = []
  const build = kind?.model.build ?? null
  if (space.ceiling === 'tiles') remarks.push({ grade: 'caution', says: 'A tile does not bear a speaker: a bridge or rails across the grid, and a safety hang to the building at each. How it is fixed is for the local code and a licensed person to decide.' })
  else if (spots.some(s => (s.spot.heightM ?? space.heightM) >= 2)) remarks.push({ grade: 'caution', says: 'What hangs overhead is held twice. Lifting, rigging and fixings: the local code and a licensed person decide.' })
  if (space.use === 'speech' || space.use === 'event') remarks.push({ grade: 'caution', says: 'Evacuation and fire alarm sound has standards of its own and is licensed work: nothing here sizes it.' })
  if (space.use === 'masking') remarks.push({ grade: 'remark', says: 'Masking is heard where it changes: the same within 3 dB over the whole floor, brought up over days, and trimmed by ear and meter when the furniture stands.' })
  if (build === 'ceiling-open') remarks.push({ grade: 'remark', says: 'Open at the back: cheap, little bass, and heard above the ceiling too. A can has more bass and passes inspection more easily.' })
  if (space.heightM >= 5 && spots.some(s => s.spot.aim === null)) remarks.push({ grade: 'remark', says: 'A high roof: from above, much of the sound is echo before it arrives. Hang them lower, or aim from the walls, the last rows with units of their own.' })
  if (space.ceiling === 'outdoors' && (build === 'ceiling-open' || build === 'ceiling-can' || build === 'pendant')) remarks.push({ grade: 'remark', says: 'Outdoors there is no ceiling to hold it, and its sheet must say that it stands weather.' })
  if (space.cableRemark.trim() === '') remarks.push({ grade: 'remark', says: 'Cable in walls, ceilings and air-handling spaces carries the listing that the local code asks for: note it with the space.' })
  return remarks
}

/** A measured level beside what is worked out there. */
export function measuredWords(measuredDb: number, workedOutDb: number | null): string {
  if (workedOutDb === null) return `${dB(measuredDb)} measured.`
  const off = measuredDb - workedOutDb
  const says = Math.abs(off) <= 3 ? 'as worked out, within 3 dB' : off > 0 ? `${dB(off)} more than direct sound alone: echo, or noise, or a tap higher` : `${dB(-off)} less than worked out: one silent, a tap lower, or reversed`
  return `${dB(measuredDb)} measured, ${dB(workedOutDb)} worked out: ${says}.`
}

export const wattsText = (tapW: number | null): string => tapW === null ? '' : tapW === 0 ? 'off' : writeQuantity(tapW, 'W')
