import { addAfter } from '#core/hands/intents'
import { faultAt, type FaultDefinition } from './fault'
import { withBranchChanged } from './changeTree'

/** A speaker more than drawn, beside one of those that are, and like it: read from a place onward, the line tells on which side of it. */
export const extraSpeaker: FaultDefinition = {
  kind: 'extra-speaker',
  prior: 4,
  why: 'somebody hung one more, and did not draw it',
  candidates: (_, speakers) => speakers.filter(s => s.load.kind !== 'tap' || s.load.tapW > 0).map(s => faultAt('extra-speaker', s.id)),
  change: (wiring, { nodeId }) => withBranchChanged(wiring, nodeId!, branch => ({
    ...branch,
    node: { kind: 'star', id: `${nodeId!} and one more`, children: [{ lead: null, node: branch.node }, { lead: null, node: { ...branch.node, id: `one more than ${nodeId!}` } }] },
  })),
  coil: { right: 1 },
  plan: ({ job, fault, newId }) => addAfter(job, fault.nodeId!, newId)?.edit ?? null,
}
