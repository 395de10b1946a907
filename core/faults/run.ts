import type { Output } from '#core/job/schema'
import { branchesOf } from '#core/job/tree'
import { isGroup, type WiringNode } from '#core/network/tree'
import { leadOhm } from '#core/network/cable'
import type { Seen } from '#core/network/solver'
import { solvedAsRead } from '#core/check/readingBands'
import { withBranchChanged, withNode, withOhmInRun } from './changeTree'
import { faultAt, type FaultDefinition } from './fault'

/** What the run between two places can have, beside a break. */

/** What a line reads, solved once: hundreds of sizes and places are parts of it. */
const heads = new WeakMap<WiringNode, Seen>()
function headAsRead(wiring: WiringNode): Seen {
  let head = heads.get(wiring)
  if (!head) heads.set(wiring, head = solvedAsRead(wiring).head)
  return head
}

/** Ohms of a bad joint in a run, against all that the line is. Common practice, no source: a corroded splice adds a part of the line, or many times it. */
const OF_THE_LINE = [0.15, 0.5, 1.5, 6] as const

/** A joint or plug in the run stands in the way of all beyond it, with so many times what the line is (`amount`). */
export const jointInRun: FaultDefinition = {
  kind: 'joint-in-run',
  looks: 0.3,
  prior: 2,
  why: 'a splice in the run is made like those at the speakers; there are fewer of them',
  candidates: output => branchesOf(output.wiring).flatMap(b => OF_THE_LINE.map(amount => faultAt('joint-in-run', b.node.id, { amount }))),
  change: (wiring, { nodeId, amount }) => {
    const head = headAsRead(wiring)
    return head.state === 'finite' ? withOhmInRun(wiring, nodeId!, head.ohm * (amount ?? OF_THE_LINE[2])) : wiring
  },
  coil: { right: 1 },
  acts: 'onward',
  isOfTheLine: true,
  isUnsteady: true,
}

/** The pair is shorted along its way to a place: a nail, a clamp. Taken half way along: where along it, the ohms say (a short's distance). */
export const shortInRun: FaultDefinition = {
  kind: 'short-in-run',
  prior: 2,
  why: 'nails, clamps, doors; rarer than strands at a terminal',
  candidates: output => branchesOf(output.wiring).flatMap(b => leadOhm(b.lead) > 0 ? [faultAt('short-in-run', b.node.id, { amount: 0.5 })] : []),
  change: (wiring, { nodeId, amount }) => shortedBefore(wiring, nodeId!, amount ?? 0.5),
  coil: { right: 1 },
}

/** What is shorted is the cable before it: the place itself is not in the way of who reads from there on. */
function shortedBefore(wiring: WiringNode, nodeId: string, part: number): WiringNode {
  return withBranchChanged(wiring, nodeId, ({ lead }) => ({ lead: lead && { ...lead, lengthM: lead.lengthM * part }, node: { kind: 'short', id: `${nodeId}-shorted` } }), (rest, parent) => parent.kind === 'chain' ? [] : rest)
}

/** What leaks, against all that the line is. Common practice, no source: damp in a box is a part of the line's load, or many times it. */
const LEAKS = [0.3, 0.8, 2, 5, 12] as const
/** Places along a run that stand for all of it: the ohms tell it no closer. */
const PLACES = 8
const LEAST_APART = 2
function placesAlong({ wiring }: Output): string[] {
  const apart = Math.max(LEAST_APART, Math.ceil(wiring.children.length / PLACES))
  return wiring.children.flatMap((child, k) => k % apart === apart >> 1 || wiring.children.length < apart ? [child.node.id] : [])
}
/**
 * Something conducts across the pair that nobody drew: damp in a box, a nicked cable. `amount` times what the line is; at some places along a chain, since
 * who reads from a place onward has it before him or behind.
 */
export const leakAcross: FaultDefinition = {
  kind: 'leak-across',
  prior: 2,
  why: 'damp finds every box out of doors',
  candidates: output => output.wiring.children.length === 0 ? [] : placesAlong(output).flatMap(nodeId => LEAKS.map(amount => faultAt('leak-across', nodeId, { amount }))),
  change: (wiring, { nodeId, amount }) => {
    const head = headAsRead(wiring)
    if (head.state !== 'finite' || nodeId === null) return wiring
    const leak: WiringNode = { kind: 'speaker', id: `${nodeId} leaks`, load: { kind: 'nominal', nominalOhm: head.ohm * (amount ?? LEAKS[2]) } }
    // Beside what hangs there: a change at one place, which two at once are found by exactly.
    return withNode(wiring, nodeId, node => ({ kind: 'star', id: `${nodeId} and its leak`, children: [{ lead: null, node }, { lead: null, node: leak }] }))
  },
  coil: { right: 1 },
  isOfTheLine: true,
  isUnsteady: true,
}

/** One leg lies on earth or metalwork. It changes no ohms of the line: it hums. */
export const legEarth: FaultDefinition = {
  kind: 'leg-earth',
  prior: 1.5,
  why: 'a conductor under a bracket screw',
  candidates: output => output.wiring.children.length === 0 ? [] : [faultAt('leg-earth', null)],
  change: wiring => wiring,
  coil: { right: 1 },
  heard: { hum: 0.65, plays: 0.35 },
  acts: 'line',
  isToEarth: true,
}

/** How many times the resistance of the cable that is drawn: two sizes thinner, or thicker. Source: IEC 60228 (0.75 for 2.5 mm² is 3.3). */
const OTHER_CABLE = [3.2, 0.4] as const
/** Cable that loses less than this part of the line is not told from another. */
const LEAST_LOST = 0.02
export const anotherCable: FaultDefinition = {
  kind: 'another-cable',
  looks: 0.7,
  prior: 0.7,
  why: 'the reel that was on the van',
  candidates: (output) => {
    const { headPowerW, lostW } = solvedAsRead(output.wiring)
    return headPowerW > 0 && lostW / headPowerW > LEAST_LOST ? OTHER_CABLE.map(amount => faultAt('another-cable', null, { amount })) : []
  },
  change: (wiring, { amount }) => lengthsTimes(wiring, amount ?? OTHER_CABLE[0]),
  coil: { right: 1 },
}

function lengthsTimes(node: WiringNode, times: number): WiringNode {
  return isGroup(node)
    ? { ...node, children: node.children.map(c => ({ lead: c.lead && { ...c.lead, lengthM: c.lead.lengthM * times },
        node: lengthsTimes(c.node, times) })) }
    : node
}

/** The pair is crossed at a joint: all behind it moves the other way round. A speaker by itself is `turned-round`. */
export const pairCrossed: FaultDefinition = {
  kind: 'pair-crossed',
  looks: 0.4,
  prior: 1.5,
  why: 'one joint in some tens, where colours change from one cable to the next',
  candidates: output => branchesOf(output.wiring).filter((b) => {
    const siblings = output.wiring.children
    const at = siblings.indexOf(b)
    return isGroup(b.node) || (at > 0 && at < siblings.length - 1)
  }).map(b => faultAt('pair-crossed', b.node.id)),
  change: wiring => wiring,
  coil: { right: 1 },
  acts: 'onward',
  isReversed: true,
}
