import { solvedOutward } from '#core/check/onChain'
import { dcrAt, METER_HZ, solvedAsRead, throughWindings } from '#core/check/readingBands'
import { definitionOf } from '#core/faults/index'
import type { Fault, FaultDefinition } from '#core/faults/fault'
import type { Output } from '#core/job/schema'
import { branchesOf, speakersOf, throughsIn } from '#core/job/tree'
import { asCurve, isReactive, type View } from '#core/network/element'
import { headOf, solveLine, type LineSolution } from '#core/network/line'
import type { Seen } from '#core/network/solver'
import { isGroup, type WiringNode } from '#core/network/tree'
import { onceEach } from '#core/quantity/once'
import type { Deviations } from './deviations'

/** A line as drawn, and with faults in it: what each would show. */

/** What is read in ohms: at the head, or from a place outward; with a tone, or the copper alone (0 Hz). */
export interface OhmPlace { nodeId: string | null, frequencyHz: number }
export const AT_HEAD: OhmPlace = { nodeId: null, frequencyHz: METER_HZ }
export const placeKey = ({ nodeId, frequencyHz }: OhmPlace): string => `${frequencyHz} ${nodeId ?? ''}`

/** What a meter sees there, and how it hangs on what units may be. */
export interface Sight {
  seen: Seen
  /** Part of the head's ohms that follows each model: its share of the power (Tellegen). */
  follows: Float64Array
  /** Variance of its logarithm by what is each unit's own, by the cable, and by the sizes between those tried of a fault. */
  variance: number
}

/** A cable's resistance is within so much of what is drawn: one sigma. Common practice, no source. */
const CABLE = 0.05

/** The line as drawn, and what does not hang on a fault. */
export interface Plan {
  output: Output
  others: readonly Output[]
  deviations: Deviations
  /** How far the head's ohms follow the loads': wholly, but where capacitors and coils in the way hold part of them. */
  followOf: (frequencyHz: number) => number
  drawn: Outcome
  watts: ReadonlyMap<string, number>
  speakers: readonly string[]
  /** Speakers that are a place, or hang in it; and all that lie onward along its chain besides. */
  within: (nodeId: string) => ReadonlySet<string>
  onward: (nodeId: string) => ReadonlySet<string>
}

/** The line with faults in it, or none. */
export interface Outcome {
  faults: readonly Fault[]
  definitions: readonly FaultDefinition[]
  wiring: WiringNode
  solved: LineSolution
  /** What is seen at a place; null where that is no place of this line any more. */
  sight: (place: OhmPlace) => Sight | null
  /** Power of every speaker for one volt at the head. */
  watts: () => Pick<ReadonlyMap<string, number>, 'get'>
  /** Whether there is a way round for direct current, through windings too; and round them. */
  wayRound: () => { way: Seen, bare: Seen }
}
/** What is told of it otherwise than in ohms. */
export type Told = Pick<Outcome, 'faults' | 'definitions' | 'wiring' | 'watts' | 'wayRound'>

export function planOf(output: Output, deviations: Deviations, others: readonly Output[] = []): Plan {
  const placed = new Map(branchesOf(output.wiring).map(b => [b.node.id, b.node]))
  const within = onceEach((nodeId: string) => new Set(placed.has(nodeId) ? speakersOf(placed.get(nodeId)!).map(s => s.id) : []))
  const isHeld = throughsIn(output.wiring).some(({ through }) => isReactive(through))
  const followOf = onceEach((hz: number) => isHeld && hz > 0 ? followedBy(output, hz) : 1)
  const plan = {
    output, others, deviations, followOf, within, speakers: speakersOf(output.wiring).map(s => s.id),
    onward: onceEach((nodeId: string) => new Set(onwardOf(output.wiring, nodeId))),
  }
  const drawn = outcomeOf(plan, [])
  return { ...plan, drawn, watts: new Map(drawn.solved.drops.map(d => [d.id, d.powerW])) }
}

function onwardOf(node: WiringNode, nodeId: string): string[] {
  if (!isGroup(node)) return []
  const at = node.children.findIndex(c => c.node.id === nodeId)
  if (at < 0) return node.children.flatMap(c => onwardOf(c.node, nodeId))
  return (node.kind === 'chain' ? node.children.slice(at) : [node.children[at]!]).flatMap(c => idsIn(c.node))
}
const idsIn = (node: WiringNode): string[] => isGroup(node) ? node.children.flatMap(c => idsIn(c.node)) : [node.id]

function followedBy({ wiring }: Output, frequencyHz: number): number {
  const [one, more] = [solvedAsRead(wiring, frequencyHz).head, solvedAsRead(wiring, frequencyHz, MORE).head]
  return one.state === 'finite' && more.state === 'finite' ? Math.log(more.ohm / one.ohm) / Math.log(MORE) : 1
}
const MORE = 1.05

type Base = Pick<Plan, 'output' | 'others' | 'deviations' | 'followOf'> & { drawn?: Outcome }

