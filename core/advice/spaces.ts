import { kindOf } from '#core/hands/kinds'
import { speakerAt } from '#core/hands/spaces'
import type { Job, Kind, Space, Speaker, Spot } from '#core/job/schema'
import { peakSchool, targetDb } from '#core/schools/loudness'
import { efficiencyOf } from '#core/network/element'
import { TRANSFORMER_LOSS_DB } from '#core/schools/reserve'
import { circleM, overlapOf } from '#core/room/coverage'
import { cellsOf, LevelField, type Source } from '#core/room/level'
import { statisticsOf, type LevelStatistics } from '#core/room/statistics'
import { lowestTap, wattsDb, wattSensitivityDb } from '#core/room/tap'
import type { LineEvaluation } from '#core/line/evaluate'

/** How loud a space is, from what hangs there and what it gets; what is not known is named, never guessed silently. */

/** What of a space has to be known before its level is. */
export type SpaceUnknown = 'noise' | 'kind' | 'sensitivity' | 'coverage' | 'power' | 'no-places'

/** What one place sounds with. */
export interface SpotFacts {
  spot: Spot
  speaker: Speaker | null
  /** Of its own speaker, or of the one that is to hang there. */
  kind: Kind | null
  /** Its tap, W; null where it hangs on none. */
  tapW: number | null
  /** What its driver gets at full output of the line, W; null while that is not known. */
  powerW: number | null
  /** `solved`: with cable, controls and transformers counted; `planned`: none hangs there yet, its tap alone less the transformer's loss. */
  basis: 'solved' | 'planned'
  source: Source | null
}

export interface SpaceFacts {
  spaceId: string
  targetDb: number | null
  /** Of the speaker chosen for the space. */
  kind: Kind | null
  circleM: number | null
  spacingM: number | null
  spots: SpotFacts[]
  /** Places where no speaker hangs. */
  free: number
  unknown: SpaceUnknown[]
  /** What is taken where nothing is stated. */
  assumed: ('transformer-loss')[]
  /** Average of the programme over the floor: full output less what is kept for peaks; null while it is not known. */
  level: LevelStatistics | null
  taps: TapFacts | null
}

/** What the taps of a space do to its level, all of them moved together. */
export interface TapFacts {
  /** The tap that all are on, W; null where they differ. */
  nowW: number | null
  /** The lowest that brings the mean to the target; null where none does, or no target is known. */
  lowestW: number | null
  /** Mean level at each tap that they all have. */
  steps: { tapW: number, meanDb: number }[]
}

/** Where a line is solved, by the speakers on it. */
export type DropsById = ReadonlyMap<string, LineEvaluation['drops'][number]>
export const dropsById = (lines: readonly LineEvaluation[]): DropsById => new Map(lines.flatMap(l => l.drops.map(d => [d.nodeId, d] as const)))

/** The field of a space, to be kept and fed again when one place moves. */
export function fieldOf(space: Pick<Space, 'outline' | 'earsM'>, count?: number): LevelField {
  return new LevelField(cellsOf(space.outline, count), space.earsM)
}

export function spaceFacts(job: Job, drops: DropsById, space: Space, field: LevelField = fieldOf(space)): SpaceFacts {
  const kind = kindOf(job, space)
  const target = targetDb(space.use, space.noiseDb, space.overDb)
  const planned = kind === null ? null : plannedTap(kind, space.tapW)
  const spots = space.spots.map(spot => spotFacts(job, drops, space, spot, kind, planned))
  const unknown = new Set<SpaceUnknown>()
  if (space.noiseDb === null) unknown.add('noise')
  if (spots.length === 0) unknown.add('no-places')
  if (kind === null && (spots.length === 0 || spots.some(s => s.kind === null))) unknown.add('kind')
  for (const s of spots) {
    if (s.kind === null) unknown.add('kind')
    else if (wattDbOf(s.kind) === null) unknown.add('sensitivity')
    else if (s.kind.model.coverageDeg === null) unknown.add('coverage')
    else if (s.powerW === null) unknown.add('power')
  }
  const acrossM = circleM(space.heightM, space.earsM, kind?.model.coverageDeg ?? null)
  const isWhole = spots.length > 0 && spots.every(s => s.source !== null)
  field.set(new Map(isWhole ? spots.map(s => [s.spot.id, s.source!]) : []))
  const full = statisticsOf(field.levelsDb())
  const level = full && shifted(full, -peakSchool(space.peaks).db)
  const isLossAssumed = spots.some(s => s.basis === 'planned' && s.kind !== null && s.tapW !== null && lossOf(s.kind).isAssumed)
  return {
    spaceId: space.id, targetDb: target, kind, circleM: acrossM, spacingM: acrossM === null ? null : acrossM * overlapOf(space.overlap).factor, spots,
    free: spots.filter(s => s.speaker === null).length, unknown: [...unknown], assumed: isLossAssumed ? ['transformer-loss'] : [], level,
    taps: level && tapFacts(spots, level, target),
  }
}

