import type { Speaker } from '#core/job/schema'
import { faultAt, type FaultDefinition } from './fault'
import { labelOhm, withLoadTimes, withNode } from './changeTree'
import { USUAL_DRIVER_OHM } from './lowImpedancePosition'

/** What a line transformer at a speaker can have. */

const tapped = (speakers: readonly Speaker[]) => speakers.filter(s => s.load.kind === 'tap' && s.load.tapW > 0)

export const windingOpen: FaultDefinition = {
  kind: 'winding-open',
  isOfUnit: true,
  prior: 1.5,
  why: 'thin wire, and a lead that is pulled when the tile goes back',
  candidates: (_, speakers) => tapped(speakers).map(s => faultAt('winding-open', s.id)),
  change: (wiring, { nodeId }) => withNode(wiring, nodeId!, () => ({ kind: 'open', id: nodeId! })),
  coil: { right: 1 },
}

/** Part of its load that a winding with shorted turns leaves. Common practice, no source. */
const LEFT = [0.2, 0.45] as const
export const windingShorted: FaultDefinition = {
  kind: 'winding-shorted',
  isOfUnit: true,
  prior: 0.7,
  why: 'bass through a small transformer, or twice the volts that it is made for',
  candidates: (_, speakers) => tapped(speakers).flatMap(s => LEFT.map(amount => faultAt('winding-shorted', s.id, { amount }))),
  change: (wiring, { nodeId, amount }) => withLoadTimes(wiring, nodeId!, amount ?? LEFT[1]),
  coil: { right: 1 },
  heard: { quiet: 0.5, plays: 0.2, scratchy: 0.2, silent: 0.1 },
}

/** Copper of the winding that is then across the line, Ω. Common practice, no source. */
const SECONDARY_COPPER_OHM = 0.6
/** Primary and secondary exchanged: the line hangs on the few turns that are made for the driver, and sees less than the driver's own ohms. */
export const windingExchanged: FaultDefinition = {
  kind: 'winding-exchanged',
  looks: 0.7,
  isOfUnit: true,
  prior: 0.7,
  why: 'flying leads without a key; found when it is first switched on',
  candidates: (_, speakers) => tapped(speakers).map(s => faultAt('winding-exchanged', s.id)),
  change: (wiring, { nodeId }) => withNode(wiring, nodeId!, (node) => {
    if (node.kind !== 'speaker') return node
    const driverOhm = (node as { driverOhm?: number | null }).driverOhm ?? USUAL_DRIVER_OHM
    // The driver behind the turns ratio the other way round: Zd² / Z. Source: the ideal transformer.
    return { ...node, load: { kind: 'nominal', nominalOhm: SECONDARY_COPPER_OHM + driverOhm ** 2 / (labelOhm(node.load) ?? driverOhm) } }
  }),
  coil: { right: 1 },
  ownPart: 0,
  assumes: ({ driverOhm }) => driverOhm === null ? `its driver taken as ${USUAL_DRIVER_OHM} Ω` : null,
}