/** The wiring with faults in it, one after the other. */
export function changed(wiring: WiringNode, faults: readonly Fault[], others: readonly Output[]): WiringNode {
  const isFirst = (fault: Fault) => definitionOf(fault.kind)?.isOfTheLine === true
  return [...faults].sort((a, b) => Number(isFirst(b)) - Number(isFirst(a))).reduce((tree, fault) => definitionOf(fault.kind)?.change(tree, fault,
    others) ?? tree, wiring)
}

export function outcomeOf(base: Base, faults: readonly Fault[]): Outcome {
  const { output, others, deviations, followOf, drawn } = base
  const wiring = changed(output.wiring, faults, others)
  const definitions = faults.flatMap(f => definitionOf(f.kind) ?? [])
  // Of ten faults two change no ohms: what was solved once is not solved again.
  const solved = drawn && wiring === drawn.wiring ? drawn.solved : solveLine({ lead: null, node: wiring }, asCurve, METER_HZ, 1)
  let watts: Map<string, number> | null = null
  /** Beyond a break, a short, or on the output of another line all is as it hangs there: parted from what is before it, none of that is read. */
  const beyond = (place: OhmPlace): Sight | null => {
    if (!drawn || readFrom(drawn.wiring, place.nodeId) === null) return null
    const there = faults.filter(f => readFrom(changed(output.wiring, [f], others), place.nodeId) !== null)
    return there.length === faults.length ? null : outcomeOf(base, there).sight(place)
  }
  const sights = new Map<string, Sight | null>()
  return {
    faults, definitions, wiring, solved,
    sight: (place) => {
      const key = placeKey(place)
      if (sights.has(key)) return sights.get(key)!
      const sight = place.nodeId === null && place.frequencyHz === METER_HZ
        ? sightOf(solved, deviations, followOf(METER_HZ))
        : drawn && isSameFrom(wiring, drawn.wiring, place.nodeId)
          ? drawn.sight(place)
          : sightAt(wiring, place, deviations, followOf(place.frequencyHz)) ?? beyond(place)
      sights.set(key, sight)
      return sight
    },
    watts: () => {
      if (watts) return watts
      watts = new Map(solved.drops.map(d => [d.id, d.powerW]))
      faults.forEach((fault, k) => {
        const part = definitions[k]?.ownPart
        if (part !== undefined && fault.nodeId) watts!.set(fault.nodeId, (watts!.get(fault.nodeId) ?? 0) * part)
      })
      return watts
    },
    wayRound: () => wayRoundOf(wiring),
  }
}

export const wayRoundOf = (node: WiringNode): ReturnType<Outcome['wayRound']> =>
  ({ way: headOf({ lead: null, node }, throughWindings, 0), bare: headOf({ lead: null, node }, dcrAt('expected'), 0) })

/** As a meter sees it: with a tone the curves, with none the copper. */
export const viewAt = (frequencyHz: number): View => frequencyHz === 0 ? dcrAt('expected') : asCurve

/** The part of a wiring that is read from a place; null where it is none. */
export const readFrom = (wiring: WiringNode, nodeId: string | null): WiringNode | null => nodeId === null
  ? wiring
  : isGroup(wiring)
    ? solvedOutward(wiring, nodeId)
    : null

/** Whether nothing is changed of what is read from a place: half of all faults lie before it. */
function isSameFrom(wiring: WiringNode, drawn: WiringNode, nodeId: string | null): boolean {
  const [now, then] = [readFrom(wiring, nodeId), readFrom(drawn, nodeId)]
  if (now === then) return true
  if (!now || !then || !isGroup(now) || !isGroup(then) || now.through !== then.through || now.children.length !== then.children.length) return false
  // The lead to the first is not read.
  return now.children.every((child, k) => k === 0 && nodeId !== null ? child.node === then.children[k]!.node : child === then.children[k])
}

function sightAt(wiring: WiringNode, { nodeId, frequencyHz }: OhmPlace, deviations: Deviations, follow: number): Sight | null {
  const node = readFrom(wiring, nodeId)
  return node && sightOf(solveLine({ lead: null, node }, viewAt(frequencyHz), frequencyHz, 1), deviations, follow)
}

function sightOf({ head, drops, headPowerW, lostW }: LineSolution, { models, modelOf, own }: Deviations, follow: number): Sight {
  const follows = new Float64Array(models)
  let variance = 0
  if (head.state === 'finite' && headPowerW > 0) {
    for (const { id, powerW } of drops) {
      const model = modelOf.get(id)
      if (model === undefined) continue
      const share = follow * powerW / headPowerW
      follows[model]! += share
      variance += (share * own.get(id)!) ** 2
    }
    variance += (CABLE * lostW / headPowerW) ** 2
  }
  return { seen: head, follows, variance }
}

/** Whether a fault acts on a speaker, beside its watts. */
export function actsOn({ onward, within }: Pick<Plan, 'onward' | 'within'>, fault: Fault, { acts }: FaultDefinition, speakerId: string): boolean {
  if (acts === 'line') return true
  if (fault.nodeId === null) return false
  return fault.nodeId === speakerId || (acts === 'onward' ? onward : within)(fault.nodeId).has(speakerId)
}
