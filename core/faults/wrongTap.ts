import { setTap } from '#core/hands/intents'
import { findSpeaker } from '#core/job/tree'
import { faultAt, type FaultDefinition } from './fault'
import { withBranchChanged } from './changeTree'

/** A transformer stands on another of its taps than drawn. */
export const wrongTap: FaultDefinition = {
  kind: 'wrong-tap',
  prior: 8,
  candidates: (_, speakers) => speakers.flatMap(({ id, load }) => load.kind !== 'tap'
    ? []
    : load.tapsW.filter(tapW => tapW !== load.tapW).map(tapW => faultAt('wrong-tap', id, { tapW }))),
  change: (chain, { nodeId, tapW }) => withBranchChanged(chain, nodeId!, branch => branch.node.kind === 'speaker' && branch.node.load.kind === 'tap' && tapW !== null
    ? { ...branch, node: { ...branch.node, load: { ...branch.node.load, tapW } } }
    : branch),
  coil: { right: 1 },
  plan: ({ job, fault: { nodeId, tapW } }) => {
    const found = findSpeaker(job, nodeId!)
    return found && tapW !== null ? setTap(found.speaker, tapW) : null
  },
}
