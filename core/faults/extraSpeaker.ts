import { likenessOf } from '#core/quantity/same'
import { addAfter } from '#core/hands/intents'
import { faultAt, type FaultDefinition } from './fault'
import { withBranchChanged } from './changeTree'

/** A speaker more than drawn, like one of those that are: where along the line it hangs is hardly to be read, so the last of each kind stands for all. */
export const extraSpeaker: FaultDefinition = {
  kind: 'extra-speaker',
  prior: 4,
  why: 'somebody hung one more, and did not draw it',
  candidates: (_, speakers) => {
    const kinds = new Map(speakers.filter(s => s.load.kind !== 'tap' || s.load.tapW > 0).map(s => [likenessOf(s.load), s]))
    return [...kinds.values()].map(s => faultAt('extra-speaker', s.id))
  },
  change: (wiring, { nodeId }) => withBranchChanged(wiring, nodeId!, branch => ({
    ...branch,
    node: { kind: 'star', id: `${nodeId!} and one more`, children: [{ lead: null, node: branch.node }, { lead: null, node: { ...branch.node, id: `one more than ${nodeId!}` } }] },
  })),
  coil: { right: 1 },
  plan: ({ job, fault, newId }) => addAfter(job, fault.nodeId!, newId)?.edit ?? null,
}
