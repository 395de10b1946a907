import { faultAt, type FaultDefinition } from './fault'
import { withBranchChanged } from './changeTree'

/** Both conductors joined where a speaker hangs: a whisker of strand, a pinched cable. */
export const shortAtDrop: FaultDefinition = {
  kind: 'short-at-drop',
  prior: 4,
  candidates: (_, speakers) => speakers.map(s => faultAt('short-at-drop', s.id)),
  change: (chain, { nodeId }) => withBranchChanged(chain, nodeId!, branch => ({ ...branch, node: { kind: 'short', id: nodeId! } })),
  coil: { right: 1 },
}
