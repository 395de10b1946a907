import { dropsById, spaceFacts, wattDbOf, type SpaceFacts } from '#core/advice/spaces'
import { FAR_OVER_DB, NOT_HEARD_DB } from '#core/advice/spaceWords'
import { broughtBy, type Brought } from '#core/advice/remedies/brought'
import type { SpeakerModel } from '#core/gear/speaker'
import { applyEdit } from '#core/job/apply'
import { partsOf, together, type Edit } from '#core/job/edits'
import type { NewId } from '#core/hands/intents'
import type { LibraryModel } from '#core/hands/kinds'
import { giveSpace, tapSpace } from '#core/hands/spaceSpeakers'
import { spaceById, speakerAt } from '#core/hands/spaces'
import type { Job, Space } from '#core/job/schema'
import { outputsOf } from '#core/job/tree'
import { evaluateOutput, type LineEvaluation } from '#core/line/evaluate'
import { aroundOf } from '#core/line/surroundings'
import { wattsDb, wattSensitivityDb } from '#core/room/tap'

/** Where a space is far over its target on the lowest tap, or short on the highest: speakers that would bring it there, each put in and judged. */

export interface OtherModel {
  offered: LibraryModel
  tapW: number
  /** Average over the floor with it, dB, and how far over the target that is. */
  meanDb: number
  overDb: number
  edit: Edit
  /** What is not good on the lines with it, and was before. */
  brings: Brought[]
}

/** So many are put in and judged: those that should come nearest by their sheets. Each is an evaluation of the lines of the space and of its floor. */
const MOST_TRIED = 8
const MOST_OFFERED = 3

/**
 * @param lines evaluations of the job as it is
 * @returns those that reach the target and are least over it, at most three; nothing where the level is not known or the taps differ
 */
export function otherModels(
  job: Job, lines: readonly LineEvaluation[], space: Space, facts: SpaceFacts, library: readonly LibraryModel[], newId: NewId,
): OtherModel[] {
  const { level, targetDb, taps } = facts
  const now = facts.kind && wattDbOf(facts.kind)
  if (level === null || targetDb === null || taps?.nowW == null || now === null) return []
  const { nowW } = taps
  const lineVOf = (nodeId: string) => lines.find(l => l.kind === 'constant-voltage' && l.speakers.some(s => s.id === nodeId))?.lineV ?? null
  const lineV = space.spots.map(s => speakerAt(job, s)).flatMap(at => at ? [lineVOf(at.speaker.id)] : []).find(v => v !== null) ?? null
  const likely = library.flatMap((offered) => {
    const { model } = offered
    const wattDb = wattSensitivityDb(model)
    if (wattDb === null || model.coverageDeg === null || model.name === facts.kind?.model.name || !isBuiltAlike(model, facts.kind?.model)) return []
    return tapsAt(model, lineV).map(tapW => ({ offered, tapW, overDb: level.meanDb + wattDb - now + wattsDb(tapW / nowW) - targetDb }))
  })
  const tried = likely.filter(l => l.overDb > -3 && l.overDb < FAR_OVER_DB).sort((a, b) => Math.abs(a.overDb) - Math.abs(b.overDb))
  // One tap of a model: the lowest that the judge finds loud enough.
  const models = [...new Set(tried.map(t => t.offered))].slice(0, MOST_TRIED)
  const found = models.flatMap((offered) => {
    const mine = tried.filter(t => t.offered === offered).sort((a, b) => a.tapW - b.tapW)
    for (const { tapW } of mine) {
      const put = judged(job, space, { offered, tapW }, lineVOf, targetDb, newId)
      if (put) return [put]
    }
    return []
  })
  const price = ({ offered: { model } }: OtherModel) => model.price ?? Infinity
  return found.sort((a, b) => a.brings.length - b.brings.length || a.overDb - b.overDb || price(a) - price(b)).slice(0, MOST_OFFERED)
}

/** Put in, on that tap: null where it does not come to the target, is as far over as before, or brings a stop. */
function judged(
  job: Job, space: Space, { offered, tapW }: Pick<OtherModel, 'offered' | 'tapW'>, lineVOf: (nodeId: string) => number | null, targetDb: number, newId: NewId,
): OtherModel | null {
  const given = giveSpace(job, space, offered, lineVOf, newId)
  if (!given) return null
  const withIt = applyEdit(job, given).job
  const tapped = tapSpace(withIt, spaceById(withIt, space.id)!, tapW)
  const edit = together([...partsOf(given), ...tapped ? partsOf(tapped) : []])
  if (!edit) return null
  const after = applyEdit(job, edit).job
  const there = spaceById(after, space.id)!
  const outputIds = new Set(there.spots.flatMap(s => speakerAt(after, s)?.output.id ?? []))
  const lines = outputsOf(after).filter(o => outputIds.has(o.id)).map(o => evaluateOutput(o, aroundOf(after, o.id)))
  const { level } = spaceFacts(after, dropsById(lines), there)
  const overDb = level === null ? null : level.meanDb - targetDb
  if (level === null || overDb === null || overDb < -NOT_HEARD_DB || overDb > FAR_OVER_DB) return null
  const brings = broughtBy(job, edit)
  return brings.some(({ finding }) => finding.grade === 'stop') ? null : { offered, tapW, meanDb: level.meanDb, overDb, edit, brings }
}

const isBuiltAlike = ({ build }: SpeakerModel, was: SpeakerModel | undefined) => build === null || was?.build == null || build === was.build

/** Of the scale that is nearest to a voltage, else of the first. */
function tapsAt({ scales }: SpeakerModel, lineV: number | null): readonly number[] {
  const off = (v: number) => lineV === null ? 0 : Math.abs(Math.log(v / lineV))
  return [...scales].sort((a, b) => off(a.lineV) - off(b.lineV))[0]?.tapsW ?? []
}
