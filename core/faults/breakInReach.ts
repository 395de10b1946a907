import { faultAt, type FaultDefinition } from './fault'
import { branchesOf } from '#core/job/tree'
import { withBranchChanged } from './changeTree'

/** The cable to a speaker (or group) is broken: it and, along a chain, all beyond it are cut off. */
export const breakInReach: FaultDefinition = {
  kind: 'break-in-reach',
  looks: 0.4,
  prior: 6,
  why: 'every reach has a splice or a plug at either end, and the cable between',
  // The last drop of a chain and a member of a star or series read alike with an open at the drop, cable aside; both are kept.
  candidates: output => branchesOf(output.wiring).map(b => faultAt('break-in-reach', b.node.id)),
  change: (wiring, { nodeId }) => withBranchChanged(
    wiring, nodeId!,
    // Parted at the place itself, all from there on is as it was: what is open is the cable before it.
    branch => ({ ...branch, node: { kind: 'open', id: `${nodeId!}-cut` } }),
    (rest, parent) => parent.kind === 'chain' ? [] : rest,
  ),
  coil: { right: 1 },
  acts: 'onward',
}
