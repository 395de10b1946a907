import type { FaultDefinition } from '../fault'
import { rewire } from '../rewire'

/** A transformer stands on another of its taps than drawn. */
export const wrongTap: FaultDefinition = {
  kind: 'wrong-tap',
  prior: 8,
  candidates: (_, speakers) => speakers.flatMap(({ id, load }) => load.kind !== 'tap'
    ? []
    : load.tapsW.filter(tapW => tapW !== load.tapW).map(tapW => ({ kind: 'wrong-tap' as const, nodeId: id, tapW }))),
  change: (chain, { nodeId, tapW }) => rewire(chain, nodeId, branch => branch.node.kind === 'speaker' && branch.node.load.kind === 'tap' && tapW !== null
    ? { ...branch, node: { ...branch.node, load: { ...branch.node.load, tapW } } }
    : branch),
  coil: { right: 1 },
}
