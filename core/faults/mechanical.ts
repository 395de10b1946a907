import { asWired } from '#core/network/tree'
import { withNode } from './changeTree'
import { faultAt, type FaultDefinition } from './fault'

/** The coil rubs, dirt in the gap, a torn cone: right ohms, and scratchy. */
export const rubbing: FaultDefinition = {
  kind: 'rubbing',
  looks: 0.8,
  isOfUnit: true,
  prior: 2,
  why: 'heat, too much travel, or a frame that was pulled askew',
  candidates: (_, speakers) => speakers.map(s => faultAt('rubbing', s.id)),
  change: wiring => wiring,
  coil: { right: 0.85, low: 0.1, high: 0.05 },
  heard: { 'scratchy': 0.85, 'plays': 0.1, 'quiet': 0.05 },
}

/** The high-frequency unit is gone, behind its capacitor: no ohmmeter sees it, and hardly a tone of 1 kHz. */
export const highUnitGone: FaultDefinition = {
  kind: 'high-unit-gone',
  isOfUnit: true,
  prior: 1.5,
  why: 'clipping burns the small unit first',
  // One coil of a sub has none; nothing is said of the others.
  candidates: (_, speakers) => speakers.filter(s => s.load.kind !== 'coil').map(s => faultAt('high-unit-gone', s.id)),
  change: wiring => wiring,
  coil: { right: 1 },
  heard: { thin: 0.6, plays: 0.35, quiet: 0.05 },
}

/** One drive unit of several behind one pair of terminals is open. */
export const oneDriverGone: FaultDefinition = {
  kind: 'one-driver-gone',
  isOfUnit: true,
  prior: 1.5,
  why: 'several units in one box, each as likely to fail as one alone',
  candidates: (_, speakers) => speakers.flatMap((s) => {
    const wired = asWired(s.load)
    return wired.kind === 'members' && wired.joined === 'parallel' ? [faultAt('one-driver-gone', s.id)] : []
  }),
  change: (wiring, { nodeId }) => withNode(wiring, nodeId!, (node) => {
    if (node.kind !== 'speaker') return node
    const wired = asWired(node.load)
    if (wired.kind !== 'members' || wired.members.length < 2) return node
    const [first, ...rest] = wired.members.slice(1)
    return { ...node, load: rest.length === 0 ? first! : { ...wired, members: [first!, ...rest] } }
  }),
  coil: { high: 0.9, right: 0.1 },
  heard: { thin: 0.4, quiet: 0.3, plays: 0.3 },
}