function spotFacts(job: Job, drops: DropsById, space: Space, spot: Spot, chosen: Kind | null, planned: Planned | null): SpotFacts {
  const hung = speakerAt(job, spot)
  const kind = hung ? kindOf(job, hung.speaker) : chosen
  const tapW = hung ? (hung.speaker.load.kind === 'tap' ? hung.speaker.load.tapW : null) : planned?.tapW ?? null
  const powerW = hung ? drops.get(hung.speaker.id)?.powerW ?? null : planned?.powerW ?? null
  const basis = hung ? 'solved' : 'planned'
  return { spot, speaker: hung?.speaker ?? null, kind, tapW, powerW, basis, source: sourceOf(space, spot, kind, powerW) }
}

function sourceOf(space: Space, spot: Spot, kind: Kind | null, powerW: number | null): Source | null {
  const wattDb = kind && wattDbOf(kind)
  if (!kind || wattDb === null || kind.model.coverageDeg === null || powerW === null) return null
  // One that gets nothing is silent, whatever it is: far below any noise.
  const atMetreDb = powerW > 0 ? wattDb + wattsDb(powerW) : -200
  return { xM: spot.xM, yM: spot.yM, heightM: spot.heightM ?? space.heightM, aim: spot.aim, atMetreDb, coverageDeg: kind.model.coverageDeg }
}

export const wattDbOf = ({ model }: Kind): number | null => wattSensitivityDb(model)

interface Planned { tapW: number, powerW: number }
/** A place with no speaker yet is taken on the space's tap, or on the lowest that its kind has. */
function plannedTap(kind: Kind, tapW: number | null): Planned | null {
  const [scale] = kind.model.scales
  if (!scale) return null
  const wanted = tapW ?? Math.min(...scale.tapsW)
  return { tapW: wanted, powerW: wanted * lossOf(kind).share }
}

/** What of a tap's watts its driver gets. */
function lossOf({ model: { insertionDb, tapMeans } }: Kind): { share: number, isAssumed: boolean } {
  if (tapMeans === 'driver-gets') return { share: 1, isAssumed: false }
  const stated = efficiencyOf({ insertionDb })
  return { share: stated ?? efficiencyOf({ insertionDb: TRANSFORMER_LOSS_DB })!, isAssumed: stated === null }
}

const shifted = (s: LevelStatistics, db: number): LevelStatistics => ({ ...s, meanDb: s.meanDb + db, p10Db: s.p10Db + db, p90Db: s.p90Db + db })

/** Only where all sit on taps that are on, and share the same list: then so many decibels of tap are so many decibels everywhere. */
function tapFacts(spots: readonly SpotFacts[], level: LevelStatistics, target: number | null): TapFacts | null {
  const taps = spots.map(s => s.tapW)
  if (taps.some(w => w === null || w === 0)) return null
  const lists = spots.map(s => listOf(s))
  const [list] = lists
  if (!list || lists.some(l => l.join() !== list.join())) return null
  const nowW = new Set(taps).size === 1 ? taps[0]! : null
  if (nowW === null) return { nowW: null, lowestW: null, steps: [] }
  const steps = list.map(tapW => ({ tapW, meanDb: level.meanDb + wattsDb(tapW / nowW) }))
  return { nowW, lowestW: target === null ? null : lowestTap(list, nowW * 10 ** ((target - level.meanDb) / 10), w => w), steps }
}

function listOf({ speaker, kind }: SpotFacts): number[] {
  const list = speaker ? (speaker.load.kind === 'tap' ? speaker.load.tapsW : []) : kind?.model.scales[0]?.tapsW ?? []
  return [...list].sort((a, b) => a - b)
}
