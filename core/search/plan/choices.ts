import { speakersOf, throughsOf } from '#core/job/tree'
import type { Job, Space, Speaker } from '#core/job/schema'
import { efficiencyOf } from '#core/network/element'
import { peakSchool } from '#core/schools/loudness'
import { cellsOf, LevelField, type Cells, type Source } from '#core/room/level'
import { wattsDb } from '#core/room/tap'
import type { LineEvaluation } from '#core/line/evaluate'
import { isBehindTransformer, tapDrawW } from '#core/line/facts'
import { fieldOf, spaceFacts, wattDbOf, type DropsById, type SpaceFacts, type SpotFacts } from '#core/advice/spaces'

/** The choices of a space: who shares a tap, and what each choice of taps makes of it. */

export const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0)

/** What a space is made of is wanted here; its level comes of the grids. */
export const NO_LEVEL = 1

/** Level of a space with what its drivers get now, dB at full output less its peaks; null while that is not known. */
export function levelOf(job: Job, drops: DropsById, space: Space, grids: Grids): number | null {
  const meanDb = grids.meanDb(space, spaceFacts(job, drops, space, fieldOf(space, NO_LEVEL)).spots)
  return meanDb === null ? null : meanDb - peakSchool(space.peaks).db
}

/** Why a space keeps its taps. */
export type LeftWhy = 'level-not-known' | 'not-all-hang' | 'no-taps' | 'behind-transformer'
/** Speakers that get one tap together. */
export interface Group { speakers: Speaker[], outputIds: string[], tapsW: number[] }
export interface Config { name: string, tapsW: number[], meanDb: number, watts: number, byLine: Map<string, number>, byControl: Map<string, number> }
export interface PlannedGroups { space: Space, targetDb: number, groups: Group[], configs: Config[] }

/** Choices of one space that are tried one by one; where there would be more, fewer of its speakers may differ. */
const MOST_CHOICES = 2000

/** Who shares a tap: all of a space, on the taps that all of them have; where they have none in common, or may differ, those that are alike. */
export function groupsOf(facts: SpaceFacts, drops: DropsById, lines: readonly LineEvaluation[], mayDiffer: boolean): Group[] | LeftWhy {
  if (facts.free > 0 && facts.spots.length > 0) return 'not-all-hang'
  if (facts.targetDb === null || facts.spots.length === 0 || facts.unknown.some(u => u !== 'power')) return 'level-not-known'
  const outputOf = new Map(lines.flatMap(l => l.kind === 'constant-voltage' ? l.speakers.map(s => [s.id, l.outputId] as const) : []))
  const all: Member[] = []
  for (const { speaker } of facts.spots) {
    const outputId = outputOf.get(speaker!.id)
    if (outputId === undefined || speaker!.load.kind !== 'tap' || speaker!.load.tapsW.length === 0) return 'no-taps'
    if (isBehindTransformer(drops.get(speaker!.id)?.behind ?? [])) return 'behind-transformer'
    all.push({ speaker: speaker!, load: speaker!.load, outputId })
  }
  const likeOf = ({ load }: Member) => `${load.tapsW.join()} ${load.tapMeans} ${load.insertionDb}`
  const ways = [...mayDiffer ? [(m: Member) => `${likeOf(m)} ${m.outputId}`, likeOf] : [], () => '', likeOf, (m: Member) => m.load.tapsW.join()]
  const countOf = (groups: readonly Group[]) => groups.reduce((n, g) => n * g.tapsW.length, 1)
  return ways.map(way => grouped(all, way)).find(groups => countOf(groups) > 0 && countOf(groups) <= MOST_CHOICES) ?? 'no-taps'
}

interface Member { speaker: Speaker, load: Extract<Speaker['load'], { kind: 'tap' }>, outputId: string }
function grouped(members: readonly Member[], keyOf: (member: Member) => string): Group[] {
  const byKey = new Map<string, Member[]>()
  for (const m of members) byKey.set(keyOf(m), [...byKey.get(keyOf(m)) ?? [], m])
  return [...byKey.values()].map(list => ({
    speakers: list.map(m => m.speaker), outputIds: list.map(m => m.outputId),
    tapsW: list[0]!.load.tapsW.filter(w => w > 0 && list.every(m => m.load.tapsW.includes(w))).sort((a, b) => a - b),
  }))
}

