import { faultAt, type FaultDefinition } from './fault'
import { withBranchChanged } from './changeTree'

/** One speaker takes nothing: open coil, open joint, plug out, control at zero. */
export const openAtDrop: FaultDefinition = {
  kind: 'open-at-drop',
  prior: 10,
  candidates: (_, speakers) => speakers.map(s => faultAt('open-at-drop', s.id)),
  change: (chain, { nodeId }) => withBranchChanged(chain, nodeId!, branch => ({ ...branch, node: { kind: 'open', id: nodeId! } })),
  coil: { open: 0.5, right: 0.5 },
}
