import type { SpeakerModel } from '#core/gear/speaker'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { NewId } from '#core/hands/intents'
import { giveModel, isBelieved, kindOf, modelOf, ratedWOf } from '#core/hands/kinds'
import type { Job, Speaker } from '#core/job/schema'
import { findSpeaker, outputOf } from '#core/job/tree'
import { labelledOhm } from '#core/network/element'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { wattSensitivityDb } from '#core/room/tap'
import { aroundOf } from '#core/line/surroundings'
import { evaluateOutput, type LineEvaluation } from '#core/line/evaluate'
import { newlyBad } from '#core/line/finding'
import { findingWords } from '#core/line/words'

/** What of the library could take the place of one speaker: load, level, power, fit; and what cannot, with the reason. */

export interface OfferedSpeaker { modelId: string, version: number, model: SpeakerModel }

export interface Replacement {
  offered: OfferedSpeaker
  /** As it would be wired here. */
  speaker: Speaker
  /** Level against the one that is there, on this line at full output, dB; null while a sensitivity or the output is not known. */
  levelDb: number | null
  line: LineEvaluation
  /** What is not as before, or not known: a sentence each. */
  minds: string[]
  edit: Edit
}
export interface Replacements { before: LineEvaluation, wasOhm: number | null, fit: Replacement[], refused: { name: string, why: string }[] }

/** An impedance may be off by so much of the one that it replaces. Common practice, no source. */
export const OHM_OFF = 0.15
/** A frame or a cut-out that differs by more does not go into the hole, mm. Common practice, no source. */
const SIZE_OFF_MM = 3
/** Less rating than this part of the old one is said. Common practice, no source. */
const LESS_RATING = 0.9
/** A level that differs by more is heard beside its neighbours, dB. Common practice, no source: 10 W against 5 W is a just clear difference. */
const HEARD_DB = 2

/** Null where the speaker is not there. Ranked: least to mind first, then nearest in level, then nearest in load. */
export function replacementsFor(job: Job, nodeId: string, library: readonly OfferedSpeaker[], newId: NewId): Replacements | null {
  const place = findSpeaker(job, nodeId)
  if (!place) return null
  const { output, speaker } = place
  const was = kindOf(job, speaker)?.model ?? modelOf(speaker, 'it')
  const before = evaluateOutput(output, aroundOf(job, output.id))
  const wasOhm = speaker.load.kind === 'tap' ? speaker.driverOhm ?? was.nominalOhm : labelledOhm(speaker.load)
  const fit: Replacement[] = []
  const refused: Replacements['refused'] = []
  const lineV = before.kind === 'constant-voltage' ? before.lineV : null
  for (const offered of library) {
    const { model } = offered
    if (model.name === was.name) continue
    const why = refusal(model, was, speaker)
    const edit = why === null ? giveModel(job, [nodeId], offered, () => lineV, newId) : null
    if (why !== null || !edit) {
      refused.push({ name: model.name, why: why ?? 'it is that already' })
      continue
    }
    const after = applyEdit(job, edit).job
    const next = findSpeaker(after, nodeId)!.speaker
    const isOhm = next.load.kind === 'tap' ? model.nominalOhm : labelledOhm(next.load)
    if (wasOhm !== null && isOhm !== null && Math.abs(isOhm / wasOhm - 1) > OHM_OFF + 1e-9) {
      refused.push({ name: model.name, why: `${writeQuantity(isOhm, 'Ω')} where ${writeQuantity(wasOhm, 'Ω')} are: more than ${100 * OHM_OFF} % off` })
      continue
    }
    const line = evaluateOutput(outputOf(after, output.id).output, aroundOf(after, output.id))
    const levelDb = levelBetween(before, was, line, model, nodeId)
    const brings = newlyBad(before.findings, line.findings)
    const stop = brings.find(f => f.grade === 'stop')
    if (stop) refused.push({ name: model.name, why: `on this line it must not be: ${findingWords(stop).what}` })
    const minded = [...whatToMind(model, was, levelDb, isOhm, wasOhm), ...brings.map(f => findingWords(f).what)]
    if (!stop) fit.push({ offered, speaker: next, levelDb, line, minds: minded, edit })
  }
  const off = (r: Replacement) => Math.abs(Math.log((labelledOhm(r.speaker.load) ?? 1) / (wasOhm ?? 1)))
  fit.sort((a, b) => a.minds.length - b.minds.length || Math.abs(a.levelDb ?? Infinity) - Math.abs(b.levelDb ?? Infinity) || off(a) - off(b)
    || (a.offered.model.price ?? Infinity) - (b.offered.model.price ?? Infinity))
  return { before, wasOhm, fit, refused }
}

