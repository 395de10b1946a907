import { throughsOf } from '#core/job/tree'
import type { Group as WireGroup, Job, Space, Speaker } from '#core/job/schema'
import { isGroup } from '#core/network/tree'
import { peakSchool } from '#core/practice/loudness'
import type { LevelField, Source } from '#core/room/level'
import { wattsDb } from '#core/room/tap'
import type { LineEvaluation } from '../evaluate'
import { isBehindTransformer, tapDrawW } from '../facts'
import { fieldOf, wattDbOf, type DropsById, type SpaceFacts } from '../spaces'

/** The choices of a space: who shares a tap, and what each choice of taps makes of it. */

export const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0)

/** Why a space keeps its taps. */
export type LeftWhy = 'level-not-known' | 'not-all-hang' | 'no-taps' | 'behind-transformer'
/** Speakers that get one tap together. */
export interface Group { speakers: Speaker[], outputIds: string[], tapsW: number[] }
export interface Config { name: string, tapsW: number[], meanDb: number, watts: number, byLine: Map<string, number>, byControl: Map<string, number> }
export interface PlannedGroups { space: Space, targetDb: number, groups: Group[], configs: Config[] }

/** Who shares a tap: all of a space that have the same taps to choose from, on each line for itself where that is allowed. */
export function groupsOf(facts: SpaceFacts, drops: DropsById, lines: readonly LineEvaluation[], byLine: boolean): Group[] | LeftWhy {
  if (facts.free > 0 && facts.spots.length > 0) return 'not-all-hang'
  if (facts.targetDb === null || facts.spots.length === 0 || facts.unknown.some(u => u !== 'power')) return 'level-not-known'
  const outputOf = new Map(lines.flatMap(l => l.kind === 'constant-voltage' ? l.speakers.map(s => [s.id, l.outputId] as const) : []))
  const groups = new Map<string, Group>()
  for (const { speaker } of facts.spots) {
    const outputId = outputOf.get(speaker!.id)
    if (outputId === undefined || speaker!.load.kind !== 'tap' || speaker!.load.tapsW.length === 0) return 'no-taps'
    if (isBehindTransformer(drops.get(speaker!.id)?.behind ?? [])) return 'behind-transformer'
    const tapsW = speaker!.load.tapsW.toSorted((a, b) => a - b)
    const key = `${tapsW.join()}|${speaker!.load.tapMeans}|${speaker!.load.insertionDb}|${byLine ? outputId : ''}`
    const group = groups.get(key)
    if (group) {
      group.speakers.push(speaker!)
      group.outputIds.push(outputId)
    }
    else groups.set(key, { speakers: [speaker!], outputIds: [outputId], tapsW })
  }
  return [...groups.values()]
}

/** Every choice of taps of a space, with the level that it makes there and what it draws on each line and behind each control. */
export interface Choosing { space: Space, facts: SpaceFacts, groups: readonly Group[], prefix: string, cells: number | undefined }
export function configsOf(job: Job, { space, facts, groups, prefix, cells }: Choosing, drops: DropsById, lines: readonly LineEvaluation[]): Config[] {
  const perWatt = groups.map(g => gridPerWatt(facts, new Set(g.speakers.map(s => s.id)), drops, space, fieldOf(space, cells)))
  const lineV = new Map(lines.map(l => [l.outputId, l.lineV]))
  const controls = throughsOf(job).filter(t => t.through.kind === 'control').map(t => ({ id: t.group.id, ids: new Set(speakerIds(t.group)) }))
  let combos: number[][] = [[]]
  for (const g of groups) combos = combos.flatMap(c => g.tapsW.filter(w => w > 0).map(w => [...c, w]))
  return combos.map((tapsW, k) => {
    const byLine = new Map<string, number>()
    const byControl = new Map<string, number>()
    groups.forEach((g, i) => g.speakers.forEach((s, j) => {
      const outputId = g.outputIds[j]!
      const drawW = s.load.kind === 'tap' ? tapDrawW({ ...s.load, tapW: tapsW[i]! }, lineV.get(outputId)!) : 0
      byLine.set(outputId, (byLine.get(outputId) ?? 0) + drawW)
      for (const c of controls) if (c.ids.has(s.id)) byControl.set(c.id, (byControl.get(c.id) ?? 0) + drawW)
    }))
    const meanDb = meanDbOf(perWatt, tapsW) - peakSchool(space.peaks).db
    return { name: `${prefix}_c${k}`, tapsW, meanDb, watts: sum([...byLine.values()]), byLine, byControl }
  })
}

export const speakerIds = (group: WireGroup): string[] => group.children.flatMap(({ node }) => isGroup(node) ? speakerIds(node) : [node.id])

/** Power over the floor of some speakers of a space, for each watt of their taps. */
function gridPerWatt(facts: SpaceFacts, ids: ReadonlySet<string>, drops: DropsById, space: Space, field: LevelField): Float64Array {
  field.set(new Map(facts.spots.filter(s => ids.has(s.speaker!.id)).map(({ spot, speaker, kind }): [string, Source] => {
    const { load } = speaker!
    const drop = drops.get(speaker!.id)
    // What of a tap's watts arrives, as the cable is now; of one that is off, what its transformer leaves.
    const dry = load.kind === 'tap' && load.tapMeans !== 'driver-gets' ? 10 ** (-(load.insertionDb ?? 0) / 10) : 1
    const share = load.kind === 'tap' && load.tapW > 0 && drop?.powerW ? drop.powerW / load.tapW : dry
    const { coverageDeg } = kind!.model
    return [spot.id, {
      xM: spot.xM, yM: spot.yM, heightM: spot.heightM ?? space.heightM, aim: spot.aim, atMetreDb: wattDbOf(kind!)! + wattsDb(share), coverageDeg: coverageDeg!,
    }]
  })))
  return field.levelsDb().map(db => 10 ** (db / 10))
}

function meanDbOf(perWatt: readonly Float64Array[], tapsW: readonly number[]): number {
  const [first] = perWatt
  let total = 0
  for (let cell = 0; cell < first!.length; cell++) {
    let power = 0
    for (let g = 0; g < perWatt.length; g++) power += perWatt[g]![cell]! * tapsW[g]!
    total += 10 * Math.log10(power)
  }
  return total / first!.length
}