/** Every choice of taps of a space, with the level that it makes there and what it draws on each line and behind each control. */
export interface Choosing { space: Space, facts: SpaceFacts, groups: readonly Group[], prefix: string, grids: Grids }
export function configsOf(job: Job, { space, facts, groups, prefix, grids }: Choosing, drops: DropsById, lines: readonly LineEvaluation[]): Config[] {
  const perWatt = groups.map(g => gridPerWatt(facts, new Set(g.speakers.map(s => s.id)), drops, space, grids))
  const meanDb = meansOf(perWatt)
  const lineV = new Map(lines.map(l => [l.outputId, l.lineV]))
  const controls = throughsOf(job).filter(t => t.through.kind === 'control').map(t => ({ id: t.group.id, ids: new Set(speakersOf(t.group).map(s => s.id)) }))
  let combos: number[][] = [[]]
  for (const g of groups) combos = combos.flatMap(c => g.tapsW.map(w => [...c, w]))
  return combos.map((tapsW, k) => {
    const byLine = new Map<string, number>()
    const byControl = new Map<string, number>()
    groups.forEach((g, i) => g.speakers.forEach((s, j) => {
      const outputId = g.outputIds[j]!
      const drawW = s.load.kind === 'tap' ? tapDrawW({ ...s.load, tapW: tapsW[i]! }, lineV.get(outputId)!) : 0
      byLine.set(outputId, (byLine.get(outputId) ?? 0) + drawW)
      for (const c of controls) if (c.ids.has(s.id)) byControl.set(c.id, (byControl.get(c.id) ?? 0) + drawW)
    }))
    return { name: `${prefix}_c${k}`, tapsW, meanDb: meanDb(tapsW) - peakSchool(space.peaks).db, watts: sum([...byLine.values()]), byLine, byControl }
  })
}

/** What one watt at each speaker brings to its floor: it hangs on the place alone, and is worked out once for all rounds of a plan. */
export class Grids {
  private readonly known = new Map<string, Float64Array>()
  private readonly cells = new Map<string, Cells>()
  constructor(private readonly count?: number) {}

  /** Power on each piece of floor for a watt at the driver. */
  of(space: Space, { spot, kind }: Pick<SpotFacts, 'spot' | 'kind'>): Float64Array {
    const before = this.known.get(spot.id)
    if (before) return before
    let cells = this.cells.get(space.id)
    if (!cells) this.cells.set(space.id, cells = cellsOf(space.outline, this.count))
    const field = new LevelField(cells, space.earsM)
    const source: Source = {
      xM: spot.xM, yM: spot.yM, heightM: spot.heightM ?? space.heightM, aim: spot.aim, atMetreDb: wattDbOf(kind!)!, coverageDeg: kind!.model.coverageDeg!,
    }
    field.set(new Map([[spot.id, source]]))
    const powers = field.levelsDb().map(db => 10 ** (db / 10))
    this.known.set(spot.id, powers)
    return powers
  }

  /** Mean level of a space with what its drivers get, dB at full output; null while one of them is not known. */
  meanDb(space: Space, spots: readonly SpotFacts[]): number | null {
    if (spots.length === 0 || spots.some(s => s.powerW === null || s.kind === null)) return null
    return meanOf(added(spots.map(s => this.of(space, s)), spots.map(s => s.powerW!)))
  }
}

function added(grids: readonly Float64Array[], factors: readonly number[]): Float64Array {
  const total = new Float64Array(grids[0]!.length)
  grids.forEach((grid, g) => {
    const factor = factors[g]!
    for (let cell = 0; cell < total.length; cell++) total[cell]! += factor * grid[cell]!
  })
  return total
}
function meanOf(powers: Float64Array): number {
  let sumDb = 0
  for (const power of powers) sumDb += 10 * Math.log10(Math.max(power, 1e-30))
  return sumDb / powers.length
}

/** Power over the floor of some speakers of a space, for each watt of their taps. */
function gridPerWatt(facts: SpaceFacts, ids: ReadonlySet<string>, drops: DropsById, space: Space, grids: Grids): Float64Array {
  const of = facts.spots.filter(s => ids.has(s.speaker!.id))
  const shares = of.map(({ speaker }) => {
    const { load } = speaker!
    const drop = drops.get(speaker!.id)
    // What of a tap's watts arrives, as the cable is now; of one that is off, what its transformer leaves.
    const dry = load.kind === 'tap' && load.tapMeans !== 'driver-gets' ? efficiencyOf(load) ?? 1 : 1
    return load.kind === 'tap' && load.tapW > 0 && drop?.powerW ? drop.powerW / load.tapW : dry
  })
  return added(of.map(s => grids.of(space, s)), shares)
}

/** Mean level of the floor for taps of each group; of one group alone, so many decibels of tap are so many everywhere. */
function meansOf(perWatt: readonly Float64Array[]): (tapsW: readonly number[]) => number {
  if (perWatt.length > 1) return tapsW => meanOf(added(perWatt, tapsW))
  const oneWattDb = meanOf(perWatt[0]!)
  return ([tapW]) => oneWattDb + wattsDb(tapW!)
}