/** What no wiring mends. */
function refusal(model: SpeakerModel, was: SpeakerModel, { load }: Speaker): string | null {
  if (load.kind === 'tap' && model.scales.length === 0) return 'it has no transformer'
  if (load.kind !== 'tap' && model.nominalOhm === null && !model.members && !model.positions) return 'its impedance is not stated'
  return bodyRefusal(model, was)
}

/** What does not go into its place. */
export function bodyRefusal(model: SpeakerModel, was: SpeakerModel): string | null {
  if (was.build !== null && model.build !== null && was.build !== model.build) return `it is built as a ${model.build.replace('-', ' ')}, not as a ${was.build.replace('-', ' ')}`
  for (const [key, says] of [['frameMm', 'frame'], ['cutOutMm', 'cut-out']] as const) {
    const [is, had] = [model[key], was[key]]
    if (is !== null && had !== null && Math.abs(is - had) > SIZE_OFF_MM) return `its ${says} is ${writeNumber(is)} mm where ${writeNumber(had)} mm are`
  }
  return null
}

/** What is not as before, or not known: a sentence each. */
export function whatToMind(model: SpeakerModel, was: SpeakerModel, levelDb: number | null, isOhm: number | null, wasOhm: number | null): string[] {
  const says: string[] = []
  const [rating, had] = [ratedWOf(model), ratedWOf(was)]
  if (had !== null && rating !== null && rating < LESS_RATING * had) says.push(`stands ${writeQuantity(rating, 'W')}${believed(model)} where ${writeQuantity(had, 'W')}${believed(was)} were`)
  if (rating === null) says.push('its rating is not stated')
  if (levelDb === null) says.push('how loud it is beside the old one is not known')
  else if (Math.abs(levelDb) > HEARD_DB) says.push(`${writeNumber(Math.abs(levelDb), 2)} dB ${levelDb > 0 ? 'louder' : 'quieter'} than before`)
  if (isOhm !== null && wasOhm !== null && Math.abs(isOhm / wasOhm - 1) > 0.02) says.push(`${writeQuantity(isOhm, 'Ω')} in place of ${writeQuantity(wasOhm, 'Ω')}`)
  if (model.depthMm !== null && was.depthMm !== null && model.depthMm > was.depthMm) says.push(`${writeNumber(model.depthMm - was.depthMm)} mm deeper: look at the room behind it`)
  if (model.magnetMm !== null && was.magnetMm !== null && model.magnetMm > was.magnetMm) says.push(`its magnet is ${writeNumber(model.magnetMm - was.magnetMm)} mm wider: look at the room behind it`)
  if (model.plusMark !== '' && was.plusMark !== '' && model.plusMark !== was.plusMark) says.push(`plus is marked by ${model.plusMark}, on the old one by ${was.plusMark}`)
  if (model.holes !== '' && was.holes !== '' && model.holes !== was.holes) says.push(`holes ${model.holes}, on the old one ${was.holes}`)
  // What hangs or stands by itself fits wherever the old one did.
  const goesIntoHole = was.build === null || was.build === 'driver' || was.build.startsWith('ceiling')
  const unknown = !goesIntoHole ? [] : [...(model.frameMm === null || was.frameMm === null ? ['frame'] : []), ...(model.depthMm === null || was.depthMm === null ? ['depth'] : []), ...(model.magnetMm === null || was.magnetMm === null ? ['magnet'] : [])]
  if (unknown.length > 0) says.push(`${unknown.join(' and ')} not stated: measure`)
  return says
}

/** Named where it counts: a rating that somebody believes more than the sheet. */
const believed = (model: SpeakerModel): string => isBelieved(model) ? ' (the rating that you believe)' : ''

function levelBetween(before: LineEvaluation, was: SpeakerModel, after: LineEvaluation, model: SpeakerModel, nodeId: string): number | null {
  const [old, now] = [wattSensitivityDb(was), wattSensitivityDb(model)]
  const [oldW, nowW] = [before, after].map(line => line.drops.find(d => d.nodeId === nodeId)?.powerW ?? null)
  return old === null || now === null || !oldW || !nowW ? null : now - old + 10 * Math.log10(nowW / oldW)
}

export const REPLACING_CAUTION = 'Hold the new one against the hole, magnet and terminals too. A mark at a terminal is its maker’s word: prove polarity by battery before it goes in, and listen before closing.'
