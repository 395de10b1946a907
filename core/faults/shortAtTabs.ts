import { isGroup, type WiringNode } from '#core/network/tree'
import { faultAt, type FaultDefinition } from './fault'
import { withLoadTimes, withNode } from './changeTree'

/**
 * Of a transformer whose secondary is shorted the copper is left, and the field that does not couple: from about this part of its load to that. Common
 * practice, no source.
 */
const COPPER_LEFT = [0.08, 0.15] as const

/** The tabs of the driver touch each other, or its frame. Behind a transformer the line does not see a short: it sees the copper of the windings. */
export const shortAtTabs: FaultDefinition = {
  kind: 'short-at-tabs',
  looks: 0.8,
  isOfUnit: true,
  prior: 1,
  why: 'a strand across two tabs a finger apart; seen when the unit is out',
  candidates: (_, speakers) => speakers.filter(s => s.load.kind === 'tap' && s.load.tapW > 0).flatMap(s => COPPER_LEFT.map(amount => faultAt('short-at-tabs', s.id, { amount }))),
  change: (wiring, { nodeId, amount }) => isTapped(wiring, nodeId!) ? withLoadTimes(wiring, nodeId!, amount ?? COPPER_LEFT[1]) : withNode(wiring, nodeId!, () => ({ kind: 'short', id: nodeId! })),
  coil: { short: 1 },
  heard: { silent: 1 },
  ownPart: 0,
}

function isTapped(node: WiringNode, nodeId: string): boolean {
  return isGroup(node) ? node.children.some(c => isTapped(c.node, nodeId)) : node.kind === 'speaker' && node.id === nodeId && node.load.kind === 'tap'
}
